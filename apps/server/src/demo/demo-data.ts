/** An invented firm in an invented town, with ten gardens. Nothing here is real. */
import {
  emptyPlan,
  TIMER_KINDS,
  type ClosedVisit,
  type Days,
  type EpochDay,
  type Plan,
  type Program,
  type Station,
  type Survey,
  type Timer,
  type Weekday,
} from '@water-clock/core';
import type { Site } from '../sites/site.entity.ts';
import { THISTLE_PLAN, thistleSurvey, thistleVisits } from './demo-visit.ts';
import { FENNIMORE_SURVEY, larkholtSurvey, OSTRELLE_RULES_ID } from './demo-survey.ts';

export const DEMO_COMPANY = {
  id: '6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1a01',
  name: 'Brindlewick Sprinklers, Ostrelle',
};

/** The person whom the sign-in page offers. */
export const DEMO_PERSON = {
  name: 'Tamsin Orrowby',
  email: 'tamsin@brindlewick.example',
  password: 'sprinkle-by-night',
};

export const DEMO_PEOPLE = [
  { id: '6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1a02', ...DEMO_PERSON },
  {
    id: '6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1a03',
    name: 'Jory Pellaway',
    email: 'jory@brindlewick.example',
    password: 'soak-before-sunrise',
  },
];

const OSTRELLE = {
  timeZone: 'Australia/Adelaide',
  latitude: -34.21,
  longitude: 139.86,
  place: 'ostrelle',
  rulesId: OSTRELLE_RULES_ID,
};

function kind(name: string): Timer {
  const timer = TIMER_KINDS.find((one) => one.name === name);
  if (!timer) throw new Error(`no timer kind ${name}`);
  return timer;
}

const on = (...weekdays: Weekday[]): Days => ({ rule: 'weekdays', weekdays });

/** Runs from minutes by station, the first of them for station `first`. */
const runs = (first: number, ...minutes: number[]) =>
  minutes.map((one, i) => ({ station: first + i, seconds: one * 60 }));

const named = (names: readonly string[], more: Partial<Station> = {}): Station[] =>
  names.map((name, i) => ({ number: i + 1, name, ...more }));

function plan(timer: Timer, stations: readonly Station[], programs: readonly Program[]): Plan {
  return { ...emptyPlan(timer), stations, programs };
}

/** Twenty-four stations in four programs: clear, with room for midsummer. */
const larkholt = plan(
  kind('Twenty-four-station two-wire timer'),
  [
    ...named([
      'Front lawn, street',
      'Front lawn, house',
      'Drive verge',
      'Side lawn east',
      'Side lawn west',
      'Upper bank',
      'Lower bank',
      'Back lawn, terrace',
      'Back lawn, middle',
      'Back lawn, fence',
      'Croquet lawn north',
      'Croquet lawn south',
      'Rose beds',
      'Long border',
      'Herb garden',
      'Shrubbery',
      'Hedge, lane',
      'Hedge, road',
      'Orchard upper',
      'Orchard lower',
      'Vegetable beds',
      'Glasshouse yard',
      'Courtyard pots',
      'Veranda pots',
    ]),
  ].map((station) => ({
    ...station,
    ...(station.number === 6 || station.number === 7
      ? { cycleSeconds: 360, soakSeconds: 1200 }
      : station.number === 3
        ? { cycleSeconds: 1140, soakSeconds: 1200 }
        : {}),
    ...(station.number >= 13 ? { overhead: false } : {}),
  })),
  [
    {
      letter: 'A',
      starts: ['00:30'],
      runs: runs(1, 14, 14, 8, 12, 12, 18, 18, 16, 16, 16, 20, 20),
      days: on('mon', 'wed', 'fri'),
    },
    {
      letter: 'B',
      starts: ['21:00'],
      runs: runs(13, 24, 24, 18, 22, 16, 16),
      days: on('tue', 'sat'),
    },
    { letter: 'C', starts: ['02:00'], runs: runs(19, 45, 45, 30), days: on('thu', 'sun') },
    { letter: 'D', starts: ['06:20', '18:30'], runs: runs(22, 6, 5, 5), days: { rule: 'daily' } },
  ],
);

