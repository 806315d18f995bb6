/**
 * A task for the bench, `water-clock-task`: a scene, what the customer says, and what must be true at the end. An open document that a
 * company can write.
 */
import { BENCH_KEYS, type BenchAct, type BenchKey, type BenchStart } from '../bench/state.ts';
import type { TimedPress } from '../simulatedTimer/events.ts';
import { readTimedPress } from '../simulatedTimer/events.ts';
import type { Fault, Outcome, Path } from '../document/fault.ts';
import { foreignDocument, readJson } from '../document/openDocument.ts';
import {
  boolean,
  integer,
  list,
  object,
  oneOf,
  optional,
  readLine,
  readNote,
  required,
  variant,
  type Reader,
} from '../document/reader.ts';
import { assertDefined } from '../document/assertDefined.ts';
import type { HiddenOnPanel, RainDelayOfKind } from '../plan/kind.ts';
import type { Plan, Settings } from '../plan/plan.ts';
import {
  readPlan,
  readProgramShape,
  readSettingsFields,
  readStationShape,
} from '../plan/readPlan.ts';
import { parseSecond, type Weekday } from '../time/calendar.ts';
import { readSecond, readTime, readWeekdays } from '../time/timeReaders.ts';
import { readHidden, readRainDelay } from '../plan/kind.ts';
import { say } from '../language/say.ts';

export const TASK_FORMAT = 'water-clock-task';
export const TASK_VERSION = 1;

/** What can be wrong at a timer. */
export const TASK_FAULTS = [
  'clock-half-a-day',
  'start-left-over',
  'half-set',
  'percent-while-keying',
  'dead-station',
  'rain-delay-forgotten',
  'interval-on-forbidden-day',
  'overlap-at-high-percent',
] as const;
export type TaskFault = (typeof TASK_FAULTS)[number];

/** A timer's settings. Its abilities are those of the scene's timer. */
export type BoxSettings = Pick<Plan, 'settings' | 'stations' | 'programs'>;

/** What must be true at the end, about what the timer does, not about presses. */
export type Need =
  /** For some days it waters as a timer with these settings and the right time would; without settings, as the card says. */
  | { readonly need: 'waters-like'; readonly box?: BoxSettings; readonly days: number }
  /** No two cycles ever overlap. */
  | { readonly need: 'clear' }
  /** Its clock is right within some seconds. */
  | { readonly need: 'clock'; readonly within: number }
  /** No water on these weekdays, or between these hours, for some days. */
  | {
      readonly need: 'dry';
      readonly weekdays?: readonly Weekday[];
      readonly from?: string;
      readonly to?: string;
      readonly days: number;
    }
  /** A station waters this many seconds in the next seven days. */
  | {
      readonly need: 'weekly';
      readonly station: number;
      readonly least: number;
      readonly most: number;
    }
  /** The apprentice's diagnosis. */
  | { readonly need: 'answer'; readonly fault: TaskFault };

/** A key, a number of times. */
export interface Pressed {
  readonly key: BenchKey;
  /** Held. */
  readonly fast?: boolean;
  readonly times: number;
}

export interface Task {
  readonly format: typeof TASK_FORMAT;
  readonly version: typeof TASK_VERSION;
  readonly title: string;
  /** 1, the easiest, to 5. */
  readonly level: number;
  /** Message of the customer, or the office. */
  readonly says: string;
  readonly scene: {
    readonly plan: Plan;
    /** True time when the apprentice arrives. */
    readonly at: string;
    readonly clockAheadSeconds?: number;
    readonly hidden?: HiddenOnPanel;
    readonly rainDelay?: RainDelayOfKind;
    /** Stations without power, or whose valves do not close. */
    readonly dead?: readonly number[];
    readonly sticking?: readonly number[];
    /** Earlier events, in order. */
    readonly before?: readonly TimedPress[];
  };
  /** The office's card: what to key in. */
  readonly card?: BoxSettings;
  /** Keys this task does without. */
  readonly withoutKeys?: readonly BenchKey[];
  /** Whether rain, power and people can be tried out. */
  readonly hasWorld?: boolean;
  readonly needs: readonly Need[];
  /** From a hint to the whole solution. */
  readonly hints: readonly string[];
  readonly solution: { readonly keys: readonly Pressed[]; readonly answer?: TaskFault };
}

