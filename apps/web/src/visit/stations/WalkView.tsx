import { useEffect, useRef, useState } from 'react';
import { Button, Input, type InputRef } from 'antd';
import { Link, useNavigate, useParams } from 'react-router';
import {
  HEAD_WORDS,
  HEADS,
  isTwoWire,
  PLANT_WORDS,
  plantsFields,
  SOIL_WORDS,
  SUN_WORDS,
  surveyOf,
  type Plan,
  type RecordChange,
  type Survey,
  type SurveyStation,
  type SurveyStationFields,
  say,
} from '@water-clock/core';
import { NotFound } from '../../app/platform/states.tsx';
import { commitWords } from '../../data/editor/commitWords.ts';
import { NumberField } from '../../shared/fields/NumberField.tsx';
import type { StepProps } from '../steps/stepProps.ts';
import { Chips, focusNext } from '../../shared/fields/Chips.tsx';
import { useScreen } from '../../app/frame/useScreen.ts';
import { useAwake } from '../../shared/hand/useAwake.ts';
import { useSwipe } from '../../shared/hand/useSwipe.ts';
import { CupTest } from './CupTest.tsx';
import { DefectPicker } from './DefectPicker.tsx';
import { FlowTestForm } from './FlowTestForm.tsx';
import { PhotoRow } from '../../shared/photos/PhotoRow.tsx';
import { QuantityField } from '../../shared/fields/QuantityField.tsx';
import { RunOffWatch } from './RunOffWatch.tsx';
import { RunNow } from '../../shared/hand/RunNow.tsx';
import { Often } from './Often.tsx';
import { DecoderField, LinkField } from './StationFacts.tsx';
import { useKind } from '../timerKind/useKind.ts';
import { useCountdown, type Countdown } from '../../shared/hand/useCountdown.ts';
import { NoteField } from '../../shared/fields/NoteField.tsx';
import './walk.css';

const SLOPES = [
  [1, say`Flat`],
  [5, say`Up to 6 %`],
  [10, say`Up to 12 %`],
  [20, say`Over 12 %`],
] as const;

const optionsOf = <T extends string>(words: Readonly<Record<T, string>>) =>
  // Safe cast: the options are the names themselves.
  Object.entries(words) as unknown as readonly (readonly [T, string])[];

/** Facts that neighbouring stations often share. */
const ALIKE = ['head', 'plants', 'surroundings', 'soil', 'slopePercent'] as const;
type Alike = (typeof ALIKE)[number];

/** Facts of a station to copy to another: the named ones, if known. */
const factsOf = (from: SurveyStation, keys: readonly Alike[]): Partial<SurveyStationFields> =>
  Object.fromEntries(keys.flatMap((key) => (from[key] === undefined ? [] : [[key, from[key]]])));

/** The same with what goes with the plants. */
const likeStation = (from: SurveyStation, keys: readonly Alike[] = ALIKE) => ({
  ...factsOf(from, keys),
  oftenADay: from.oftenADay ?? null,
});

/** The slope button for a slope. */
const slopeChoice = (percent: number | undefined) =>
  percent === undefined ? null : percent <= 3 ? 1 : percent <= 6 ? 5 : percent <= 12 ? 10 : 20;

type Tool = 'run-off' | 'cups' | 'flow';
const TOOLS: readonly (readonly [Tool, string])[] = [
  ['run-off', say`Time to run-off`],
  ['cups', say`Catch cups`],
  ['flow', say`Flow`],
];

interface CardProps extends StepProps {
  readonly number: number;
  readonly go: (to: number | null) => void;
  readonly countdown: Countdown;
}

/** Stations already walked, nearest first, to copy facts from. */
function walkedBefore(plan: Plan, survey: Survey, number: number): SurveyStation[] {
  return plan.stations
    .map((station) => surveyOf(survey, station.number))
    .filter(
      (station) => station.number !== number && ALIKE.some((key) => station[key] !== undefined),
    )
    .sort((a, b) => {
      const [x, y] = [number - a.number, number - b.number];
      return (x < 0 ? 1000 - x : x) - (y < 0 ? 1000 - y : y);
    });
}

