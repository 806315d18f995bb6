import { useMemo, useState } from 'react';
import { Button } from 'antd';
import { Link } from 'react-router';
import {
  askSentence,
  behindSentence,
  explanationSentence,
  factoryPlan,
  fitsAll,
  foundAhead,
  lookSentence,
  mendSentence,
  nightOf,
  parseMoment,
  programsByLetter,
  RUNG_WORDS,
  RUNGS,
  SECONDS_PER_DAY,
  SIGN_WORDS,
  SIGNS,
  sightingSentence,
  type Plan,
  type Question,
  type Rung,
  type RungTried,
  type Sighting,
  type Sign,
  type Slip,
  type TimerSpeech,
  variantSentence,
  type Visit,
} from '@water-clock/core';
import { SmallNight } from '../charts/SmallNight.tsx';
import { sunOf } from '../charts/sun.ts';
import { Disclosure } from '../platform/Disclosure.tsx';
import { usePreferences } from '../platform/preferences.tsx';
import { Chips } from '../survey/Chips.tsx';
import type { TimerEditor } from '../timers/editor.ts';
import type { SurveyProps } from '../visit/SurveyViews.tsx';
import type { Explained } from '../workers/diagnosing.ts';
import { NoVisit } from './NoVisit.tsx';
import { SightingForm } from './SightingForm.tsx';
import { useDiagnosis } from './useDiagnosis.ts';
import { useKind } from './useKind.ts';
import './visits.css';

interface ExplanationProps {
  readonly explained: Explained;
  readonly rank: number;
  readonly speech: TimerSpeech;
  readonly visit: Visit;
  readonly site: SurveyProps['site'];
  readonly editor: TimerEditor;
  readonly timerId: string;
  /** As it is planned now. */
  readonly plan: Plan;
}

/** Each slip, and of its variants those that want another look. */
function looksOf({ slips, or }: Explained): readonly Slip[] {
  const types = new Set(slips.map(({ type }) => type));
  const more = or.flatMap((one) =>
    one.slips.filter(
      ({ type }) => (type === 'sensor' || type === 'rain-delay') && !types.has(type),
    ),
  );
  return [...slips, ...more.slice(0, 1)];
}

/** One explanation: what it says, how well it agrees, what it would have been like, how to see it, what mends it. */
function ExplanationItem(props: ExplanationProps) {
  const { explained, rank, speech, visit, site, editor, timerId, plan } = props;
  const { slips, fits, shown, world, behind } = explained;
  const sentence = explanationSentence(slips, speech);
  const agreeing = fits.filter((cost) => cost < 1.5).length;
  const letters = programsByLetter(world.plan).map(({ letter }) => letter);
  const dead = slips.find((slip) => slip.type === 'dead-station');
  const takeOut = (letter: string, start: string) => {
    const starts = plan.programs.find((one) => one.letter === letter)?.starts ?? [];
    editor.commit({
      type: 'set-starts',
      program: letter,
      starts: starts.filter((one) => one !== start),
    });
  };
  return (
    <li className="explanation">
      <p className="explanation-head">
        <span className="explanation-rank">{rank}</span>
        <strong>{sentence}</strong>
      </p>
      <p className="soft">
        Agrees with {agreeing} of {fits.length} {fits.length === 1 ? 'sighting' : 'sightings'}.
      </p>
      {explained.or.map((one, i) => (
        <p key={i} className="explanation-or">
          {variantSentence(one.slips, speech)}
        </p>
      ))}
      {behind.length > 0 && (
        <ul className="visit-list">
          {behind.map((one) => {
            const sighting = visit.sightings?.[one.sighting];
            const isSet = plan.programs.some(
              ({ letter, starts }) => letter === one.program && starts.includes(one.start),
            );
            return (
              sighting && (
                <li key={one.sighting}>
                  {behindSentence(one, sighting, speech)}{' '}
                  {isSet && (
                    <Button onClick={() => takeOut(one.program, one.start)}>
                      Take this start out
                    </Button>
                  )}
                </li>
              )
            );
          })}
        </ul>
      )}
      {shown && (
        <SmallNight
          night={shown}
          letters={letters}
          sun={sunOf(shown, site)}
          label="So it would have run"
          chosen={false}
          choose={() => undefined}
        />
      )}
      {slips.length === 0 ? (
        <p>
          Then it is a matter of its settings: the findings on the step “As found” say which, each
          with its fix.
        </p>
      ) : (
        <dl className="explanation-how">
          {looksOf(explained).map((slip, i) => (
            <div key={i}>
              <dt>Look</dt>
              <dd>{lookSentence(slip, speech)}</dd>
              <dt>Then</dt>
              <dd>{mendSentence(slip, speech)}</dd>
            </div>
          ))}
        </dl>
      )}
      <p className="explanation-acts">
        <Button
          type={visit.cause === sentence ? 'primary' : 'default'}
          onClick={() =>
            editor.commit({
              type: 'note-visit',
              fields: { cause: visit.cause === sentence ? null : sentence },
            })
          }
        >
          {visit.cause === sentence ? '✓ This was it' : 'This was it'}
        </Button>{' '}
        {slips.some(({ type }) => type === 'clock') && (
          <Link to={`/timers/${timerId}/clock`}>Note the clock</Link>
        )}
        {dead && <a href={`#ladder-${dead.station}`}>Its ladder</a>}
      </p>
    </li>
  );
}