const innerPlan: Reader<Plan> = (value, path, faults) => {
  const read = readPlan(value);
  if (read.ok) return read.value;
  for (const fault of read.faults) faults.push({ ...fault, path: [...path, ...fault.path] });
  return undefined;
};
const boxSettings = object<BoxSettings>({
  settings: required(object<Settings>(readSettingsFields), 'an object'),
  stations: required(list(readStationShape), 'a list of stations'),
  programs: required(list(readProgramShape), 'a list of programs'),
});
const station = integer(1, 99);
const days = required(integer(1, 400), '1 to 400');
const weekSeconds = required(integer(0, 604_800), '0 to 604800');

const readNeed: Reader<Need> = variant<Need>('need', {
  'waters-like': object<Extract<Need, { need: 'waters-like' }>>({
    need: required(oneOf(['waters-like'])),
    box: optional(boxSettings),
    days,
  }),
  clear: object<Extract<Need, { need: 'clear' }>>({ need: required(oneOf(['clear'])) }),
  clock: object<Extract<Need, { need: 'clock' }>>({
    need: required(oneOf(['clock'])),
    within: required(integer(1, 86_400), '1 to 86400'),
  }),
  dry: object<Extract<Need, { need: 'dry' }>>({
    need: required(oneOf(['dry'])),
    weekdays: optional(readWeekdays),
    from: optional(readTime),
    to: optional(readTime),
    days,
  }),
  weekly: object<Extract<Need, { need: 'weekly' }>>({
    need: required(oneOf(['weekly'])),
    station: required(station, '1 to 99'),
    least: weekSeconds,
    most: weekSeconds,
  }),
  answer: object<Extract<Need, { need: 'answer' }>>({
    need: required(oneOf(['answer'])),
    fault: required(oneOf(TASK_FAULTS), TASK_FAULTS.join(', ')),
  }),
});

const shape = object<Task>({
  format: required(oneOf([TASK_FORMAT]), `"${TASK_FORMAT}"`),
  version: required(oneOf([TASK_VERSION]), `${TASK_VERSION}`),
  title: required(readLine, 'a title'),
  level: required(integer(1, 5), '1 to 5'),
  says: required(readNote, 'what the customer says'),
  scene: required(
    object<Task['scene']>({
      plan: required(innerPlan, 'a plan'),
      at: required(readSecond, 'a moment'),
      clockAheadSeconds: optional(integer(-31_622_400, 31_622_400)),
      hidden: optional(readHidden),
      rainDelay: optional(readRainDelay),
      dead: optional(list(station, { unique: true })),
      sticking: optional(list(station, { unique: true })),
      before: optional(list(readTimedPress, { most: 100 })),
    }),
    'a scene',
  ),
  card: optional(boxSettings),
  withoutKeys: optional(list(oneOf(BENCH_KEYS), { unique: true })),
  hasWorld: optional(boolean),
  needs: required(list(readNeed, { least: 1, most: 20 }), 'the goal'),
  hints: required(list(readLine, { least: 3, most: 3 }), 'three hints'),
  solution: required(
    object<Task['solution']>({
      keys: required(
        list(
          object<Pressed>({
            key: required(oneOf(BENCH_KEYS), BENCH_KEYS.join(', ')),
            fast: optional(boolean),
            times: required(integer(1, 2000), '1 to 2000'),
          }),
          { most: 1000 },
        ),
        'a list of keys',
      ),
      answer: optional(oneOf(TASK_FAULTS)),
    }),
    'a solution',
  ),
});

