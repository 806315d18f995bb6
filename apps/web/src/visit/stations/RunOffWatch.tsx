import { useEffect, useState } from 'react';
import { Button } from 'antd';
import {
  figuresOf,
  lengthWords,
  pieceFromTries,
  pieceOnTimer,
  piecesOf,
  runEntryText,
  soakSecondsOf,
  type Plan,
  type RunOffTest,
  type Station,
  type SurveyStation,
  say,
} from '@water-clock/core';
import { LengthField } from '../../shared/fields/LengthField.tsx';
import { NumberField } from '../../shared/fields/NumberField.tsx';
import type { TimerEditor } from '../../data/editor/editor.ts';
import { clockWords } from '../../shared/hand/useCountdown.ts';
import { SelectField } from '../../shared/fields/SelectField.tsx';

/** A stopwatch based on timestamps: milliseconds since 1970. */
interface Watch {
  readonly startedAt: number;
  readonly puddleAt: number | null;
}

const keyOf = (timerId: string, station: number) => `water-clock:run-off:${timerId}:${station}`;

function stored(key: string): Watch | null {
  try {
    const value: unknown = JSON.parse(localStorage.getItem(key) ?? 'null');
    if (typeof value !== 'object' || value === null) return null;
    const { startedAt, puddleAt } = value as Partial<Watch>;
    return typeof startedAt === 'number' ? { startedAt, puddleAt: puddleAt ?? null } : null;
  } catch {
    return null;
  }
}

const USUAL: Omit<RunOffTest, 'seconds'> = { taken: 'least', safetyPercent: 10 };

/** More cycles are given as a number. */
const MOST_SHOWN = 4;

const piecesWords = (pieces: readonly number[]) =>
  pieces.length > MOST_SHOWN
    ? say`${pieces.length} runs`
    : pieces.map((seconds) => runEntryText(seconds)).join(' + ');

interface Props {
  readonly timerId: string;
  readonly plan: Plan;
  readonly station: Station;
  readonly noted: SurveyStation;
  readonly editor: TimerEditor;
}

