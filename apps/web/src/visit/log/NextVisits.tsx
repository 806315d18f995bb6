import { useState } from 'react';
import { Button, Input } from 'antd';
import {
  attempt,
  dateWords,
  formatMoment,
  NEXT_REASONS,
  NEXT_WORDS,
  nextCycles,
  parseDate,
  programLabel,
  nextVisitWords,
  startWords,
  type FollowUp,
  type NextReason,
  type NextVisit,
  type Plan,
  say,
} from '@water-clock/core';
import { useSession } from '../../data/api/people.ts';
import { usePreferences } from '../../app/platform/preferences.tsx';
import { momentText } from '../shared/panel.ts';
import type { VisitPartProps } from '../shared/visitPart.ts';
import { SelectField } from '../../shared/fields/SelectField.tsx';
import { DateField } from '../../shared/fields/DateField.tsx';

const REPEATS = [
  [0, say`no, once`],
  [1, say`every month`],
  [2, say`every two months`],
  [3, say`every three months`],
  [6, say`twice a year`],
  [12, say`every year on this date`],
] as const;

/** The expected first watering. */
function foretold(plan: Plan, today: number, now: number): FollowUp | null {
  const coming = plan.programs.flatMap((program) => {
    const worked = attempt(() => nextCycles(plan, program, today));
    const stations = program.runs
      .filter(({ seconds }) => seconds > 0)
      .map(({ station }) => station);
    if (!worked.ok || stations.length === 0 || !program.days) return [];
    return worked.value
      .filter(({ due }) => due > now)
      .map(({ due }) => ({ program: program.letter, at: due, stations }));
  });
  const [first] = coming.sort((a, b) => a.at - b.at);
  return first
    ? { program: first.program, due: formatMoment(first.at).slice(0, 16), stations: first.stations }
    : null;
}

/** Coming visits, and who checks the first watering. */
export function NextVisits({ plan, survey, editor, today, now }: VisitPartProps) {
  const { clock, order } = usePreferences();
  const [reason, setReason] = useState<NextReason>('percent');
  const [date, setDate] = useState('');
  const [note, setNote] = useState('');
  const [everyMonths, setEveryMonths] = useState(0);
  const me = useSession().data?.person?.name;
  const next = survey.next ?? [];
  const { followUp } = survey;
  const set = (all: readonly NextVisit[]) =>
    editor.commit({ type: 'note', fields: { next: all.length > 0 ? all : null } });
  const first = foretold(plan, today, now);
  const dialect = plan.timer.dialect ?? {};
  return (
    <section aria-label={say`Next`} className="leave-part part stack">
      <h2>{say`Planned visits`}</h2>
      {next.length > 0 && (
        <ul className="points">
          {next.map((visit, i) => (
            <li key={i}>
              {dateWords(parseDate(visit.date) ?? today, today, order)}, {nextVisitWords(visit)}{' '}
              <Button
                size="small"
                aria-label={say`Delete visit ${i + 1}`}
                onClick={() => set(next.filter((_, k) => k !== i))}
              >
                ×
              </Button>
            </li>
          ))}
        </ul>
      )}
      <form
        className="sighting-fields row at-foot"
        aria-label={say`Add planned visit`}
        onSubmit={(event) => {
          event.preventDefault();
          if (parseDate(date) === null) return;
          set([
            ...next,
            {
              date,
              reason,
              ...(everyMonths > 0 ? { everyMonths } : {}),
              ...(note.trim() ? { note: note.trim() } : {}),
            },
          ]);
          setDate('');
          setNote('');
          setEveryMonths(0);
        }}
      >
        <SelectField
          label={say`Reason`}
          value={reason}
          options={NEXT_REASONS.map((one) => [one, NEXT_WORDS[one]] as const)}
          pick={(value) => setReason(value)}
        />
        <DateField label={say`On`} value={date} commit={setDate} />
        <SelectField
          label={say`Again`}
          value={everyMonths}
          options={REPEATS}
          pick={(value) => setEveryMonths(Number(value))}
        />
        <label className="labelled">
          {say`Note`}
          <Input value={note} maxLength={120} onChange={({ target }) => setNote(target.value)} />
        </label>
        <Button htmlType="submit" disabled={parseDate(date) === null}>{say`Add`}</Button>
      </form>
      {followUp ? (
        <p className={followUp.seenOn ? 'soft' : 'notice'}>
          {say`First watering: program ${programLabel(followUp.program, dialect)}, ${dateWords(parseDate(followUp.due.slice(0, 10)) ?? today, today, order)}, ${startWords(followUp.due.slice(11), clock)}, stations ${followUp.stations.join(', ')} in this order.`}{' '}
          {followUp.seenOn ? (
            <>
              {followUp.seenBy
                ? say`Seen ${dateWords(parseDate(followUp.seenOn) ?? today, today, order)} by ${followUp.seenBy}.`
                : say`Seen ${dateWords(parseDate(followUp.seenOn) ?? today, today, order)}.`}
            </>
          ) : (
            <>
              {say`Open until someone confirms it.`}{' '}
              <Button
                onClick={() =>
                  editor.commit({
                    type: 'note',
                    fields: {
                      followUp: {
                        ...followUp,
                        seenOn: momentText(now).slice(0, 10),
                        ...(me ? { seenBy: me } : {}),
                      },
                    },
                  })
                }
              >{say`Confirm it ran correctly`}</Button>
            </>
          )}{' '}
          <Button
            size="small"
            onClick={() => editor.commit({ type: 'note', fields: { followUp: null } })}
          >{say`Not needed`}</Button>
        </p>
      ) : (
        first && (
          <p>
            <Button
              onClick={() => editor.commit({ type: 'note', fields: { followUp: first } })}
            >{say`Ask someone to watch the first watering`}</Button>{' '}
            <span className="soft">
              {say`Program ${programLabel(first.program, dialect)},`}{' '}
              {dateWords(parseDate(first.due.slice(0, 10)) ?? today, today, order)},{' '}
              {say`${startWords(first.due.slice(11), clock)}, stations ${first.stations.join(', ')}.`}
            </span>
          </p>
        )
      )}
    </section>
  );
}