/** Reads a task. Strict; earlier events must be in order, and before the apprentice arrives. */
export function readTask(value: unknown): Outcome<Task> {
  const other = foreignDocument(value, TASK_FORMAT, TASK_VERSION);
  if (other) return { ok: false, faults: [other] };
  const faults: Fault[] = [];
  const task = shape(value, [], faults);
  if (!task) return { ok: false, faults };
  const moments = [...(task.scene.before ?? []).map(({ at }) => at), task.scene.at];
  moments.forEach((at, i) => {
    const before = moments[i - 1];
    if (before !== undefined && at < before)
      faults.push({
        code: 'out-of-order',
        path: i === moments.length - 1 ? ['scene', 'at'] : ['scene', 'before', i, 'at'],
        before,
      });
  });
  task.needs.forEach((need, i) => {
    if (need.need === 'weekly' && need.most < need.least)
      faults.push({
        code: 'out-of-range',
        path: ['needs', i, 'most'],
        least: need.least,
        most: 604_800,
        actual: need.most,
      });
  });
  faults.push(...boxFaults(task));
  return faults.length > 0 ? { ok: false, faults } : { ok: true, value: task };
}

/** What the scene's timer could not hold at all. */
function boxFaults(task: Task): Fault[] {
  const at = (box: BoxSettings, path: Path): Fault[] => {
    const read = readPlan(planWith(task, box));
    return read.ok
      ? []
      : read.faults.map((fault) => ({ ...fault, path: [...path, ...fault.path] }));
  };
  return [
    ...(task.card ? at(task.card, ['card']) : []),
    ...task.needs.flatMap((need, i): Fault[] => {
      if (need.need !== 'waters-like') return [];
      if (need.box) return at(need.box, ['needs', i, 'box']);
      const path = ['needs', i, 'box'];
      return task.card
        ? []
        : [{ code: 'missing-field', path, expected: say`a setting, since there is no card` }];
    }),
  ];
}

/** The scene's timer with other settings. */
export const planWith = (
  { scene }: Pick<Task, 'scene'>,
  { settings, stations, programs }: BoxSettings,
): Plan => ({
  ...scene.plan,
  ...{ settings, stations, programs },
});

export const readTaskText = (json: string): Outcome<Task> => readJson(json, readTask);

/** When the bench starts: at the first event, or when the apprentice arrives. */
const beginOf = ({ scene }: Task) =>
  assertDefined(parseSecond(scene.before?.[0]?.at ?? scene.at), 'parseSecond');

/** The bench before anything happened. */
export function sceneStart(task: Task, style: BenchStart['style']): BenchStart {
  const { plan, clockAheadSeconds = 0, hidden, rainDelay } = task.scene;
  return {
    ...{ plan, style, now: beginOf(task), ahead: clockAheadSeconds },
    kind: { ...(hidden ? { hidden } : {}), ...(rainDelay ? { rainDelay } : {}) },
  };
}

/** Conditions before the apprentice arrived, with their moments. */
export function sceneActs({ scene }: Task): { at: number; act: BenchAct }[] {
  const { before = [], dead = [], sticking = [] } = scene;
  const begin = assertDefined(
    parseSecond(before[0]?.at ?? scene.at),
    'parseSecond(before[0]?.at ?? scene.at)',
  );
  return [
    ...dead.map((one) => ({
      at: begin,
      act: { garden: { fault: 'dead' as const, station: one, on: true } },
    })),
    ...sticking.map((one) => ({
      at: begin,
      act: { garden: { fault: 'sticks' as const, station: one, on: true } },
    })),
    ...before.map(({ at, ...press }) => ({
      at: assertDefined(parseSecond(at), 'parseSecond(at)'),
      act: { world: press },
    })),
  ];
}

export const comesAt = ({ scene }: Task): number =>
  assertDefined(parseSecond(scene.at), 'parseSecond(scene.at)');
