import { useEffect, useMemo, useRef, useState } from 'react';
import { Button, Progress } from 'antd';
import {
  applyRecordChange,
  assignInOrder,
  EMPTY_SURVEY,
  isNewSerial,
  LineSearch,
  MOST_DECODER_READINGS,
  newSerial,
  simulatedDecoders,
  SimulatedLine,
  surveyOf,
  unheard,
  type Plan,
  type Survey,
  type SurveyStationFields,
  plural,
  say,
} from '@water-clock/core';
import { SelectField } from '../../shared/fields/SelectField.tsx';
import { DecoderSummary } from '../../visit/stations/DecoderSummary.tsx';
import { momentText } from '../../visit/shared/panel.ts';

/** Time of one query on the line; several are sent between two frames. */
const TICK_MS = 100;
const QUESTIONS_A_TICK = 2;

type Fields = { readonly [K in keyof SurveyStationFields]?: SurveyStationFields[K] | null };

/** The running search: progress, and a way to stop it. Decoders found so far stay. */
function useSearch(line: SimulatedLine) {
  const search = useRef<LineSearch | null>(null);
  const [shown, setShown] = useState({ share: 0, asked: 0, found: [] as readonly string[] });
  const [isRunning, setRunning] = useState(false);
  useEffect(() => {
    if (!isRunning) return undefined;
    const timer = setInterval(() => {
      const going = search.current;
      if (!going) return;
      for (let i = 0; i < QUESTIONS_A_TICK; i++) going.step();
      setShown({ share: going.share, asked: going.asked, found: [...going.found] });
      if (going.isDone) setRunning(false);
    }, TICK_MS);
    return () => clearInterval(timer);
  }, [isRunning]);
  const begin = () => {
    search.current = new LineSearch(line);
    setShown({ share: 0, asked: 0, found: [] });
    setRunning(true);
  };
  return { ...shown, isRunning, begin, stop: () => setRunning(false) };
}

interface Props {
  readonly plan: Plan;
  /** The same line each time for the same name. */
  readonly seed: string;
  /** Local time, clock second. */
  readonly now: number;
}