/** The search for a dead station, rung by rung. */
function Ladder({
  station,
  name,
  tried,
  set,
}: {
  readonly station: number;
  readonly name: string;
  readonly tried: readonly RungTried[];
  readonly set: (next: readonly RungTried[]) => void;
}) {
  const of = (rung: Rung) => tried.find((one) => one.station === station && one.rung === rung);
  const put = (rung: Rung, next: RungTried | null) =>
    set([
      ...tried.filter((one) => !(one.station === station && one.rung === rung)),
      ...(next ? [next] : []),
    ]);
  return (
    <section
      id={`ladder-${station}`}
      className="ladder"
      aria-label={`Ladder of station ${station}`}
    >
      <h2>
        Station {station} {name}
      </h2>
      <p className="caution">
        Mains voltage inside a wall timer: switch it off at the supply before the wiring compartment
        is opened. Mains work is for a licensed electrician. Local code comes first.
      </p>
      {RUNGS.map((rung) => {
        const noted = of(rung);
        return (
          <div key={rung} className="rung">
            <Chips
              label={RUNG_WORDS[rung]}
              options={[
                ['good', 'Good'],
                ['bad', 'Bad'],
              ]}
              value={noted === undefined ? null : noted.good ? 'good' : 'bad'}
              pick={(value) =>
                put(
                  rung,
                  value === null ? null : { ...noted, station, rung, good: value === 'good' },
                )
              }
            />
            {noted && (
              <input
                className="field"
                aria-label={`${RUNG_WORDS[rung]}: reading`}
                placeholder="reading, such as 27 V or 38 Ω"
                maxLength={80}
                defaultValue={noted.reading ?? ''}
                onBlur={({ target }) => {
                  const reading = target.value.trim();
                  if (reading === (noted.reading ?? '')) return;
                  const { reading: _old, ...rest } = noted;
                  put(rung, reading === '' ? rest : { ...rest, reading });
                }}
              />
            )}
          </div>
        );
      })}
    </section>
  );
}

