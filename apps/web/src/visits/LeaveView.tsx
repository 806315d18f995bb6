import { useState } from 'react';
import { Button } from 'antd';
import { useQueryClient } from '@tanstack/react-query';
import { Link } from 'react-router';
import {
  attempt,
  dateWords,
  formatMoment,
  momentWords,
  NEXT_REASONS,
  NEXT_WORDS,
  nextCycles,
  openPoints,
  openPointSentence,
  openSwitches,
  parseDate,
  parseMoment,
  samePlan,
  startWords,
  SWITCHED,
  SWITCHED_WORDS,
  TEST_RESULTS,
  TEST_WORDS,
  WIRING_WORDS,
  WIRINGS,
  type FollowUp,
  type NextReason,
  type NextVisit,
  type Plan,
  type StationTest,
  type Switched,
  type Visit,
} from '@water-clock/core';
import { newId, RefusedError } from '../platform/api.ts';
import { usePreferences } from '../platform/preferences.tsx';
import { Chips } from '../survey/Chips.tsx';
import { PhotoRow } from '../survey/PhotoRow.tsx';
import { NumberField } from '../timers/NumberField.tsx';
import { loadTimer } from '../timers/queries.ts';
import type { SurveyProps } from '../visit/SurveyViews.tsx';
import { frozenAt, momentText } from './panel.ts';
import { VisitFindings } from './VisitFindings.tsx';
import { NoVisit } from './NoVisit.tsx';
import { closeVisit, visitKeys } from './queries.ts';
import { useKind } from './useKind.ts';
import './visits.css';

const chips = <T extends string>(all: readonly T[], words: Readonly<Record<T, string>>) =>
  all.map((one) => [one, words[one]] as const);

interface PartProps extends SurveyProps {
  readonly visit: Visit;
}

/** Two minutes a station, and what the wiring test said. */
function Tests({ plan, visit, editor }: PartProps) {
  const tests = visit.tests ?? [];
  const set = (station: number, fields: Partial<StationTest>) => {
    const others = tests.filter((one) => one.station !== station);
    const before = tests.find((one) => one.station === station) ?? { station };
    const next = Object.fromEntries(
      Object.entries({ ...before, ...fields }).filter(([, value]) => value !== undefined),
    ) as unknown as StationTest;
    const all = [...others, ...(Object.keys(next).length > 1 ? [next] : [])];
    editor.commit({
      type: 'note-visit',
      fields: { tests: all.length > 0 ? all.sort((a, b) => a.station - b.station) : null },
    });
  };
  const left = plan.stations.filter(
    ({ number }) => !tests.some((one) => one.station === number && one.result),
  );
  return (
    <section aria-label="Test" className="leave-part">
      <h2>Test: two minutes a station</h2>
      <p className="soft">
        {left.length === 0
          ? 'All stations are tested.'
          : `${plan.stations.length - left.length} of ${plan.stations.length} tested.`}{' '}
        A pump must never run with every valve closed.
      </p>
      {left.length > 1 && (
        <Button
          onClick={() => {
            const rest = left.map(({ number }): StationTest => ({
              ...tests.find((one) => one.station === number),
              station: number,
              result: 'waters',
            }));
            const others = tests.filter(
              ({ station }) => !rest.some((one) => one.station === station),
            );
            editor.commit({
              type: 'note-visit',
              fields: { tests: [...others, ...rest].sort((a, b) => a.station - b.station) },
            });
          }}
        >
          {left.length === plan.stations.length ? 'All of them water' : 'All others water'}
        </Button>
      )}
      {plan.stations.map(({ number, name }) => {
        const noted = tests.find((one) => one.station === number);
        return (
          <details key={number} className="test">
            <summary>
              <strong>{number}</strong> {name ?? ''}{' '}
              <span className={noted?.result && noted.result !== 'waters' ? 'fault' : 'soft'}>
                {noted?.result ? TEST_WORDS[noted.result] : 'not tested'}
                {noted?.wiring && noted.wiring !== 'good' ? `, ${WIRING_WORDS[noted.wiring]}` : ''}
              </span>
            </summary>
            <Chips
              label="It"
              options={chips(TEST_RESULTS, TEST_WORDS)}
              value={noted?.result ?? null}
              pick={(result) =>
                set(number, { result: result ?? undefined } as Partial<StationTest>)
              }
            />
            <Chips
              label="Wiring"
              options={chips(WIRINGS, WIRING_WORDS)}
              value={noted?.wiring ?? null}
              pick={(wiring) =>
                set(number, { wiring: wiring ?? undefined } as Partial<StationTest>)
              }
            />
            <input
              className="field"
              aria-label={`Reading of station ${number}`}
              placeholder="reading, such as 0.21 A"
              maxLength={80}
              defaultValue={noted?.reading ?? ''}
              onBlur={({ target }) => {
                const reading = target.value.trim();
                if (reading !== (noted?.reading ?? ''))
                  set(number, { reading: reading || undefined } as Partial<StationTest>);
              }}
            />
          </details>
        );
      })}
    </section>
  );
}