function Card({ number, go, countdown, ...props }: CardProps) {
  const { plan, survey, editor, timerId } = props;
  const noted = surveyOf(survey, number);
  const station = plan.stations.find((station) => station.number === number) ?? { number };
  const [name, setName] = useState<string | null>(null);
  const [tool, setTool] = useState<Tool | null>(null);
  const nameField = useRef<InputRef>(null);
  const isTwoWireTimer = isTwoWire(survey, useKind(plan));
  /** Whoever notes something about a station has seen it. */
  const seen = noted.walked === 'seen' ? {} : ({ walked: 'seen' } as const);
  const set = (fields: Parameters<typeof noteChange>[1]) =>
    commitWords(editor, noteChange(number, { ...seen, ...fields }));
  const before = walkedBefore(plan, survey, number);
  const [nearest] = before;
  const commitName = () => {
    if (name === null) return;
    const next = name.trim() === '' ? null : name.trim();
    if (next !== (station.name ?? null))
      editor.commit({ type: 'set-station', station: number, fields: { name: next } });
    setName(null);
  };
  // Saves what was typed last, even if the page is closed or hidden before the field is left.
  const keepName = useRef(commitName);
  useEffect(() => {
    keepName.current = commitName;
  });
  useEffect(() => {
    // On a touch screen, do not open the keyboard before someone asks for it.
    if (!matchMedia('(pointer: coarse)').matches) nameField.current?.focus();
    const keep = () => keepName.current();
    addEventListener('pagehide', keep);
    document.addEventListener('visibilitychange', keep);
    return () => {
      keep();
      removeEventListener('pagehide', keep);
      document.removeEventListener('visibilitychange', keep);
    };
  }, []);
  const leave = (walked: 'seen' | 'skipped', to: number | null) => {
    commitName();
    if (noted.walked !== walked && !(walked === 'skipped' && noted.walked === 'seen'))
      set({ walked });
    go(to);
  };
  const place = plan.stations.findIndex((station) => station.number === number);
  const next = plan.stations[place + 1]?.number ?? null;
  const previous = plan.stations[place - 1]?.number ?? null;
  const same = (key: Alike, from: HTMLElement) => {
    if (!nearest) return;
    const keys = ALIKE.slice(ALIKE.indexOf(key));
    set(keys.includes('plants') ? likeStation(nearest, keys) : factsOf(nearest, keys));
    from.closest('[data-card]')?.querySelector<HTMLInputElement>('[data-field="Area"]')?.focus();
  };
  const row = <K extends Alike>(key: K) => ({
    pick: (value: SurveyStation[K] | null) => void set({ [key]: value ?? null }),
    done: focusNext,
    same: (from: HTMLElement) => same(key, from),
  });
  // A swipe goes to the next station or back.
  const swipe = useSwipe(
    () => leave('seen', next),
    () => previous !== null && go(previous),
  );
  useAwake();
  const isPhone = useScreen() === 'phone';
  return (
    <div data-card className="walk stack" {...swipe}>
      <div className="row in-line">
        <span className="walk-number huge">{number}</span>
        <label className="labelled grow">
          <span className="hidden-but-read">{say`Name of station ${number}`}</span>
          <Input
            size="large"
            ref={nameField}
            data-field="Name"
            placeholder={say`what it waters`}
            maxLength={80}
            enterKeyHint="next"
            value={name ?? station.name ?? ''}
            onChange={(event) => setName(event.target.value)}
            onBlur={commitName}
            onKeyDown={(event) => {
              if (event.key !== 'Enter') return;
              // Otherwise the end of this key press would activate whatever gets the focus next.
              event.preventDefault();
              commitName();
              focusNext(event.currentTarget);
            }}
          />
        </label>
        <span className="soft" style={{ whiteSpace: 'nowrap' }}>
          {say`${place + 1} of ${plan.stations.length}`}
        </span>
      </div>
      <div className="row far">
        <RunNow
          number={number}
          countdown={countdown}
          seconds={survey.walkSeconds ?? 120}
          setSeconds={(walkSeconds) => editor.commit({ type: 'note', fields: { walkSeconds } })}
        />
        {before.length > 0 && (
          <div className="row near like" role="group" aria-label={say`Like another station`}>
            {before.slice(0, 2).map((station) => (
              <Button
                key={station.number}
                className="clip"
                onClick={() => void set(likeStation(station))}
              >
                {say`Like station ${station.number}`}
                <span className="soft">
                  {' '}
                  {plan.stations.find((each) => each.number === station.number)?.name ?? ''}
                </span>
              </Button>
            ))}
          </div>
        )}
      </div>
      <div className="tiles fill of-400 far">
        <div className="stack">
          <Chips
            label={say`Head`}
            options={optionsOf(HEAD_WORDS)}
            value={noted.head ?? null}
            {...row('head')}
            pick={(head) =>
              editor.commit({
                type: 'together',
                changes: [
                  { type: 'note-station', station: number, fields: { head, ...seen } },
                  // Drip does not spray; the station's own switch can override it.
                  {
                    type: 'set-station',
                    station: number,
                    fields: { overhead: head !== null && !HEADS[head].overhead ? false : null },
                  },
                ],
              })
            }
          />
          <Chips
            label={say`Plants`}
            options={optionsOf(PLANT_WORDS)}
            value={noted.plants ?? null}
            {...row('plants')}
            pick={(plants) => void set(plantsFields(noted, plants, props.today))}
          />
          {noted.oftenADay && (
            <Often number={number} often={noted.oftenADay} editor={editor} today={props.today} />
          )}
          <Chips
            label={say`Sun`}
            options={optionsOf(SUN_WORDS)}
            value={noted.surroundings ?? null}
            {...row('surroundings')}
          />
          <Chips
            label={say`Soil`}
            options={optionsOf(SOIL_WORDS)}
            value={noted.soil ?? null}
            {...row('soil')}
          />
          <Chips
            label={say`Slope`}
            options={SLOPES}
            value={slopeChoice(noted.slopePercent)}
            {...row('slopePercent')}
          />
        </div>
        <div className="stack">
          <div className="tiles fill of-150">
            <QuantityField
              label={say`Area`}
              quantity="area"
              value={noted.areaSquareMetres ?? null}
              empty={say`not known`}
              field={say`Area`}
              entered={focusNext}
              commit={(areaSquareMetres) => set({ areaSquareMetres })}
            />
            <NumberField
              label={say`Heads`}
              least={1}
              most={1000}
              value={noted.headCount ?? null}
              empty={say`not counted`}
              field={say`Heads`}
              entered={() => leave('seen', next)}
              commit={(headCount) => set({ headCount })}
            />
          </div>
          <LinkField number={number} plan={plan} editor={editor} />
          {isTwoWireTimer && <DecoderField {...props} number={number} />}
          <DefectPicker faults={noted.faults ?? []} set={(faults) => void set({ faults })} />
          <PhotoRow
            label={say`Photos of station ${number}`}
            photos={noted.photos ?? []}
            set={(photos) => void set({ photos })}
          />
          <label className="labelled">
            <span className="hidden-but-read">{say`Note on station ${number}`}</span>
            <NoteField
              placeholder={say`a note`}
              most={2000}
              value={noted.note ?? ''}
              commit={(note) => set({ note: note === '' ? null : note })}
            />
          </label>
          <div className="row near" role="group" aria-label={say`Measure`}>
            {TOOLS.map(([one, words]) => (
              <Button
                key={one}
                aria-expanded={tool === one}
                onClick={() => setTool(tool === one ? null : one)}
              >
                {words}
              </Button>
            ))}
          </div>
          {tool === 'run-off' && (
            <RunOffWatch
              timerId={timerId}
              plan={plan}
              station={station}
              noted={noted}
              editor={editor}
            />
          )}
          {tool === 'cups' && <CupTest number={number} noted={noted} editor={editor} />}
          {tool === 'flow' && (
            <FlowTestForm number={number} plan={plan} survey={survey} editor={editor} />
          )}
        </div>
      </div>
      {!isPhone && (
        <p className="soft">{say`Keys: a digit selects and moves on, = copies the rest from the previous station, Enter in the last field goes to the next station. Touch: swipe.`}</p>
      )}
      <div className="foot-of-step row in-line">
        <Button
          size="large"
          disabled={previous === null}
          onClick={() => go(previous)}
        >{say`Back`}</Button>
        <Button size="large" onClick={() => leave('skipped', next)}>{say`Skip`}</Button>
        <Button
          size="large"
          type="primary"
          className="walk-next grow"
          onClick={() => leave('seen', next)}
        >
          {next === null ? say`Done` : say`Next: station ${next}`}
        </Button>
      </div>
    </div>
  );
}

const noteChange = (
  station: number,
  fields: Extract<RecordChange, { type: 'note-station' }>['fields'],
): Extract<RecordChange, { type: 'note-station' }> => ({ type: 'note-station', station, fields });

/** The walk: a card for each station. */
export default function WalkView(props: StepProps) {
  const { plan, timerId } = props;
  const { station = '' } = useParams();
  const navigate = useNavigate();
  const countdown = useCountdown(timerId);
  const number = Number(station);
  const stations = `/timers/${timerId}/stations`;
  if (!plan.stations.some((station) => station.number === number)) return <NotFound />;
  return (
    <>
      <p>
        <Link to={stations}>{say`All stations`}</Link>
      </p>
      <Card
        key={number}
        {...props}
        number={number}
        countdown={countdown}
        go={(to) => {
          void navigate(to === null ? stations : `/timers/${timerId}/walk/${to}`);
          scrollTo({ top: 0 });
        }}
      />
    </>
  );
}
