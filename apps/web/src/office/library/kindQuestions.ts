/** A timer kind from questions about the timer, one after another. No interface code. */
import { KIND_FORMAT, KIND_VERSION, type Timer, type TimerKind } from '@water-clock/core';

export interface Answers {
  readonly name: string;
  readonly stations: number;
  readonly programs: number;
  readonly starts: number;
  readonly startStep: Timer['startStepMinutes'];
  readonly longestRunMinutes: number;
  readonly runStep: 'seconds' | 'minutes' | 'fives';
  readonly days: readonly ('weekdays' | 'interval' | 'parity' | 'hours')[];
  readonly longestInterval: number;
  readonly percent: 'none' | 'timer' | 'program' | 'months';
  readonly highestPercent: number;
  readonly percentStep: number;
  readonly soak: Timer['cycleSoak'];
  readonly longestDelaySeconds: number;
  readonly overlap: Timer['onOverlap'];
  readonly dryHours: Timer['inWindow'];
  readonly atOnce: number;
  readonly clock: 'date' | 'weekday';
}

export const USUAL_ANSWERS: Answers = {
  name: '',
  stations: 6,
  programs: 3,
  starts: 4,
  startStep: 15,
  longestRunMinutes: 240,
  runStep: 'minutes',
  days: ['weekdays', 'interval', 'parity'],
  longestInterval: 31,
  percent: 'timer',
  highestPercent: 150,
  percentStep: 10,
  soak: 'none',
  longestDelaySeconds: 0,
  overlap: 'queue',
  dryHours: 'ignore',
  atOnce: 1,
  clock: 'date',
};

const RUN_STEP_SECONDS = { seconds: 1, minutes: 60, fives: 300 } as const;

/** What the timer can do, from the answers. */
export function kindOfAnswers(answers: Answers): TimerKind {
  const { percent } = answers;
  const scope = percent === 'none' ? 'none' : percent === 'program' ? 'program' : 'timer';
  const dayRules: Timer['dayRules'] = [
    'daily',
    ...(answers.days.includes('weekdays') ? (['weekdays'] as const) : []),
    ...(answers.days.includes('interval') ? (['interval'] as const) : []),
    ...(answers.days.includes('hours') ? (['hours'] as const) : []),
    ...(answers.days.includes('parity') ? (['odd', 'even'] as const) : []),
  ];
  const timer: Timer = {
    name: answers.name.trim(),
    stationCount: answers.stations,
    programCount: answers.programs,
    startsPerProgram: answers.starts,
    startStepMinutes: answers.startStep,
    runStepSeconds: RUN_STEP_SECONDS[answers.runStep],
    longestRunSeconds: answers.longestRunMinutes * 60,
    dayRules,
    longestIntervalDays: answers.longestInterval,
    oddDaysSkip31: true,
    seasonal: {
      scope,
      lowestPercent: scope === 'none' ? 100 : 10,
      highestPercent: scope === 'none' ? 100 : answers.highestPercent,
      stepPercent: answers.percentStep,
      byMonth: percent === 'months',
      roundToSeconds: answers.runStep === 'seconds' ? 1 : 60,
      rounding: 'nearest',
    },
    cycleSoak: answers.soak,
    longestStationDelaySeconds: answers.longestDelaySeconds,
    onOverlap: answers.overlap,
    inWindow: answers.dryHours,
    stationsAtOnce: answers.atOnce,
    followsDaylightSaving: false,
    ...(answers.clock === 'weekday' ? { dialect: { clock: 'weekday' } as const } : {}),
  };
  return { format: KIND_FORMAT, version: KIND_VERSION, timer };
}