function Diagnosing(props: SurveyProps & { readonly visit: Visit }) {
  const { plan, survey, visit, editor, today, site, timerId } = props;
  const { clock } = usePreferences();
  const kind = useKind(plan);
  const [ladder, setLadder] = useState<number | null>(null);
  const sightings = useMemo(() => visit.sightings ?? [], [visit.sightings]);
  const signs = visit.signs ?? [];
  const ahead = foundAhead(survey);
  const known = visit.asFound?.plan ?? plan;
  const question: Question = useMemo(
    () => ({
      plan: known,
      sightings,
      signs: visit.signs ?? [],
      ahead,
      factory: factoryPlan(known, kind),
    }),
    [known, sightings, visit.signs, ahead, kind],
  );
  const [last] = sightings.slice(-1);
  const night = nightOf(parseMoment(last?.from ?? '') ?? today * SECONDS_PER_DAY);
  const { answer, working } = useDiagnosis(question, today * SECONDS_PER_DAY, night);
  const speech: TimerSpeech = { on: today, clock, plan: known };
  const note = (next: readonly Sighting[]) =>
    editor.commit({
      type: 'note-visit',
      fields: { sightings: next.length > 0 ? next : null },
    });
  const dead = new Set([
    ...(visit.ladders ?? []).map(({ station }) => station),
    ...(visit.tests ?? []).filter(({ result }) => result === 'dead').map(({ station }) => station),
    ...(answer?.explanations ?? []).flatMap(({ slips }) =>
      slips.flatMap((slip) => (slip.type === 'dead-station' ? [slip.station] : [])),
    ),
    ...(ladder === null ? [] : [ladder]),
  ]);
  const nameOf = (number: number) => plan.stations.find((one) => one.number === number)?.name ?? '';
  return (
    <>
      <SightingForm plan={plan} today={today} add={(one) => note([...sightings, one])} />
      {sightings.length > 0 && (
        <ul className="visit-list" aria-label="Seen">
          {sightings.map((one, i) => (
            <li key={i}>
              {sightingSentence(one, speech)}{' '}
              <Button
                size="small"
                aria-label={`Take out what was seen, ${i + 1}`}
                onClick={() => note(sightings.filter((_, k) => k !== i))}
              >
                ×
              </Button>
            </li>
          ))}
        </ul>
      )}
      <Disclosure
        className="signs-shown"
        summary={`What the box shows${signs.length > 0 ? `: ${signs.map((one) => SIGN_WORDS[one]).join(', ')}` : ''}`}
      >
        {() => (
          <div className="signs">
            {SIGNS.map((sign: Sign) => (
              <label key={sign} className="check">
                <input
                  type="checkbox"
                  checked={signs.includes(sign)}
                  onChange={({ target }) => {
                    const next = target.checked
                      ? [...signs, sign]
                      : signs.filter((one) => one !== sign);
                    editor.commit({
                      type: 'note-visit',
                      fields: { signs: next.length > 0 ? next : null },
                    });
                  }}
                />
                {SIGN_WORDS[sign]}
              </label>
            ))}
          </div>
        )}
      </Disclosure>
      <p className="soft">
        {ahead === null
          ? 'The clock as found is not noted: any error of it is thought of as well.'
          : ahead === 0
            ? 'The clock was found right.'
            : 'The clock was found wrong; that is taken into account.'}{' '}
        {visit.asFound
          ? ''
          : 'The settings as found are not frozen: what is noted is taken for them.'}
      </p>
      {working && (
        <p role="status" className="work-note">
          Working it out …
        </p>
      )}
      {answer && !working && (
        <section aria-label="Explanations">
          <h2>What would explain it</h2>
          {answer.explanations[0] && !fitsAll(answer.explanations[0]) && (
            <p className="notice">
              Nothing explains all of it. One sighting may be mistaken, or three things are wrong.
            </p>
          )}
          {answer.ask && <p className="ask">{askSentence(answer.ask, speech)}</p>}
          <ol className="explanations">
            {answer.explanations.map((explained, i) => (
              <ExplanationItem
                key={i}
                explained={explained}
                rank={i + 1}
                speech={speech}
                visit={visit}
                site={site}
                editor={editor}
                timerId={timerId}
                plan={plan}
              />
            ))}
          </ol>
        </section>
      )}
      <section aria-label="Dead stations" className="ladders">
        <label className="labelled">
          A station that does not open
          <select
            className="field"
            value=""
            onChange={({ target }) => setLadder(target.value === '' ? null : Number(target.value))}
          >
            <option value="">choose one for its ladder</option>
            {plan.stations.map(({ number, name }) => (
              <option key={number} value={number}>
                {number} {name ?? ''}
              </option>
            ))}
          </select>
        </label>
        {[...dead]
          .sort((a, b) => a - b)
          .map((station) => (
            <Ladder
              key={station}
              station={station}
              name={nameOf(station)}
              tried={visit.ladders ?? []}
              set={(ladders) => editor.commit({ type: 'note-visit', fields: { ladders } })}
            />
          ))}
      </section>
    </>
  );
}

/** What the homeowner saw, and what may be behind it. */
export default function SeenView(props: SurveyProps) {
  const { visit } = props.survey;
  return (
    <div className="survey-view">
      {visit ? (
        <Diagnosing {...props} visit={visit} />
      ) : (
        <NoVisit editor={props.editor} now={props.now} />
      )}
    </div>
  );
}
