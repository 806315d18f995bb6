/** Random seeded edits of a timer as technicians make them: settings, notes, a visit, and now and then something large. */
import {
  applyRecordChange,
  readRecordChange,
  removeStationChange,
  type RecordChange,
  type TimerRecord,
} from '@water-clock/core';
import { randomFrom } from './faultyTimers.ts';

/** An integer from 0 to `below` - 1. */
export type Dice = (below: number) => number;

/** @param seed the same seed gives the same numbers */
export function diceOf(seed: number): Dice {
  const random = randomFrom(seed);
  return (below) => Math.floor(random() * below);
}

const two = (n: number) => String(n).padStart(2, '0');

type Make = (record: TimerRecord, dice: Dice) => unknown;

const one = <T>(dice: Dice, list: readonly T[]): T | undefined => list[dice(list.length)];
const stationIn = ({ plan }: TimerRecord, dice: Dice) => one(dice, plan.stations)?.number ?? 1;
const letterIn = ({ plan }: TimerRecord, dice: Dice) => one(dice, plan.programs)?.letter ?? 'A';
const noteVisit = (fields: object) => ({ type: 'note-visit', fields });

const EDITS: readonly Make[] = [
  (record, dice) => ({
    type: 'set-starts',
    program: letterIn(record, dice),
    starts: Array.from({ length: dice(3) }, (_, i) => `${two(3 + 2 * i + dice(2))}:00`),
  }),
  (record, dice) => ({
    type: 'set-runs',
    program: letterIn(record, dice),
    runs: [
      { station: stationIn(record, dice), seconds: dice(5) === 0 ? null : 60 * (1 + dice(20)) },
    ],
  }),
  (record, dice) => ({
    type: 'set-days',
    program: letterIn(record, dice),
    days: { rule: 'weekdays', on: dice(2) ? ['mon', 'thu'] : ['tue'] },
  }),
  (_, dice) => ({ type: 'set-settings', settings: { seasonalPercent: 50 + 10 * dice(6) } }),
  (_, dice) => ({ type: 'set-settings', settings: { sensor: one(dice, ['active', 'bypass']) } }),
  (record, dice) => ({
    type: 'set-station',
    station: stationIn(record, dice),
    fields: { name: one(dice, ['Lawn', 'Roses', 'Hedge']) },
  }),
  (record, dice) => ({
    type: 'add-program',
    program: { letter: 'ABCD'[dice(4)], starts: [], runs: [], days: null },
    record,
  }),
  (record, dice) => ({ type: 'remove-program', program: letterIn(record, dice) }),
  (record, dice) => removeStationChange(record.plan, stationIn(record, dice)),
  (_, dice) => ({ type: 'add-station', station: { number: 1 + dice(4), name: 'New' } }),
  ({ plan }) => ({ type: 'set-timer', timer: plan.timer }),
  (record, dice) => ({
    type: 'note-station',
    station: stationIn(record, dice),
    fields: dice(2) ? { slopePercent: dice(40) } : { note: one(dice, ['wet', 'dry', 'shade']) },
  }),
  (record, dice) => ({
    type: 'note-station',
    station: stationIn(record, dice),
    fields: { faults: [{ fault: one(dice, ['leak', 'broken-head']), severity: 'soon' }] },
  }),
  // The whole device, as the clock page notes it.
  ({ survey }, dice) => ({
    type: 'note',
    fields: {
      device: {
        ...survey.device,
        ...(dice(2) ? { note: `note ${dice(9)}` } : { slowValveSeconds: dice(9) }),
      },
    },
  }),
  (_, dice) => ({ type: 'note', fields: { school: one(dice, ['thumb', 'weekly', 'balance']) } }),
  ({ survey }, dice) => ({
    type: 'note',
    fields: {
      visit: survey.visit ?? { began: `2027-06-0${1 + dice(9)}T09:00`, complaint: 'brown lawn' },
    },
  }),
  (_, dice) => noteVisit({ done: `heads ${dice(9)}` }),
  ({ survey }, dice) =>
    noteVisit({
      tests: [
        ...(survey.visit?.tests ?? []).filter(({ station }) => station !== 1 + (dice(2) ? 1 : 0)),
        { station: 4 + dice(4), result: 'waters' },
      ],
    }),
  ({ survey }, dice) =>
    noteVisit({
      keyIn: {
        scope: 'everything',
        ticked: [...new Set([...(survey.visit?.keyIn?.ticked ?? []), `line-${dice(30)}`])],
      },
    }),
];

/** A change that fits a record. */
export function randomEdit(record: TimerRecord, dice: Dice): RecordChange {
  for (;;) {
    const make = one(dice, EDITS);
    const read = readRecordChange(make?.(record, dice));
    if (read.ok && applyRecordChange(record, read.value).ok) return read.value;
  }
}
