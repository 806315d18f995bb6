import { useMemo, useState } from 'react';
import { Button, Checkbox } from 'antd';
import { CloseOutlined, EyeOutlined } from '@ant-design/icons';
import {
  askSentence,
  factoryPlan,
  fitsAll,
  clockReading,
  nightOf,
  parseMoment,
  SECONDS_PER_DAY,
  SIGN_WORDS,
  SIGNS,
  sightingSentence,
  type Question,
  type Sighting,
  type Sign,
  type TimerSpeech,
  type Visit,
  say,
} from '@water-clock/core';
import { Disclosure } from '../../shared/fields/Disclosure.tsx';
import { usePreferences } from '../../app/platform/preferences.tsx';
import type { StepProps } from '../steps/stepProps.ts';
import { NoVisit } from '../shared/NoVisit.tsx';
import { SightingForm } from './SightingForm.tsx';
import { useDiagnosis } from './useDiagnosis.ts';
import { useKind } from '../timerKind/useKind.ts';
import { ExplanationItem } from './ExplanationItem.tsx';
import { Ladder } from './Ladder.tsx';
import { NoteField } from '../../shared/fields/NoteField.tsx';
import { SelectField } from '../../shared/fields/SelectField.tsx';

/** In a visit. */
const HOLDS = [
  say`What was seen: when it ran, or that it did not run`,
  say`Likely causes, the most likely first, each with one thing to check`,
];

function Diagnosing(props: StepProps & { readonly visit: Visit }) {
  const { plan, survey, visit, editor, today, site, timerId } = props;
  const { clock, order } = usePreferences();
  const kind = useKind(plan);
  const [ladder, setLadder] = useState<number | null>(null);
  const sightings = useMemo(() => visit.sightings ?? [], [visit.sightings]);
  const signs = visit.signs ?? [];
  const ahead = clockReading(survey)?.ahead ?? null;
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
  const { shown, stop } = useDiagnosis(question, today * SECONDS_PER_DAY, night);
  const answer = shown?.answer ?? null;
  const speech: TimerSpeech = { on: today, clock, order, plan: known };
  const note = (next: readonly Sighting[]) =>
    editor.commit({
      type: 'note-visit',
      fields: { sightings: next.length > 0 ? next : null },
    });
  const dead = new Set([
    ...(visit.ladders ?? []).map(({ station }) => station),
    ...(visit.tests ?? []).filter(({ result }) => result === 'dead').map(({ station }) => station),
    ...(answer?.explanations ?? []).flatMap(({ causes }) =>
      causes.flatMap((cause) => (cause.type === 'dead-station' ? [cause.station] : [])),
    ),
    ...(ladder === null ? [] : [ladder]),
  ]);
  const nameOf = (number: number) =>
    plan.stations.find((station) => station.number === number)?.name ?? '';
  return (
    <>
      <label className="labelled">
        {say`What the homeowner says`}
        <NoteField
          most={500}
          placeholder={say`“It comes on in the afternoon.”`}
          value={visit.complaint ?? ''}
          commit={(complaint) =>
            editor.commit({ type: 'note-visit', fields: { complaint: complaint || null } })
          }
        />
      </label>
      {sightings.length > 0 && (
        <ul className="list ruled" aria-label={say`Seen`}>
          {sightings.map((sighting, i) => (
            <li key={i}>
              <EyeOutlined aria-hidden />
              <strong>{sightingSentence(sighting, speech)}</strong>
              <Button
                type="text"
                icon={<CloseOutlined />}
                aria-label={say`Delete sighting ${i + 1}`}
                onClick={() => note(sightings.filter((_, k) => k !== i))}
              />
            </li>
          ))}
        </ul>
      )}
      <Disclosure
        key={sightings.length}
        className="seen-more"
        summary={sightings.length > 0 ? say`Add a sighting` : say`Sightings`}
        openAtFirst={sightings.length === 0}
      >
        {() => (
          <SightingForm
            plan={plan}
            today={today}
            add={(sighting) => note([...sightings, sighting])}
          />
        )}
      </Disclosure>
      <Disclosure
        className="signs-shown"
        summary={
          signs.length > 0
            ? say`What the timer shows: ${signs.map((one) => SIGN_WORDS[one]).join(', ')}`
            : say`What the timer shows`
        }
      >
        {() => (
          <div className="signs tiles near">
            {SIGNS.map((sign: Sign) => (
              <Checkbox
                className="check"
                key={sign}
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
              >
                {SIGN_WORDS[sign]}
              </Checkbox>
            ))}
          </div>
        )}
      </Disclosure>
      <p className="soft">
        {ahead === null
          ? say`The clock is not checked yet, so clock errors are considered too.`
          : ahead === 0
            ? say`The clock was right.`
            : say`The clock was wrong. The explanations allow for it.`}{' '}
        {visit.asFound
          ? ''
          : say`As-found settings are not saved yet, so the planned settings are used.`}
      </p>
      {shown?.state === 'working' && (
        <p role="status" className="work-note bold">
          {say`Calculating: ${Math.round(shown.share * 100)} %`}{' '}
          <Button size="small" onClick={stop}>{say`Stop`}</Button>
        </p>
      )}
      {shown?.state === 'stopped' && (
        <p className="work-note bold">{say`Stopped. Add or delete a sighting to start again.`}</p>
      )}
      {answer && (
        <section aria-label={say`Explanations`}>
          <h2>{say`Likely causes`}</h2>
          {answer.explanations[0] && !fitsAll(answer.explanations[0]) && (
            <p className="notice">{say`Nothing explains everything. One sighting may be wrong, or there may be three faults.`}</p>
          )}
          {answer.ask && <p className="aside accent bold">{askSentence(answer.ask, speech)}</p>}
          <ol className="list stack">
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
      <section aria-label={say`Stations that do not open`} className="ladders stack">
        <SelectField<string | number>
          label={say`A station that does not open`}
          value={''}
          options={[
            ['', say`choose one to troubleshoot`] as const,
            ...plan.stations.map(
              ({ number, name }) => [number, `${number} ${name ?? ''}`] as const,
            ),
          ]}
          pick={(value) => setLadder(value === '' ? null : Number(value))}
        />
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

/** What the homeowner saw, and its likely causes. */
export default function SeenView(props: StepProps) {
  const { visit } = props.survey;
  return (
    <div className="survey-view stack page-column">
      {visit ? (
        <Diagnosing {...props} visit={visit} />
      ) : (
        <NoVisit editor={props.editor} now={props.now} holds={HOLDS} />
      )}
    </div>
  );
}
