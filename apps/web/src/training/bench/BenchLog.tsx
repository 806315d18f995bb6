import { useMemo } from 'react';
import { Timeline } from 'antd';
import {
  lengthWords,
  momentWords,
  SECONDS_PER_DAY,
  type BenchAct,
  type Called,
  type ClockStyle,
  type DateOrder,
  type TimerCycle,
  type GardenFault,
  type LiveBench,
  say,
} from '@water-clock/core';

const SHOWN = 12;

const FAULTS: Readonly<Record<GardenFault['fault'], string>> = {
  sticks: say`a valve that does not close`,
  dead: say`a broken circuit`,
  shorts: say`a shorted coil`,
  shut: say`a valve that does not open`,
};

/** An action in a few words; null for keys that only change pages and values. */
function actWords(act: BenchAct): string | null {
  if ('key' in act) return act.key === 'rest' ? say`the key “off”` : null;
  if ('garden' in act) {
    const { fault, station, on } = act.garden;
    return on
      ? say`Station ${station}: ${FAULTS[fault]}`
      : say`Station ${station}: ${FAULTS[fault]}, repaired`;
  }
  const press = act.world;
  switch (press.do) {
    case 'wet':
      return say`rain starts`;
    case 'dry':
      return say`rain stops`;
    case 'powerOff':
      return say`the power failed`;
    case 'powerOn':
      return say`the power came back`;
    default:
      return say`someone pressed a key`;
  }
}

const whoWords = ({ letter, start }: Called) =>
  start === null
    ? letter === null
      ? say`manual run`
      : say`manual run of program ${letter}`
    : say`${letter ?? ''} of ${start}`;

function cycleWords(cycle: TimerCycle): string {
  const { outcome, began, ended } = cycle;
  const who = whoWords(cycle);
  const length = began === null || ended === null ? '' : say` for ${lengthWords(ended - began)}`;
  if (outcome === 'lost') return say`${who} was lost`;
  return outcome === 'cut'
    ? say`${who} ran${length}, then it was stopped`
    : say`${who} ran${length}`;
}

interface Props {
  readonly bench: LiveBench;
  readonly clock: ClockStyle;
  readonly order: DateOrder;
}

/** What happened, newest first. */
export function BenchLog({ bench, clock, order }: Props) {
  const { log, cycles, underWay, now } = bench;
  const [acts, ended, running] = [log.length, cycles.length, underWay.length];
  const lines = useMemo(
    () =>
      [
        ...log.flatMap((act) => {
          const words = actWords(act);
          return words === null ? [] : [{ at: act.at, words }];
        }),
        ...cycles.map((cycle) => ({
          at: cycle.ended ?? cycle.due,
          words: cycleWords(cycle),
        })),
        ...underWay.map((called) => ({ at: called.began, words: say`${whoWords(called)} began` })),
      ]
        .sort((a, b) => b.at - a.at)
        .slice(0, SHOWN),
    // The lists grow in place.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [log, cycles, acts, ended, running],
  );
  const speech = { on: Math.floor(now / SECONDS_PER_DAY), clock, order };
  return lines.length === 0 ? (
    <p className="soft">{say`Nothing yet. Press a key or run time.`}</p>
  ) : (
    <Timeline
      items={lines.map(({ at, words }, i) => ({
        key: `${at}.${i}`,
        content: `${momentWords(at, speech)}: ${words}`,
      }))}
    />
  );
}
