import { useState } from 'react';
import { Button, Drawer, Input } from 'antd';
import {
  aboutOf,
  attempt,
  canBeAccepted,
  dateWords,
  findingSentence,
  fixOf,
  fixWords,
  formatDate,
  parseDate,
  parseTime,
  safeFixes,
  SECONDS_PER_DAY,
  type Accepted,
  type Check,
  type ClockSecond,
  type Finding,
  type Judged,
  type Plan,
  type Speech,
} from '@water-clock/core';
import { Disclosure } from '../fields/Disclosure.tsx';
import type { CheckedFacts } from './useChecks.ts';
import { OverlapList } from './OverlapList.tsx';
import { useScreen } from '../frame/useScreen.ts';
import { commitWords } from '../editor/commitWords.ts';
import type { TimerEditor } from '../editor/editor.ts';
import { DateField } from '../fields/DateField.tsx';

interface Props extends CheckedFacts {
  readonly findings: Judged;
  readonly editor: TimerEditor;
  readonly speech: Speech;
  /** Brings the night of a moment to the strip. */
  readonly show: (moment: ClockSecond) => void;
}

/** Fixed by another start. That tries every time of day, so only on request. */
const MOVES: readonly Finding['code'][] = ['overlap', 'afternoon-start'];

const GROUPS = [
  ['error', 'Must be fixed'],
  ['warning', 'Should be looked at'],
  ['note', 'Good to know'],
] as const;

function AcceptForm({
  about,
  accept,
  leave,
}: {
  readonly about: string;
  readonly accept: (reason: string, until: string | null) => void;
  readonly leave: () => void;
}) {
  const [reason, setReason] = useState('');
  const [until, setUntil] = useState('');
  const soundDate = until === '' || parseDate(until) !== null;
  return (
    <form
      className="accept-form"
      aria-label={`Accept: ${about}`}
      onSubmit={(event) => {
        event.preventDefault();
        if (reason.trim() && soundDate) accept(reason.trim(), until || null);
      }}
    >
      <label className="labelled">
        Why is this as it should be?
        <Input
          value={reason}
          maxLength={200}
          autoFocus
          onChange={({ target }) => setReason(target.value)}
        />
      </label>
      <DateField label="Last day (empty: until it changes)" value={until} commit={setUntil} />
      <Button htmlType="submit" type="primary" disabled={!reason.trim() || !soundDate}>
        Accept
      </Button>
      <Button onClick={leave}>Leave it open</Button>
    </form>
  );
}

/** Where no start is named, the small hours of the date. */
const SMALL_HOURS = 4 * 3600;

/** The moment at which a finding shows: on its own date, or on the next one on which its program waters; null where it has no hour. */
function momentOf(
  { where: { date, program, start } }: Finding,
  { programs }: Check,
): ClockSecond | null {
  const [next] = programs.find(({ letter }) => letter === program)?.nextWateringDays ?? [];
  const day = date ?? next;
  if (day === undefined) return null;
  return day * SECONDS_PER_DAY + (parseTime(start ?? '') ?? SMALL_HOURS);
}

/** Such a start is not moved: first keep only one, which is the fix of a finding of its own. */
function isListedTwice(
  { where: { program: letter, start } }: Finding,
  { programs }: Plan,
): boolean {
  const starts = programs.find((program) => program.letter === letter)?.starts ?? [];
  return starts.filter((time) => time === start).length > 1;
}

/** Fixes that need no decision: shown first, then made as one step. */
function SafeFixes({
  plan,
  brief,
  editor,
  today,
  speech,
}: Omit<Props, 'check' | 'survey' | 'show' | 'findings'>) {
  const [preview, setPreview] = useState<ReturnType<typeof safeFixes> | null>(null);
  const look = () => {
    const worked = attempt(() => safeFixes(plan, today, brief));
    setPreview(worked.ok ? worked.value : { change: null, fixed: [] });
  };
  if (!preview)
    return (
      <Button block onClick={look}>
        Fix what is safe …
      </Button>
    );
  const { change, fixed } = preview;
  return (
    <div className="safe-fixes" role="status">
      {change ? (
        <>
          <p>This changes when something runs, never how much:</p>
          <ul>
            {fixed.map(({ finding, fix }, i) => (
              <li key={i}>
                <strong>{fixWords(fix, speech.clock)}.</strong> {findingSentence(finding, speech)}
              </li>
            ))}
          </ul>
        </>
      ) : (
        <p>Nothing here is safe to fix without you.</p>
      )}
      {change && (
        <Button
          type="primary"
          onClick={() => {
            editor.commit(change);
            setPreview(null);
          }}
        >
          Make {fixed.length === 1 ? 'this change' : `these ${fixed.length} changes`}
        </Button>
      )}
      <Button onClick={() => setPreview(null)}>Leave it</Button>
    </div>
  );
}