/** What was switched for the test: put back, or left so for a reason. */
function PutBack({ plan, visit, editor }: PartProps) {
  const noted = visit.switched ?? [];
  const open = openSwitches(visit, plan);
  const set = (what: Switched, next: { putBack: boolean; reason?: string } | null) => {
    const all = [...noted.filter((one) => one.what !== what), ...(next ? [{ what, ...next }] : [])];
    editor.commit({ type: 'note-visit', fields: { switched: all.length > 0 ? all : null } });
  };
  return (
    <section aria-label="Put back" className="leave-part">
      <h2>Put back what was switched</h2>
      {SWITCHED.map((what) => {
        const one = noted.find((each) => each.what === what);
        const isOpen = open.includes(what);
        return (
          <div key={what} className="switched">
            <Chips
              label={SWITCHED_WORDS[what]}
              options={[
                ['back', 'Put back'],
                ['on', 'Still so'],
              ]}
              value={one ? (one.putBack ? 'back' : 'on') : isOpen ? 'on' : null}
              pick={(value) => set(what, value === null ? null : { putBack: value === 'back' })}
            />
            {(isOpen || one?.reason !== undefined) && (
              <input
                className="field"
                aria-label={`${SWITCHED_WORDS[what]}: why it stays`}
                placeholder="why it stays so"
                maxLength={120}
                defaultValue={one?.reason ?? ''}
                onBlur={({ target }) => {
                  const reason = target.value.trim();
                  if (reason !== (one?.reason ?? ''))
                    set(what, reason === '' ? { putBack: false } : { putBack: false, reason });
                }}
              />
            )}
          </div>
        );
      })}
    </section>
  );
}

/** Frozen as left, and kept inside the timer where it can. */
function AsLeft(props: PartProps) {
  const { plan, visit, editor, now, today } = props;
  const { clock } = usePreferences();
  const kind = useKind(plan);
  const { asLeft, savedInside } = visit;
  const isOlder = asLeft !== undefined && !samePlan(asLeft.plan, plan);
  return (
    <section aria-label="As left" className="leave-part">
      <h2>As left</h2>
      <p>
        <Button
          type={asLeft && !isOlder ? 'default' : 'primary'}
          size="large"
          onClick={() =>
            editor.commit({ type: 'note-visit', fields: { asLeft: frozenAt(plan, now) } })
          }
        >
          {asLeft ? 'Freeze as left again' : 'Freeze as left'}
        </Button>{' '}
        {asLeft && (
          <span className="soft">
            Frozen {momentWords(parseMoment(asLeft.at) ?? 0, { on: today, clock })}.
          </span>
        )}
        {isOlder && <span className="fault"> Settings were changed since.</span>}
      </p>
      <Chips
        label="Saved inside the timer"
        options={[
          ['as-left', 'As left'],
          ['as-found', 'As found'],
          ['other', 'Something else'],
        ]}
        value={savedInside?.state ?? null}
        pick={(state) =>
          editor.commit({
            type: 'note-visit',
            fields: { savedInside: state === null ? null : { state, at: momentText(now) } },
          })
        }
      />
      {kind?.restore && (
        <>
          <p className="soft">{kind.restore}</p>
          {savedInside && (
            <blockquote className="say-so">
              By phone: “Stand before the timer and leave the cover of the wiring shut. Read me the
              time that it shows. Now open its settings and choose to bring back what was saved.
              When it asks, say yes. Read me the first start of program A: it must say{' '}
              {startWords(asLeft?.plan.programs[0]?.starts[0] ?? '00:00', '12')}.”
            </blockquote>
          )}
        </>
      )}
    </section>
  );
}