/** A simulated two-wire line to practise on: search, assign, try and replace its decoders. Nothing is saved. */
export default function PracticeLine({ plan, seed, now }: Props) {
  const [survey, setSurvey] = useState<Survey>(EMPTY_SURVEY);
  const numbers = useMemo(
    () => plan.stations.map(({ number }) => number).sort((x, y) => x - y),
    [plan.stations],
  );
  const assigned = useMemo(
    () =>
      new Map(
        numbers.flatMap((number) => {
          const serial = surveyOf(survey, number).decoder?.trim();
          return serial ? [[number, serial] as const] : [];
        }),
      ),
    [numbers, survey],
  );
  const line = useMemo(() => {
    return new SimulatedLine(simulatedDecoders(seed, numbers, assigned));
  }, [seed, numbers, assigned]);
  const search = useSearch(line);
  const [walked, setWalked] = useState<string | null>(null);
  const taken = new Set(assigned.values());
  const free = search.found.filter((serial) => !taken.has(serial));
  const nextStation = numbers.find((number) => !assigned.has(number));
  const [at, setAt] = useState<number | null>(null);

  const note = (all: readonly (readonly [station: number, fields: Fields])[]) =>
    setSurvey((before) => {
      const applied = applyRecordChange(
        { plan, survey: before },
        {
          type: 'together',
          changes: all.map(
            ([station, fields]) => ({ type: 'note-station', station, fields }) as const,
          ),
        },
      );
      return applied.ok ? applied.value.record.survey : before;
    });
  const assign = (serials: readonly string[]) => {
    const made = assignInOrder(numbers, serials, assigned);
    if (made.size > 0) note([...made].map(([station, decoder]) => [station, { decoder }] as const));
  };
  const tried = (stations: readonly number[]) =>
    note(
      stations.map((station) => {
        const milliamps = line.open(assigned.get(station) ?? '');
        const before = surveyOf(survey, station).decoderReadings ?? [];
        const reading = { at: momentText(now), ...(milliamps === null ? {} : { milliamps }) };
        const decoderReadings = [...before, reading].slice(-MOST_DECODER_READINGS);
        return [station, { decoderReadings }] as const;
      }),
    );
  const replace = (station: number) => {
    const nth = [...taken].filter(isNewSerial).length;
    note([[station, { decoder: newSerial(seed, nth), decoderReadings: null }]]);
  };
  /** The next valve along the line whose decoder is unassigned. */
  const walkOn = () => {
    const left = line.decoders.filter(
      ({ serial, fault }) => !taken.has(serial) && fault !== 'silent',
    );
    const after = left.findIndex(({ serial }) => serial === walked) + 1;
    setWalked(left[after % Math.max(1, left.length)]?.serial ?? null);
    setAt(nextStation ?? null);
  };
  const calling = line.decoders.find(({ serial }) => serial === walked && !taken.has(serial));
  const silent = search.share === 1 ? unheard(line, search.found.length) : 0;
  return (
    <section className="stack" aria-label={say`Two-wire`}>
      <p className="soft">{say`A simulated line to practise searching, assigning and replacing decoders. Nothing is saved.`}</p>
      <div className="row">
        {search.isRunning ? (
          <Button onClick={search.stop}>{say`Stop the search`}</Button>
        ) : (
          <Button type="primary" onClick={search.begin}>
            {search.asked > 0 ? say`Search again` : say`Search line`}
          </Button>
        )}
        <Button
          disabled={assigned.size === 0}
          onClick={() => tried([...assigned.keys()])}
        >{say`Try every decoder`}</Button>
        <Button onClick={walkOn}>
          {calling ? say`Walk to the next valve` : say`Assign by walking`}
        </Button>
      </div>
      {(search.isRunning || search.asked > 0) && (
        <div role="status">
          <Progress
            percent={Math.round(search.share * 100)}
            status="normal"
            aria-label={say`Searched`}
          />
          {say`${search.found.length} found after ${search.asked} questions.`}{' '}
          {!search.isRunning && search.share < 1 && say`Stopped. The results are kept.`}
          {silent > 0 && (
            <p className="fault">
              {say`With all stations off, the line draws ${line.atRest()} mA.`}{' '}
              {plural(
                silent,
                '# more decoder is on it and does not answer.',
                '# more decoders are on it and do not answer.',
              )}
            </p>
          )}
        </div>
      )}
      {calling && (
        <div className="turn row at-foot">
          <p>
            {say`The valve ${calling.metres} m along the wire answers:`}{' '}
            <strong>{calling.serial}</strong>
          </p>
          <SelectField
            label={say`Station`}
            value={at ?? 0}
            options={numbers
              .filter((number) => !assigned.has(number))
              .map((number) => [number, `${number} ${nameOf(plan, number)}`] as const)}
            pick={setAt}
          />
          <Button
            type="primary"
            disabled={at === null || assigned.has(at)}
            onClick={() => {
              if (at === null) return;
              note([[at, { decoder: calling.serial }]]);
              walkOn();
            }}
          >{say`Assign`}</Button>
        </div>
      )}
      {free.length > 0 && nextStation !== undefined && (
        <div className="row">
          <span>
            {plural(free.length, '# of them has no station yet.', '# of them have no station yet.')}
          </span>
          <Button onClick={() => assign(free)}>{say`Assign them in this order`}</Button>
        </div>
      )}
      <ul className="list ruled" aria-label={say`Decoders by station`}>
        {[...assigned].map(([number, serial]) => {
          const { decoderReadings = [] } = surveyOf(survey, number);
          const last = decoderReadings.at(-1);
          return (
            <li key={number} className="row">
              <DecoderSummary
                number={number}
                name={nameOf(plan, number)}
                serial={serial}
                last={last}
              />
              <span className="row near in-line">
                <Button
                  aria-label={say`Try station ${number}`}
                  onClick={() => tried([number])}
                >{say`Try`}</Button>
                <Button
                  aria-label={say`Replace the decoder at station ${number}`}
                  onClick={() => replace(number)}
                >{say`Replace`}</Button>
              </span>
            </li>
          );
        })}
      </ul>
    </section>
  );
}

const nameOf = (plan: Plan, number: number) =>
  plan.stations.find((station) => station.number === number)?.name ?? '';
