import type { ReactNode } from 'react';
import { Layout } from 'antd';
import { LeftOutlined } from '@ant-design/icons';
import { Link } from 'react-router';
import { nameOf, type StepPath, type StepState } from '../../visit/steps/steps.ts';
import { usePageTitle } from '../platform/PageHeading.tsx';
import { PhaseBar } from './PhaseBar.tsx';
import { useScreen } from './useScreen.ts';
import { VisitRail } from './VisitRail.tsx';
import './frame.css';
import { say } from '@water-clock/core';

interface Props {
  readonly timerId: string;
  /** Path of the step. */
  readonly shown: string;
  readonly states: Partial<Record<StepPath, StepState>>;
  /** Only a few steps apply to the timer. */
  readonly simple: boolean;
  readonly site: string;
  /** Of the timer. */
  readonly kind: string;
  readonly tools: ReactNode;
  readonly verdict: ReactNode;
  readonly children: ReactNode;
}

/** The frame of a timer's pages: the visit's steps, one bar above the content, and the verdict. */
export function VisitFrame(props: Props) {
  const { timerId, shown, states, simple, site, kind, tools, verdict, children } = props;
  usePageTitle(site, nameOf(shown));
  if (useScreen() === 'phone')
    return (
      <div className="phone">
        <header className="bar row in-line near">
          <Link to="/sites" className="plain" aria-label={say`All sites`}>
            <LeftOutlined />
          </Link>
          <div className="grow">
            <h1 className="clip">{site}</h1>
            <span className="soft small">{nameOf(shown)}</span>
          </div>
          {tools}
        </header>
        {verdict}
        <main tabIndex={-1}>{children}</main>
        <PhaseBar timerId={timerId} shown={shown} states={states} simple={simple} />
      </div>
    );
  return (
    <Layout hasSider style={{ minHeight: '100vh' }}>
      <VisitRail timerId={timerId} shown={shown} states={states} simple={simple} />
      <Layout>
        <header className="head row in-line">
          <h1 className="clip">
            {site} <span className="soft">{kind}</span>
          </h1>
          {tools}
        </header>
        {verdict}
        <main tabIndex={-1}>{children}</main>
      </Layout>
    </Layout>
  );
}