/** The first watering that is to come, as it must happen. */
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

function Next({ plan, survey, editor, today, now }: PartProps) {
  const { clock } = usePreferences();
  const [reason, setReason] = useState<NextReason>('percent');
  const [date, setDate] = useState('');
  const [note, setNote] = useState('');
  const next = survey.next ?? [];
  const { followUp } = survey;
  const set = (all: readonly NextVisit[]) =>
    editor.commit({ type: 'note', fields: { next: all.length > 0 ? all : null } });
  const first = foretold(plan, today, now);
  return (
    <section aria-label="Next" className="leave-part">
      <h2>Who comes back, and when</h2>
      {next.length > 0 && (
        <ul className="visit-list">
          {next.map((one, i) => (
            <li key={i}>
              {dateWords(parseDate(one.date) ?? today, today)}: {NEXT_WORDS[one.reason]}
              {one.note ? `: ${one.note}` : ''}{' '}
              <Button
                size="small"
                aria-label={`Take out visit ${i + 1}`}
                onClick={() => set(next.filter((_, k) => k !== i))}
              >
                ×
              </Button>
            </li>
          ))}
        </ul>
      )}
      <form
        className="sighting-fields"
        aria-label="A visit to come"
        onSubmit={(event) => {
          event.preventDefault();
          if (parseDate(date) === null) return;
          set([...next, { date, reason, ...(note.trim() ? { note: note.trim() } : {}) }]);
          setDate('');
          setNote('');
        }}
      >
        <label className="labelled">
          Why
          <select
            className="field"
            value={reason}
            onChange={({ target }) => setReason(target.value as NextReason)}
          >
            {NEXT_REASONS.map((one) => (
              <option key={one} value={one}>
                {NEXT_WORDS[one]}
              </option>
            ))}
          </select>
        </label>
        <label className="labelled">
          On
          <input
            className="field"
            type="date"
            value={date}
            onChange={({ target }) => setDate(target.value)}
          />
        </label>
        <label className="labelled">
          Note
          <input
            className="field"
            value={note}
            maxLength={120}
            onChange={({ target }) => setNote(target.value)}
          />
        </label>
        <Button htmlType="submit" disabled={parseDate(date) === null}>
          Add
        </Button>
      </form>
      {followUp ? (
        <p className={followUp.seenOn ? 'soft' : 'notice'}>
          First real watering: program {followUp.program},{' '}
          {dateWords(parseDate(followUp.due.slice(0, 10)) ?? today, today)},{' '}
          {startWords(followUp.due.slice(11), clock)}, stations {followUp.stations.join(', ')} in
          this order.{' '}
          {followUp.seenOn ? (
            <>Seen {dateWords(parseDate(followUp.seenOn) ?? today, today)}.</>
          ) : (
            <>
              Open until somebody has seen it.{' '}
              <Button
                onClick={() =>
                  editor.commit({
                    type: 'note',
                    fields: { followUp: { ...followUp, seenOn: momentText(now).slice(0, 10) } },
                  })
                }
              >
                It was seen, and right
              </Button>
            </>
          )}{' '}
          <Button
            size="small"
            onClick={() => editor.commit({ type: 'note', fields: { followUp: null } })}
          >
            Not needed
          </Button>
        </p>
      ) : (
        first && (
          <p>
            <Button onClick={() => editor.commit({ type: 'note', fields: { followUp: first } })}>
              Somebody is to see the first real watering
            </Button>{' '}
            <span className="soft">
              Program {first.program},{' '}
              {dateWords(parseDate(first.due.slice(0, 10)) ?? today, today)},{' '}
              {startWords(first.due.slice(11), clock)}, stations {first.stations.join(', ')}.
            </span>
          </p>
        )
      )}
    </section>
  );
}

