import { useMemo, useState } from 'react';
import { Button, Input } from 'antd';
import {
  aboutOf,
  canBeAccepted,
  dateWords,
  findingSentence,
  fixOf,
  fixWords,
  formatDate,
  judged,
  parseDate,
  parseTime,
  SECONDS_PER_DAY,
  type Accepted,
  type Brief,
  type Check,
  type ClockSecond,
  type EpochDay,
  type Finding,
  type Plan,
  type Speech,
  type Survey,
} from '@water-clock/core';
import { Disclosure } from '../fields/Disclosure.tsx';
import { commitWords } from '../editor/commitWords.ts';
import type { TimerEditor } from '../editor/editor.ts';
import { DateField } from '../fields/DateField.tsx';

interface Props {
  readonly check: Check;
  /** The plan that was checked. */
  readonly plan: Plan;
  readonly brief: Brief;
  readonly survey: Survey;
  readonly editor: TimerEditor;
  readonly today: EpochDay;
  readonly speech: Speech;
  /** Brings the night of a moment to the strip. */
  readonly show: (moment: ClockSecond) => void;
}

/** Fixed by another start. That tries every time of day, so only on request. */
const MOVES: readonly Finding['code'][] = ['overlap', 'afternoon-start'];

/** How many show at first; a press shows the rest. */
const FIRST = 3;

const SEVERITY_WORDS = { error: 'Wrong', warning: 'Look at this', note: 'Note' } as const;

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

/** The verdict and the list of overlaps cover half-set programs and all overlaps; the first overlap is here for its fix. */
function shownOf({ overlaps, findings }: Check, { timer }: Plan): Finding[] {
  const [overlap] = overlaps;
  const rest = findings.filter(({ code }) => code !== 'overlap' && !code.startsWith('missing-'));
  if (!overlap) return rest;
  const { letter, start, day } = overlap.second;
  const where = { program: letter, start, date: day };
  return [
    { code: 'overlap', severity: 'error', overlap, onOverlap: timer.onOverlap, where },
    ...rest,
  ];
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

/** The findings of the checks: each with its fix, and a way to accept it. */
export function FindingList(props: Props) {
  const { check, plan, brief, survey, editor, today, speech, show } = props;
  const findings = useMemo(() => shownOf(check, plan), [check, plan]);
  const [asking, setAsking] = useState<string | null>(null);
  const [refusal, setRefusal] = useState<string | null>(null);
  const accepted = survey.accepted ?? [];
  const { open, accepted: apart } = judged(findings, accepted, plan, brief, today);
  const item = (finding: Finding, i: number) => {
    const isMove = MOVES.includes(finding.code);
    const fix = isMove ? null : fixOf(plan, finding, today, brief);
    const moment = momentOf(finding, check);
    const key = `${finding.code} ${i}`;
    const sentence = findingSentence(finding, speech);
    return (
      <li key={key} className={`finding finding-${finding.severity}`}>
        <span>
          <b className="finding-mark">{SEVERITY_WORDS[finding.severity]}:</b> {sentence}
        </span>
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
  if (open.length === 0 && apart.length === 0) return null;
  return (
    <section aria-label="Findings">
      {open.length > 0 && <ul className="findings">{open.slice(0, FIRST).map(item)}</ul>}
      {open.length > FIRST && (
        <Disclosure className="findings-more" summary={`${open.length - FIRST} more`}>
          {() => (
            <ul className="findings">
              {open.slice(FIRST).map((finding, i) => item(finding, FIRST + i))}
            </ul>
          )}
        </Disclosure>
      )}
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
                    {as.until ? ` (until ${dateWords(parseDate(as.until) ?? today, today)})` : ''}
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
