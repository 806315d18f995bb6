/**
 * The kinds that ship with the product: generic, named by what is seen on the wall. An office that changes one keeps its own
 * under the same id, and has the shipped one back by taking its own out.
 */
import { TIMER_KINDS } from './timerKinds.ts';
import { KIND_FORMAT, KIND_VERSION, type TimerKind } from './kind.ts';

export interface ShippedKind {
  readonly id: string;
  readonly kind: TimerKind;
}

type Extras = Omit<TimerKind, 'format' | 'version' | 'timer'>;

const BLINKING = {
  sign: 'a program letter blinks',
  means: 'the program lacks its start, its run times or its days',
};

const FLASHING_CLOCK = {
  sign: 'the clock flashes',
  means: 'power was lost: set the clock, then look through every setting',
};

const STATION_ERROR = {
  sign: 'an error with the number of a station',
  means: 'its valve takes too much current: short circuit or solenoid',
};

const BLANK_BATTERY = { sign: 'the screen is blank', means: 'it sleeps, or the battery is flat' };
const BLANK_MAINS = {
  sign: 'the screen is blank',
  means: 'no power: adapter, transformer or the supply to it',
};

const battery: Extras = {
  note: 'Battery alone, latching valves. A battery is good for about a year.',
  signs: [
    BLANK_BATTERY,
    { sign: 'a battery sign', means: 'change the battery before the season' },
    BLINKING,
  ],
  factory: [{ setting: 'starts', value: 'none: nothing waters until it is set' }],
  preset: { settings: {}, programs: [] },
  manual: 'A hand press runs the outlet for the length last used, then goes back to the programs.',
  restore: 'None. The settings are lost about a minute after the battery is taken out.',
};

const wall: Extras = {
  signs: [BLINKING, FLASHING_CLOCK, STATION_ERROR, BLANK_MAINS],
  factory: [
    { setting: 'percent', value: '100 percent' },
    { setting: 'starts', value: 'program A at 6:00' },
    { setting: 'runs', value: '10 minutes on every station' },
    { setting: 'days', value: 'every day' },
  ],
  preset: {
    settings: {},
    programs: [{ letter: 'A', starts: ['06:00'], days: { rule: 'daily' }, runSeconds: 600 }],
  },
  manual: 'Watering by hand ends by itself after its run, and leaves the programs alone.',
  restore: 'None: what is set stays through a power cut, the clock by a small battery.',
};

const saving: Extras = {
  ...wall,
  manual: 'Watering by hand ends by itself; a second press goes on to the next station.',
  restore:
    'Keeps one set of programs as a fallback: starts, runs, days and soaks. The clock, the percent and a rain delay are not kept.',
};

const twoWire: Extras = {
  ...saving,
  signs: [
    ...(wall.signs ?? []),
    { sign: 'a dash in place of a station', means: 'its decoder does not answer' },
    { sign: 'a line error', means: 'the two-wire line is shorted or broken' },
  ],
  hides:
    'Programs above the fourth stay hidden until they are opened in the settings of the panel.',
};

/** By the order of `TIMER_KINDS`. */
const EXTRAS: readonly Extras[] = [
  battery,
  wall,
  wall,
  saving,
  twoWire,
  {
    ...battery,
    note: 'Screws onto a tap. Clean the inlet screen every couple of months.',
  },
  {
    ...wall,
    note: 'Values are typed on a keypad and kept with the confirming key.',
    hides: 'Starts after the first are only shown once the first is set.',
  },
  { ...wall, note: 'With a percent set, its run page shows the adjusted minutes.' },
  { ...saving, note: 'Waits in hours without water and goes on after them.' },
  twoWire,
];

const idOf = (index: number) =>
  `5d1e0000-7a3c-4c1e-8e5a-${(index + 1).toString(16).padStart(12, '0')}`;

export const SHIPPED_KINDS: readonly ShippedKind[] = TIMER_KINDS.map((timer, i) => ({
  id: idOf(i),
  kind: { format: KIND_FORMAT, version: KIND_VERSION, timer, ...EXTRAS[i] },
}));