/** A lawn and a bed program that share Thursday, and only Thursday. */
const fennimore = plan(
  kind('Eight-station wall timer'),
  named([
    'Front lawn',
    'Side strip',
    'Back lawn near',
    'Back lawn far',
    'Rose bed',
    'Fence shrubs',
    'Vegetables',
    'Pots and baskets',
  ]).map((station) => ({
    ...station,
    ...(station.number === 1 ? { cycleSeconds: 531, soakSeconds: 1200 } : {}),
    ...([5, 7, 8].includes(station.number) ? { overhead: false } : {}),
  })),
  [
    {
      letter: 'A',
      starts: ['04:00'],
      runs: runs(1, 22, 14, 30, 30),
      days: on('mon', 'thu', 'sat'),
    },
    { letter: 'B', starts: ['05:15'], runs: runs(5, 20, 25, 15), days: on('tue', 'thu', 'sun') },
    { letter: 'C', starts: ['19:30'], runs: runs(8, 6), days: { rule: 'daily' } },
  ],
);

/** A late lawn program that is still running when the beds begin after midnight. */
const quinceCottage = plan(
  kind('Four-station wall timer'),
  named(['Front lawn', 'Back lawn', 'Hillside bed', 'Kitchen garden']),
  [
    { letter: 'A', starts: ['22:30'], runs: runs(1, 60, 70), days: on('tue', 'sat') },
    { letter: 'B', starts: ['00:15'], runs: runs(3, 30, 20), days: on('wed', 'sun') },
  ],
);

/** Intervals and odd dates, pieces with soaks, a delay, hours without water that hold cycles back, a percent by program. */
const marramLodge: Plan = {
  ...plan(
    {
      ...kind('Twelve-station modular timer'),
      name: 'Twelve-station timer that pauses by day',
      inWindow: 'pause',
      oddDaysSkip31: false,
    },
    named(
      [
        'Entrance lawn',
        'Entrance bank',
        'Slope under the terrace',
        'Upper terrace',
        'Lower terrace',
        'Boules court edge',
        'Lavender walk',
        'Cutting garden',
        'Cordon pears',
        'Gravel garden',
        'Fern corner',
        'Bird-bath bed',
      ],
      { flowLpm: 18 },
    ).map((station) => ({
      ...station,
      ...(station.number === 2 || station.number === 3
        ? { cycleSeconds: 300, soakSeconds: 1500 }
        : {}),
      ...(station.number >= 7 ? { overhead: false } : {}),
      ...(station.number === 11 ? { underCover: true, obeysRainSensor: false } : {}),
    })),
    [
      {
        letter: 'A',
        starts: ['03:30'],
        runs: runs(1, 16, 15, 15, 14, 14),
        days: {
          rule: 'interval',
          everyDays: 6,
          firstDate: '2026-11-02',
          blockedWeekdays: ['sat'],
        },
        seasonalPercent: 120,
      },
      { letter: 'B', starts: ['21:30'], runs: runs(6, 12, 20, 20), days: { rule: 'odd' } },
      {
        letter: 'C',
        starts: ['16:00'],
        runs: runs(9, 30, 25, 20, 20),
        days: { rule: 'even', blockedWeekdays: ['sun'] },
        noWaterWindows: [{ from: '20:00', to: '20:30' }],
      },
    ],
  ),
  settings: {
    stationDelaySeconds: 10,
    noWaterWindows: [{ from: '10:00', to: '18:00' }],
    offDaysOfMonth: [31],
  },
};

