import { useState } from 'react';
import { Button } from 'antd';
import { DownOutlined } from '@ant-design/icons';
import type { Verdict } from '@water-clock/core';
import { VerdictMark } from '../../shared/charts/VerdictMark.tsx';
import { useOpenChecks, useOpenFindings } from '../checks/checksContext.ts';
import { useScreen } from '../../app/frame/useScreen.ts';
import type { BestFix } from './useBestFix.ts';
import type { Work } from '../../data/workers/useTimerAnswer.ts';
import { say } from '@water-clock/core';

const NOT_MADE = say`The fix did not load. Check the network and try again.`;

/** Message while the answer is coming, or if none came. */
function WorkNote({ work, stop }: { readonly work: Work; readonly stop: () => void }) {
  switch (work.state) {
    case 'done':
      return null;
    case 'working':
      return (
        <p className="work-note bold">
          {/* Before the text, so that it stays in place while the text changes. */}
          <Button size="small" onClick={stop}>{say`Stop`}</Button>{' '}
          {say`Calculating: ${Math.round(work.share * 100)} %`}
        </p>
      );
    case 'stopped':
      return (
        <p className="work-note bold">{say`Stopped. This verdict is for earlier settings.`}</p>
      );
    case 'refused':
      return (
        <p className="work-note bold fault">{say`This verdict is for earlier settings: ${work.why}.`}</p>
      );
  }
}

interface Props {
  readonly tone: Verdict;
  readonly isKnown: boolean;
  readonly headline: string;
  readonly detail: string;
  readonly work: Work;
  readonly stop: () => void;
  /** Best fix; null: none. */
  readonly fix: BestFix | null;
  /** Shows the night in question on the strip; null: it is there, or there is none. */
  readonly show: (() => void) | null;
}

/**
 * Whether anything ever overlaps, otherwise whether the site's rules are kept: a line or two, with the best fix. On a phone one line that
 * opens.
 */
export function VerdictBar(props: Props) {
  const { tone, isKnown, detail, work, stop, fix, show } = props;
  const { breach } = useOpenFindings();
  const openChecks = useOpenChecks();
  const broken = tone === 'clear' ? breach : null;
  const shown = broken === null ? tone : 'breach';
  const headline = broken ?? props.headline;
  const isPhone = useScreen() === 'phone';
  const [open, setOpen] = useState(false);
  const [refusal, setRefusal] = useState<string | null>(null);
  const whole = !isPhone || open;
  return (
    <div
      className={`verdict row in-line verdict-${shown}`}
      data-of={isKnown ? 'known' : 'unknown'}
      role="status"
    >
      <VerdictMark verdict={shown} size={isPhone ? 24 : 36} />
      <div className="grow">
        <p className={`verdict-headline heavy${whole ? '' : ' clip'}`}>{headline}</p>
        {whole && detail && <p className="verdict-detail small">{detail}</p>}
        <WorkNote work={work} stop={stop} />
        {refusal !== null && (
          <p className="fault" role="alert">
            {refusal}
          </p>
        )}
      </div>
      {isPhone && (
        <Button
          type="text"
          icon={<DownOutlined rotate={open ? 180 : 0} />}
          aria-label={say`Details`}
          aria-expanded={open}
          onClick={() => setOpen(!open)}
        />
      )}
      {whole && (fix || show || broken !== null) && (
        <span className="verdict-acts row near">
          {fix && (
            <Button
              type="primary"
              danger={tone === 'overlap'}
              onClick={() => void fix.make().then(setRefusal, () => setRefusal(NOT_MADE))}
            >
              {fix.words}
            </Button>
          )}
          {broken !== null && (
            <Button type="primary" danger onClick={openChecks}>{say`Fix …`}</Button>
          )}
          {show && <Button aria-label={say`Show that night`} onClick={show}>{say`Show`}</Button>}
        </span>
      )}
    </div>
  );
}