/** The findings of the checks: each with its fix, and a way to accept it. */
function Findings(props: Props) {
  const { check, plan, brief, survey, editor, today, speech, show } = props;
  const { order } = speech;
  const { open, accepted: apart } = props.findings;
  const [asking, setAsking] = useState<string | null>(null);
  const [refusal, setRefusal] = useState<string | null>(null);
  const accepted = survey.accepted ?? [];
  const item = (finding: Finding, i: number) => {
    const isMove = MOVES.includes(finding.code);
    const fix = isMove ? null : fixOf(plan, finding, today, brief);
    const moment = momentOf(finding, check);
    const key = `${finding.code} ${i}`;
    const sentence = findingSentence(finding, speech);
    return (
      <li key={key} className={`finding finding-${finding.severity}`}>
        <span>{sentence}</span>
        <span className="finding-acts">
          {fix && (
            <Button onClick={() => setRefusal(commitWords(editor, fix.change))}>
              {fixWords(fix, speech.clock)}
            </Button>
          )}
          {isMove && !isListedTwice(finding, plan) && (
            <Button
              onClick={() => {
                const move = fixOf(plan, finding, today, brief);
                setRefusal(
                  move ? commitWords(editor, move.change) : 'No other time of day is free for it.',
                );
              }}
            >
              Move it to a free time
            </Button>
          )}
          {moment !== null && (
            <Button type="text" onClick={() => show(moment)}>
              Show it on the strip
            </Button>
          )}
          {canBeAccepted(finding) && asking !== key && (
            <Button type="text" onClick={() => setAsking(key)}>
              Accept …
            </Button>
          )}
        </span>
        {asking === key && (
          <AcceptForm
            about={sentence}
            leave={() => setAsking(null)}
            accept={(reason, until) => {
              setAsking(null);
              note([
                // Drop acceptances that are over.
                ...accepted.filter(
                  (accepted) => accepted.until === undefined || accepted.until >= formatDate(today),
                ),
                {
                  code: finding.code,
                  about: aboutOf(finding, plan, brief),
                  reason,
                  ...(until === null ? {} : { until }),
                },
              ]);
            }}
          />
        )}
      </li>
    );
  };
  const note = (next: readonly Accepted[]) =>
    setRefusal(
      commitWords(editor, { type: 'note', fields: { accepted: next.length > 0 ? next : null } }),
    );
  return (
    <section aria-label="Findings">
      <SafeFixes {...props} />
      {open.length === 0 && <p className="checks-none">Nothing is left to look at.</p>}
      {GROUPS.map(([severity, name]) => {
        const group = open.filter((finding) => finding.severity === severity);
        if (group.length === 0) return null;
        return (
          <section key={severity} aria-label={name}>
            <h3 className="checks-group">
              {name} <span className="soft">{group.length}</span>
            </h3>
            {severity === 'error' && (
              <OverlapList
                check={check}
                onOverlap={plan.timer.onOverlap}
                speech={speech}
                show={show}
              />
            )}
            <ul className="findings">{group.map(item)}</ul>
          </section>
        );
      })}
      {refusal && (
        <p className="fault" role="alert">
          {refusal}
        </p>
      )}
      {apart.length > 0 && (
        <Disclosure className="findings-accepted" summary={`Accepted: ${apart.length}`}>
          {() => (
            <ul className="findings">
              {apart.map(({ finding, as }, i) => (
                <li key={i} className="finding">
                  <span>
                    {findingSentence(finding, speech)} <em>{as.reason}</em>
                    {as.until
                      ? ` (until ${dateWords(parseDate(as.until) ?? today, today, order)})`
                      : ''}
                  </span>
                  <span className="finding-acts">
                    <Button onClick={() => note(accepted.filter((accepted) => accepted !== as))}>
                      No longer
                    </Button>
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

/** The checks in a drawer from the right, or a sheet on a phone: findings never push what is edited down. */
export default function ChecksDrawer({
  open,
  close,
  ...props
}: Props & { readonly open: boolean; readonly close: () => void }) {
  const isPhone = useScreen() === 'phone';
  return (
    <Drawer
      title="Checks"
      placement={isPhone ? 'bottom' : 'right'}
      size={isPhone ? '80vh' : 460}
      open={open}
      onClose={close}
      mask={isPhone}
      // Below the line with undo and the menu, which stay at hand.
      rootStyle={isPhone ? {} : { top: 54 }}
      destroyOnHidden
    >
      <Findings {...props} />
    </Drawer>
  );
}