/** Run-off test: start, puddle, stop. The tests give the longest cycle, the soil gives a soak. */
export function RunOffWatch({ timerId, plan, station, noted, editor }: Props) {
  const { number } = station;
  const key = keyOf(timerId, number);
  const [watch, setWatch] = useState(() => stored(key));
  const [now, setNow] = useState(() => Date.now());
  const [fault, setFault] = useState<string | null>(null);
  useEffect(() => {
    if (!watch) return undefined;
    const ticking = setInterval(() => setNow(Date.now()), 200);
    return () => clearInterval(ticking);
  }, [watch]);
  const keep = (next: Watch | null) => {
    setWatch(next);
    setNow(Date.now());
    try {
      if (next) localStorage.setItem(key, JSON.stringify(next));
      else localStorage.removeItem(key);
    } catch {
      // It keeps running while the page is open.
    }
  };
  const { soil, slopePercent = 0 } = noted;
  const test = noted.runOff;
  /** The test, the longest cycle, and a soak if none was chosen, as one step. */
  const save = (next: RunOffTest | null) => {
    const soakSeconds = station.soakSeconds ?? (soil ? soakSecondsOf(soil, slopePercent) : 30 * 60);
    editor.commit({
      type: 'together',
      changes: [
        { type: 'note-station', station: number, fields: { runOff: next } },
        {
          type: 'set-station',
          station: number,
          fields: next
            ? {
                cycleSeconds: pieceOnTimer(
                  pieceFromTries(next.seconds, next.taken, next.safetyPercent / 100),
                  plan.timer.runStepSeconds,
                ),
                soakSeconds,
              }
            : { cycleSeconds: null },
        },
      ],
    });
  };
  const add = (seconds: number) =>
    save({
      ...USUAL,
      ...test,
      seconds: [...(test?.seconds ?? []), Math.max(1, Math.round(seconds))],
    });
  const stop = () => {
    if (!watch) return;
    add(((watch.puddleAt ?? Date.now()) - watch.startedAt) / 1000);
    keep(null);
  };
  const { cycleSeconds: _measured, ...bare } = station;
  const worked = figuresOf(noted, bare).longestRun;
  return (
    <section className="tool aside accent stack" aria-label={say`Time to run-off`}>
      <h2>{say`Time to run-off`}</h2>
      <p className="watch huge" role="timer">
        {watch ? clockWords((now - watch.startedAt) / 1000) : '0:00'}
        {watch?.puddleAt && (
          <span className="large">
            {' '}
            {say`puddle at ${clockWords((watch.puddleAt - watch.startedAt) / 1000)}`}
          </span>
        )}
      </p>
      <div className="row">
        {!watch && (
          <Button
            type="primary"
            size="large"
            onClick={() => keep({ startedAt: Date.now(), puddleAt: null })}
          >{say`Start`}</Button>
        )}
        {watch && watch.puddleAt === null && (
          <Button
            type="primary"
            size="large"
            onClick={() => keep({ ...watch, puddleAt: Date.now() })}
          >{say`Puddle`}</Button>
        )}
        {watch && (
          <>
            <Button
              size="large"
              type={watch.puddleAt === null ? 'default' : 'primary'}
              onClick={stop}
            >{say`Stop`}</Button>
            <Button size="large" onClick={() => keep(null)}>{say`Discard this test`}</Button>
          </>
        )}
      </div>
      <p className="soft">{say`Start the watch with the station. Press Puddle at the first puddle or when water leaves the bed, ignoring overspray. The watch keeps running while the screen is locked.`}</p>
      <div className="row near">
        {(test?.seconds ?? []).map((seconds, i) => (
          <span key={i} className="row near in-line">
            {lengthWords(seconds)}
            <Button
              aria-label={say`Delete test ${i + 1}`}
              onClick={() => {
                const rest = (test?.seconds ?? []).filter((_, at) => at !== i);
                save(rest.length > 0 && test ? { ...test, seconds: rest } : null);
              }}
            >
              ×
            </Button>
          </span>
        ))}
        <LengthField
          label={say`Type a result`}
          placeholder={say`or type: 7:30`}
          value={0}
          commit={add}
          tell={setFault}
        />
      </div>
      {fault && <p className="fault">{fault}</p>}
      {test && (
        <div className="tiles fill of-150">
          <SelectField
            label={say`From several tests`}
            value={test.taken}
            options={[
              ['least', say`use the shortest`] as const,
              ['mean', say`use the mean`] as const,
            ]}
            pick={(value) => save({ ...test, taken: value === 'mean' ? 'mean' : 'least' })}
          />
          <NumberField
            label={say`Safety margin`}
            unit="%"
            value={test.safetyPercent}
            most={90}
            commit={(value) => {
              save({ ...test, safetyPercent: value ?? 0 });
              return null;
            }}
          />
          <NumberField
            label={say`Shortest soak`}
            unit={say`minutes`}
            decimal
            value={station.soakSeconds === undefined ? null : station.soakSeconds / 60}
            most={1440}
            empty={say`not set`}
            commit={(value) => {
              editor.commit({
                type: 'set-station',
                station: number,
                fields: { soakSeconds: value === null ? null : Math.round(value * 60) },
              });
              return null;
            }}
          />
        </div>
      )}
      {test && (
        <p>
          {say`Measured:`}{' '}
          <strong>{lengthWords(Math.round(pieceFromTries(test.seconds, test.taken, 0)))}</strong>{' '}
          {test.seconds.length > 1 &&
            (test.taken === 'least'
              ? say`(the shortest of ${test.seconds.length} tests)`
              : say`(the mean of ${test.seconds.length} tests)`)}{' '}
          {test.safetyPercent > 0 && say`Safety margin ${test.safetyPercent} %.`}{' '}
          {station.cycleSeconds !== undefined &&
            say`Rounded to this timer’s steps: ${lengthWords(station.cycleSeconds)}.`}
        </p>
      )}
      <p role="status" className="tool-answer bold">
        {station.cycleSeconds === undefined
          ? worked && Number.isFinite(worked.value)
            ? say`Not measured. About ${lengthWords(Math.floor(worked.value))}, from soil, slope and precipitation rate.`
            : worked
              ? say`Not measured. This soil absorbs water as fast as it is applied.`
              : say`Not measured yet.`
          : station.soakSeconds === undefined
            ? say`Longest cycle ${lengthWords(station.cycleSeconds)}, then a soak.`
            : say`Longest cycle ${lengthWords(station.cycleSeconds)}, then a ${lengthWords(station.soakSeconds)} soak.`}
      </p>
      <SplitRuns plan={plan} station={station} editor={editor} />
    </section>
  );
}

/** A station's runs longer than the soil can take, each split with one press if the timer supports it. */
function SplitRuns({ plan, station, editor }: Pick<Props, 'plan' | 'station' | 'editor'>) {
  const { number, cycleSeconds, soakSeconds } = station;
  if (cycleSeconds === undefined) return null;
  const longer = plan.programs.flatMap((program) => {
    const seconds = program.runs.find((run) => run.station === number)?.seconds ?? 0;
    return seconds > cycleSeconds ? [{ program, seconds }] : [];
  });
  return longer.map(({ program, seconds }) => {
    const pieces = piecesWords(piecesOf(seconds, cycleSeconds));
    const told = say`${lengthWords(seconds)} in ${program.letter}`;
    if (plan.timer.cycleSoak === 'station')
      return (
        <p key={program.letter}>
          {soakSeconds === undefined
            ? say`${told}. Once a soak is set, this timer runs it as ${pieces}.`
            : say`${told}. This timer runs it as ${pieces}.`}
        </p>
      );
    if (plan.timer.cycleSoak === 'none')
      return (
        <p key={program.letter}>
          {say`${told}. This timer cannot split it, but more start times can. The planner finds them.`}
        </p>
      );
    const isSplit = program.cycleSeconds !== undefined && program.cycleSeconds <= cycleSeconds;
    return (
      <p key={program.letter}>
        {isSplit ? (
          say`${told}: split already.`
        ) : (
          <Button
            onClick={() =>
              editor.commit({
                type: 'set-program',
                program: program.letter,
                fields: {
                  cycleSeconds,
                  soakSeconds: Math.max(program.soakSeconds ?? 0, soakSeconds ?? 0),
                },
              })
            }
          >
            {say`Split ${told}: ${pieces}`}
          </Button>
        )}
      </p>
    );
  });
}