function Close(props: PartProps) {
  const { plan, survey, visit, editor, timerId, now } = props;
  const client = useQueryClient();
  const [fault, setFault] = useState<string | null>(null);
  const [closing, setClosing] = useState(false);
  const points = openPoints(plan, survey);
  const close = async () => {
    setClosing(true);
    setFault(null);
    try {
      const { version } = await loadTimer(timerId);
      await closeVisit(timerId, { id: newId(), baseVersion: version, closed: momentText(now) });
      await editor.noticeOwn();
      await client.invalidateQueries({ queryKey: visitKeys.of(timerId) });
    } catch (error) {
      setFault(
        error instanceof RefusedError
          ? error.faults.map(({ message }) => message).join(' ') || error.message
          : 'Not closed: the server cannot be reached. Try again.',
      );
    } finally {
      setClosing(false);
    }
  };
  const unsaved = editor.snapshot().unsaved > 0;
  return (
    <section aria-label="Close" className="leave-part">
      <h2>Close the visit</h2>
      <div className="sighting-fields">
        <NumberField
          label="Minutes spent"
          least={0}
          most={10_000}
          empty="not noted"
          value={visit.minutesSpent ?? null}
          commit={(minutesSpent) => {
            editor.commit({ type: 'note-visit', fields: { minutesSpent } });
            return null;
          }}
        />
        <label className="labelled leave-done">
          What was done
          <textarea
            className="field"
            rows={2}
            maxLength={2000}
            defaultValue={visit.done ?? ''}
            onBlur={({ target }) => {
              const done = target.value.trim();
              if (done !== (visit.done ?? ''))
                editor.commit({ type: 'note-visit', fields: { done: done === '' ? null : done } });
            }}
          />
        </label>
      </div>
      <PhotoRow
        label="Photos of the visit"
        most={24}
        photos={visit.photos ?? []}
        set={(photos) =>
          editor.commit({
            type: 'note-visit',
            fields: { photos: photos.length > 0 ? photos : null },
          })
        }
      />
      <p>
        <Link to={`/timers/${timerId}/page`}>The homeowner’s page</Link>: leave it on paper, or as a
        private link.
      </p>
      {points.length > 0 && (
        <ul className="visit-list" aria-label="Still to be done">
          {points.map((point, i) => (
            <li key={i} className="fault">
              {openPointSentence(point)}
            </li>
          ))}
        </ul>
      )}
      {fault && (
        <p className="fault" role="alert">
          {fault}
        </p>
      )}
      <Button
        type="primary"
        size="large"
        loading={closing}
        disabled={points.length > 0 || unsaved}
        onClick={() => void close()}
      >
        Close the visit
      </Button>
    </section>
  );
}

/** Test, put back, freeze, say who comes back, close. */
export default function LeaveView(props: SurveyProps) {
  const { visit } = props.survey;
  if (!visit)
    return (
      <div className="survey-view">
        <NoVisit editor={props.editor} now={props.now} />
        <p>
          <Link to={`/timers/${props.timerId}/log`}>The logbook</Link> has those that are closed.
        </p>
      </div>
    );
  const part = { ...props, visit };
  return (
    <div className="survey-view">
      <VisitFindings {...props} />
      <Tests {...part} />
      <PutBack {...part} />
      <AsLeft {...part} />
      <Next {...part} />
      <Close {...part} />
    </div>
  );
}