/** Two valves at once under a flow limit, a count of hours, a percent that a weather sensor moves. */
const tolverneGreen: Plan = {
  ...plan(
    {
      ...kind('Twenty-four-station two-wire timer'),
      name: 'Two-wire timer, two valves at once',
      dayRules: ['daily', 'weekdays', 'interval', 'odd', 'even', 'hours'],
      stationCount: 16,
      stationsAtOnce: 2,
      inWindow: 'cut',
      onOverlap: 'queue',
      followsDaylightSaving: true,
    },
    [38, 42, 40, 36, 30, 30, 44, 44, 12, 10].map((flowLpm, i) => ({
      number: i + 1,
      name:
        [
          'Green, north',
          'Green, east',
          'Green, south',
          'Green, west',
          'Avenue left',
          'Avenue right',
          'Playing lawn near',
          'Playing lawn far',
          'Drip, hedge',
          'Drip, young trees',
        ][i] ?? '',
      flowLpm,
      ...(i >= 8 ? { overhead: false } : {}),
    })),
    [
      {
        letter: 'A',
        starts: ['22:00'],
        runs: runs(1, 25, 25, 25, 25, 15, 15, 30, 30),
        days: on('mon', 'wed', 'fri'),
      },
      {
        letter: 'B',
        starts: [],
        runs: runs(9, 40, 40),
        days: { rule: 'hours', everyHours: 36, first: '2026-11-02T05:00' },
      },
    ],
  ),
  settings: {
    percentDrivenBy: 'sensor',
    percentRange: { lowest: 40, highest: 140 },
    flowLimitLpm: 80,
    noWaterWindows: [{ from: '11:00', to: '17:00', weekdays: ['sat', 'sun'] }],
  },
};

/** A keypad timer that knows the weekday only, with a percent for each month and a total on its display. */
const hollinYard: Plan = {
  ...plan(
    {
      ...kind('Four-station wall timer'),
      name: 'Six-station keypad timer that soaks',
      stationCount: 6,
      dayRules: ['daily', 'weekdays', 'interval'],
      longestIntervalDays: 14,
      cycleSoak: 'program',
      seasonal: { ...kind('Four-station wall timer').seasonal, byMonth: true },
      dialect: {
        clock: 'weekday',
        clockStyle: '12',
        weekOrder: 'sun',
        intervalCounts: 'between',
        total: { shown: true, percent: true, soaks: false, delays: false },
      },
    },
    named(['Yard lawn', 'Wall bed', 'Step pots', 'Washing-line lawn', 'Compost corner', 'Gate']),
    [
      {
        letter: 'A',
        starts: ['05:00'],
        runs: runs(1, 18, 12, 6),
        days: on('tue', 'fri', 'sun'),
        cycleSeconds: 480,
        soakSeconds: 1200,
      },
      {
        letter: 'B',
        starts: ['06:30'],
        runs: runs(4, 20, 10, 8),
        days: { rule: 'interval', everyDays: 4, firstDate: '2026-11-03' },
      },
    ],
  ),
  settings: { monthlyPercent: [130, 120, 100, 80, 50, 30, 30, 40, 60, 80, 100, 120] },
};

const sorrelRow = emptyPlan(kind('Two-station battery timer'));

/** A rain delay that is still running, a timer that loses starts, a station switched off, dry hours that it knows nothing of. */
const wrenfield: Plan = {
  ...plan(
    {
      ...kind('Four-station wall timer'),
      name: 'Five-station wall timer',
      stationCount: 5,
      onOverlap: 'drop',
    },
    named([
      'Terrace lawn',
      'Terrace beds',
      'Bowling strip',
      'Disused fountain',
      'Bank of thyme',
    ]).map((station) => ({ ...station, ...(station.number === 4 ? { enabled: false } : {}) })),
    [
      {
        letter: 'A',
        starts: ['05:00', '05:45'],
        runs: runs(1, 20, 15, 20, 10),
        days: { rule: 'odd', blockedWeekdays: ['sun'] },
      },
      { letter: 'B', starts: ['07:30'], runs: runs(5, 25), days: on('wed', 'sun') },
    ],
  ),
  settings: {
    seasonalPercent: 110,
    noWaterWindows: [{ from: '09:00', to: '17:00' }],
  },
};

/** A tap timer that counts hours, switched off until somebody comes back. */
const saltbush: Plan = {
  ...plan(kind('One-outlet tap timer'), named(['Pots by the gate'], { overhead: false }), [
    {
      letter: 'A',
      starts: [],
      runs: runs(1, 12),
      days: { rule: 'hours', everyHours: 30, first: '2026-11-02T06:00', blockedWeekdays: ['sat'] },
    },
  ]),
  settings: { mode: 'off', sensor: 'none' },
};

