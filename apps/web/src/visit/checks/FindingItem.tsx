import { useState } from 'react';
import { Button, Input } from 'antd';
import {
  canBeAccepted,
  findingSentence,
  fixOf,
  fixWords,
  groupSentence,
  parseDate,
  parseTime,
  SECONDS_PER_DAY,
  startWords,
  withoutStart,
  type Check,
  type ClockSecond,
  type Finding,
  type FindingGroup,
  type RecordChange,
  type Speech,
  say,
} from '@water-clock/core';
import { DateField } from '../../shared/fields/DateField.tsx';
import { Disclosure } from '../../shared/fields/Disclosure.tsx';
import type { CheckedFacts } from './useChecks.ts';

export interface ItemProps extends Omit<CheckedFacts, 'survey' | 'rulesState' | 'coming'> {
  readonly speech: Speech;
  /** Shows the night of a moment on the strip. */
  readonly show: (moment: ClockSecond) => void;
  readonly make: (change: RecordChange) => void;
  /** Reports why something could not be done. */
  readonly tell: (why: string) => void;
  readonly accept: (findings: readonly Finding[], reason: string, until: string | null) => void;
}

/** Fixed by moving the start. That tries every time of day, so it runs only on request. */
const MOVES: readonly Finding['code'][] = ['overlap', 'afternoon-start'];

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
      className="accept-form row at-foot"
      aria-label={say`Accept: ${about}`}
      onSubmit={(event) => {
        event.preventDefault();
        if (reason.trim() && soundDate) accept(reason.trim(), until || null);
      }}
    >
      <label className="labelled">
        {say`Why is this acceptable?`}
        <Input
          value={reason}
          maxLength={200}
          autoFocus
          onChange={({ target }) => setReason(target.value)}
        />
      </label>
      <DateField label={say`Accepted until (optional)`} value={until} commit={setUntil} />
      <Button
        htmlType="submit"
        type="primary"
        disabled={!reason.trim() || !soundDate}
      >{say`Accept`}</Button>
      <Button onClick={leave}>{say`Leave it open`}</Button>
    </form>
  );
}

/** Used if the finding names no start. */
const SMALL_HOURS = 4 * 3600;

/** A moment at which the finding shows: on its date, or the next one on which its program waters; null if it has no time. */
function momentOf(
  { where: { date, program, start } }: Finding,
  { programs }: Check,
): ClockSecond | null {
  const [next] = programs.find(({ letter }) => letter === program)?.nextWateringDays ?? [];
  const day = date ?? next;
  if (day === undefined) return null;
  return day * SECONDS_PER_DAY + (parseTime(start ?? '') ?? SMALL_HOURS);
}

/** An unwanted start is moved, or deleted if another one remains. */
function StartActs({ finding, ...props }: ItemProps & { readonly finding: Finding }) {
  const { plan, brief, today, speech, make, tell } = props;
  const { program: letter, start } = finding.where;
  const program = plan.programs.find((one) => one.letter === letter);
  if (!program || start === undefined) return null;
  // This start cannot be moved before only one is left, which another finding fixes.
  const isListedTwice = program.starts.filter((time) => time === start).length > 1;
  return (
    <>
      {!isListedTwice && (
        <Button
          onClick={() => {
            const move = fixOf(plan, finding, today, brief);
            if (move) make(move.change);
            else tell(say`No free time was found for it.`);
          }}
        >{say`Move to a free time`}</Button>
      )}
      {program.starts.length > 1 && (
        <Button onClick={() => make(withoutStart(program, start))}>
          {say`Delete start time ${startWords(start, speech.clock)} of ${program.letter}`}
        </Button>
      )}
    </>
  );
}

/** One finding: message, fix, link to its night, and acceptance. */
export function FindingItem({ finding, ...props }: ItemProps & { readonly finding: Finding }) {
  const { check, plan, brief, today, speech, show, make, accept } = props;
  const [asking, setAsking] = useState(false);
  const isMove = MOVES.includes(finding.code);
  const fix = isMove ? null : fixOf(plan, finding, today, brief);
  const moment = momentOf(finding, check);
  const sentence = findingSentence(finding, speech);
  return (
    <li className={`finding aside finding-${finding.severity}`}>
      <span>{sentence}</span>
      <span className="finding-acts row near">
        {fix && <Button onClick={() => make(fix.change)}>{fixWords(fix, speech.clock)}</Button>}
        {isMove && <StartActs {...props} finding={finding} />}
        {moment !== null && (
          <Button type="text" onClick={() => show(moment)}>{say`Show on strip`}</Button>
        )}
        {canBeAccepted(finding) && !asking && (
          <Button type="text" onClick={() => setAsking(true)}>{say`Accept …`}</Button>
        )}
      </span>
      {asking && (
        <AcceptForm
          about={sentence}
          leave={() => setAsking(false)}
          accept={(reason, until) => {
            setAsking(false);
            accept([finding], reason, until);
          }}
        />
      )}
    </li>
  );
}

/** Findings with the same code in one line, which unfolds. */
export function GroupItem({ group, ...props }: ItemProps & { readonly group: FindingGroup }) {
  const [asking, setAsking] = useState(false);
  const { findings, severity } = group;
  const sentence = groupSentence(group, props.speech);
  return (
    <li className={`finding aside finding-${severity}`}>
      <span>{sentence}</span>
      {findings.every(canBeAccepted) &&
        (asking ? (
          <AcceptForm
            about={sentence}
            leave={() => setAsking(false)}
            accept={(reason, until) => {
              setAsking(false);
              props.accept(findings, reason, until);
            }}
          />
        ) : (
          <Button
            type="text"
            onClick={() => setAsking(true)}
          >{say`Accept all ${findings.length} …`}</Button>
        ))}
      <Disclosure className="finding-each" summary={say`Show all ${findings.length}`}>
        {() => (
          <ul className="findings stack list">
            {findings.map((finding, i) => (
              <FindingItem key={i} {...props} finding={finding} />
            ))}
          </ul>
        )}
      </Disclosure>
    </li>
  );
}
