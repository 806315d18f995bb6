import { useEffect, useMemo, useRef, useState } from 'react';
import { Button, Input, Progress } from 'antd';
import {
  assignInOrder,
  DECODER_NEXT,
  DECODER_STATE_WORDS,
  decoderState,
  isNewSerial,
  LineSearch,
  MOST_DECODER_READINGS,
  newSerial,
  simulatedDecoders,
  SimulatedLine,
  surveyOf,
  unheard,
  type SurveyStationFields,
  plural,
  say,
} from '@water-clock/core';
import { NoteField } from '../../shared/fields/NoteField.tsx';
import { SelectField } from '../../shared/fields/SelectField.tsx';
import type { StepProps } from '../steps/stepProps.ts';
import { momentText } from '../shared/panel.ts';

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

/** A timer's two-wire line: search, assign, test, replace and label its decoders. The line is simulated, the same each time for a timer. */
export default function TwoWires({ plan, survey, editor, now, timerId }: StepProps) {
  const numbers = useMemo(
    () => plan.stations.map(({ number }) => number).sort((a, b) => a - b),
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
    return new SimulatedLine(simulatedDecoders(timerId, numbers, assigned));
  }, [timerId, numbers, assigned]);
  const search = useSearch(line);
  const [typed, setTyped] = useState('');
  const [walked, setWalked] = useState<string | null>(null);
  const taken = new Set(assigned.values());
  const free = search.found.filter((serial) => !taken.has(serial));
  const nextStation = numbers.find((number) => !assigned.has(number));
  const [at, setAt] = useState<number | null>(null);

  const note = (all: readonly (readonly [station: number, fields: Fields])[]) =>
    editor.commit({
      type: 'together',
      changes: all.map(([station, fields]) => ({ type: 'note-station', station, fields }) as const),
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
    note([[station, { decoder: newSerial(timerId, nth), decoderReadings: null }]]);
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
  const list = typed.split(/[\s,;]+/u).filter(Boolean);
  const wrong = list.find((serial) => !/^\d{1,10}$/u.test(serial));
  return (
    <section className="stack" aria-label={say`Two-wire`}>
      <p className="soft">{say`A simulated line stands in for this timer’s wires, so you can practise searching, assigning and replacing decoders. Assignments are recorded for each station.`}</p>
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
      <div className="row at-foot">
        <label className="labelled grow">
          {say`Serial numbers in station order`}
          <Input
            aria-label={say`Serial numbers in station order`}
            value={typed}
            placeholder="004711, 013377, …"
            status={wrong === undefined ? '' : 'error'}
            onChange={({ target }) => setTyped(target.value)}
          />
          {wrong !== undefined && (
            <span className="fault">{say`“${wrong}” is not a serial number. Use digits only, separated by commas.`}</span>
          )}
        </label>
        <Button
          disabled={list.length === 0 || wrong !== undefined || nextStation === undefined}
          onClick={() => {
            assign(list);
            setTyped('');
          }}
        >{say`Assign list`}</Button>
      </div>
      <ul className="list ruled" aria-label={say`Decoders by station`}>
        {[...assigned].map(([number, serial]) => {
          const { decoderMark = '', decoderReadings = [] } = surveyOf(survey, number);
          const last = decoderReadings.at(-1);
          const state = last && decoderState(last);
          const read = last?.milliamps === undefined ? '' : `, ${last.milliamps} mA`;
          return (
            <li key={number} className="row">
              <span className="grow">
                <b>{number}</b> {nameOf(plan, number)}{' '}
                <span className="soft">
                  {serial}
                  {read}
                </span>{' '}
                <span className={state && state !== 'good' ? 'fault' : 'bold'}>
                  {state ? DECODER_STATE_WORDS[state] : say`Not tested`}
                </span>
                {state && DECODER_NEXT[state] && (
                  <span className="soft below">{DECODER_NEXT[state]}</span>
                )}
              </span>
              <span className="row near in-line">
                <NoteField
                  label={say`Mark on the decoder of station ${number}`}
                  placeholder={say`mark, such as blue tape`}
                  most={200}
                  value={decoderMark}
                  commit={(mark) => note([[number, { decoderMark: mark || null }]])}
                />
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

const nameOf = (plan: StepProps['plan'], number: number) =>
  plan.stations.find((station) => station.number === number)?.name ?? '';