export interface DemoSite {
  readonly site: Pick<Site, 'id' | 'name' | 'houseNumber' | 'timeZone' | 'latitude' | 'longitude'> &
    Partial<Pick<Site, 'supply' | 'notes' | 'people' | 'place' | 'rulesId' | 'units'>> & {
      readonly mowing?: readonly Weekday[];
    };
  readonly timerId: string;
  readonly plan: Plan;
  /** As of the date on which the demo is loaded. */
  readonly survey?: (on: EpochDay) => Survey;
  /** Its logbook, as of that date. */
  readonly visits?: (on: EpochDay) => readonly ClosedVisit[];
  /** Days from the one on which the demo is loaded for which a rain delay runs. */
  readonly rainDelayDays?: number;
}

export const DEMO_SITES: readonly DemoSite[] = [
  {
    site: {
      id: '6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1b01',
      name: 'Larkholt',
      houseNumber: '41',
      ...OSTRELLE,
      supply: 'bore',
      mowing: ['fri'],
      notes: 'Timer in the pump shed; the key hangs inside the laundry door.',
      people: [{ name: 'Ansel Thornquist', role: 'gardener, Tuesdays', phone: '' }],
    },
    timerId: '6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1c01',
    plan: larkholt,
    survey: larkholtSurvey,
  },
  {
    site: {
      id: '6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1b02',
      name: 'Fennimore house',
      houseNumber: '8',
      ...OSTRELLE,
      supply: 'mains',
      mowing: ['thu'],
      people: [
        { name: 'Petra Fennimore', role: 'owner', phone: '555 0148' },
        { name: 'Ruben Fennimore', role: 'mows on Thursdays', phone: '' },
      ],
    },
    timerId: '6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1c02',
    plan: fennimore,
    survey: () => FENNIMORE_SURVEY,
  },
  {
    site: {
      id: '6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1b03',
      name: 'Quince Cottage',
      houseNumber: '17a',
      ...OSTRELLE,
    },
    timerId: '6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1c03',
    plan: quinceCottage,
  },
  {
    site: {
      id: '6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1b04',
      name: 'Sorrel Row, new timer',
      houseNumber: '3',
      ...OSTRELLE,
    },
    timerId: '6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1c04',
    plan: sorrelRow,
  },
  {
    site: {
      id: '6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1b05',
      name: 'Marram Lodge',
      houseNumber: '112',
      ...OSTRELLE,
      supply: 'tank',
      mowing: ['sat'],
    },
    timerId: '6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1c05',
    plan: marramLodge,
  },
  {
    site: {
      id: '6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1b06',
      name: 'Tolverne Green',
      houseNumber: '2',
      ...OSTRELLE,
    },
    timerId: '6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1c06',
    plan: tolverneGreen,
  },
  {
    site: {
      id: '6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1b07',
      name: 'Hollin Yard',
      houseNumber: '29',
      ...OSTRELLE,
    },
    timerId: '6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1c07',
    plan: hollinYard,
  },
  {
    site: {
      id: '6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1b08',
      name: 'Wrenfield Terrace',
      houseNumber: '64',
      ...OSTRELLE,
      supply: 'mains',
      mowing: ['tue'],
    },
    timerId: '6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1c08',
    plan: wrenfield,
    rainDelayDays: 2,
  },
  {
    site: {
      id: '6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1b09',
      name: 'Saltbush Corner',
      houseNumber: '5',
      ...OSTRELLE,
      supply: 'tank',
    },
    timerId: '6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1c09',
    plan: saltbush,
  },
  {
    site: {
      id: '6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1b0a',
      name: 'Thistle Corner',
      houseNumber: '14',
      ...OSTRELLE,
      rulesId: null,
      supply: 'mains',
      mowing: ['sun'],
      notes: 'Called on Monday: “The back lawn comes on in the afternoon.”',
      people: [{ name: 'Odile Marchbank', role: 'owner', phone: '555 0171' }],
    },
    timerId: '6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1c0a',
    plan: THISTLE_PLAN,
    survey: thistleSurvey,
    visits: thistleVisits,
  },
];
