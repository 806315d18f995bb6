import { useState } from 'react';
import { Button } from 'antd';
import {
  aboutOf,
  dateWords,
  findingGroups,
  findingSentence,
  formatDate,
  parseDate,
  type Accepted,
  type ClockSecond,
  type Finding,
  type Judged,
  type RecordChange,
  type Speech,
  say,
} from '@water-clock/core';
import { Disclosure } from '../../shared/fields/Disclosure.tsx';
import type { CheckedFacts } from './useChecks.ts';
import { FindingItem, GroupItem } from './FindingItem.tsx';
import { OverlapList } from './OverlapList.tsx';
import { REPAIRABLE, RepairPanel } from './RepairPanel.tsx';
import { SafeFixes } from './SafeFixes.tsx';
import { SideDrawer } from '../../app/frame/SideDrawer.tsx';
import { RULES_FAILED, type RulesState } from '../steps/useVisitBasis.ts';
import { commitWords } from '../../data/editor/commitWords.ts';
import type { TimerEditor } from '../../data/editor/editor.ts';

interface Props extends CheckedFacts {
  readonly timerId: string;
  readonly findings: Judged;
  readonly editor: TimerEditor;
  readonly speech: Speech;
  /** Shows the night of a moment on the strip. */
  readonly show: (moment: ClockSecond) => void;
}

const GROUPS = [
  ['error', say`Fix`],
  ['warning', say`Review`],
  ['note', say`For information`],
] as const;

/** What the list cannot check: nothing, or the site's rules. */
function Rest({ state, isClear }: { readonly state: RulesState; readonly isClear: boolean }) {
  if (state === 'failed') return <p>{RULES_FAILED}</p>;
  if (state === 'pending') return <p role="status">{say`Loading the local rules …`}</p>;
  return isClear && <p className="checks-none">{say`Nothing left to review.`}</p>;
}

/** The findings, each with its fix and a way to accept it. */
function Findings(props: Props) {
  const { check, plan, brief, survey, editor, today, speech, show } = props;
  const { order } = speech;
  const { open, accepted: apart } = props.findings;
  const [refusal, setRefusal] = useState<string | null>(null);
  const accepted = survey.accepted ?? [];
  const make = (change: RecordChange) => setRefusal(commitWords(editor, change));
  const note = (next: readonly Accepted[]) =>
    make({ type: 'note', fields: { accepted: next.length > 0 ? next : null } });
  const accept = (findings: readonly Finding[], reason: string, until: string | null) =>
    note([
      // Remove acceptances that no longer apply.
      ...accepted.filter((one) => one.until === undefined || one.until >= formatDate(today)),
      ...findings.map((finding) => ({
        code: finding.code,
        about: aboutOf(finding, plan, brief),
        reason,
        ...(until === null ? {} : { until }),
      })),
    ]);
  const item = { check, plan, brief, today, speech, show, make, accept, tell: setRefusal };
  const lines = findingGroups(open);
  return (
    <section aria-label={say`Findings`} className="stack">
      {open.some(({ code }) => REPAIRABLE.has(code)) && (
        <RepairPanel facts={props} timerId={props.timerId} editor={editor} speech={speech} />
      )}
      <SafeFixes plan={plan} brief={brief} editor={editor} today={today} speech={speech} />
      <Rest state={props.rulesState} isClear={open.length === 0} />
      {GROUPS.map(([severity, name]) => {
        const here = lines.filter((line) => line.severity === severity);
        if (here.length === 0) return null;
        return (
          <section key={severity} aria-label={name} className="stack near">
            <h3>
              {name} <span className="soft">{here.length}</span>
            </h3>
            {severity === 'error' && (
              <OverlapList
                check={check}
                onOverlap={plan.timer.onOverlap}
                speech={speech}
                show={show}
              />
            )}
            <ul className="findings stack list">
              {here.map((group, i) => {
                const [first] = group.findings;
                const key = `${group.code} ${i}`;
                return group.findings.length > 1 ? (
                  <GroupItem key={key} {...item} group={group} />
                ) : (
                  first && <FindingItem key={key} {...item} finding={first} />
                );
              })}
            </ul>
          </section>
        );
      })}
      {refusal && (
        <p className="fault" role="alert">
          {refusal}
        </p>
      )}
      {apart.length > 0 && (
        <Disclosure className="findings-accepted" summary={say`Accepted: ${apart.length}`}>
          {() => (
            <ul className="findings stack list">
              {apart.map(({ finding, as }, i) => (
                <li key={i} className="finding aside">
                  <span>
                    {findingSentence(finding, speech)} <em>{as.reason}</em>{' '}
                    {as.until &&
                      say`Accepted until ${dateWords(parseDate(as.until) ?? today, today, order)}.`}
                  </span>
                  <span className="finding-acts row near">
                    <Button
                      onClick={() => note(accepted.filter((one) => one !== as))}
                    >{say`Undo acceptance`}</Button>
                  </span>
                </li>
              ))}
            </ul>
          )}
        </Disclosure>
      )}
    </section>
  );
}

/** The checks in a drawer on the right, or a sheet on a phone, so that findings never push the editor down. */
export default function ChecksDrawer({
  open,
  close,
  ...props
}: Props & { readonly open: boolean; readonly close: () => void }) {
  return (
    <SideDrawer title={say`Checks`} open={open} close={close}>
      <Findings {...props} />
    </SideDrawer>
  );
}
