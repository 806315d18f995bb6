/** All of the planner's messages: each kind of reason, demand, offer and comparison. */
import { expect, test } from '@jest/globals';
import type { Demand, MilderWhat } from '../src/planner/demand.ts';
import { reasonSentence, sourceWords } from '../src/planner/plannerWords.ts';
import { changeSentence, demandSentence } from '../src/planner/demandWords.ts';
import type { Reason } from '../src/planner/reasons.ts';
import { SPOKEN_BRIEF as brief } from './plannerBriefs.ts';

type Rest<Kind extends Reason['kind']> = Omit<Extract<Reason, { kind: Kind }>, 'kind' | 'path'>;

const START = { program: 'A', start: '04:00', ends: 16_200, endsHigh: 16_200, into: null };
const RUN = { station: 1, seconds: 1200, weekly: 3600, runsAWeek: 3, given: 3600, off: null };
const DAYS = {
  program: 'A',
  days: { rule: 'weekdays', weekdays: ['mon', 'thu'] },
  dates: 2,
  least: null,
  most: null,
  allowed: null,
  parity: null,
  mown: [],
} as const;

const REASONS: { readonly [Kind in Reason['kind']]: readonly Rest<Kind>[] } = {
  'one-program': [{ stations: 1 }, { stations: 6 }],
  programs: [
    {
      count: 2,
      days: [
        { station: 2, least: 1, most: 1 },
        { station: 1, least: 2, most: 3 },
      ],
      apart: null,
      byNeed: [],
    },
    { count: 2, days: null, apart: ['lawn', 'beds'], byNeed: [] },
    { count: 3, days: null, apart: null, byNeed: [] },
    { count: 2, days: null, apart: null, byNeed: ['lawn', 'drip'] },
    { count: 2, days: null, apart: null, byNeed: ['lawn'] },
  ],
  days: [
    DAYS,
    {
      ...DAYS,
      least: { station: 1, days: 2 },
      most: { station: 2, days: 1 },
      allowed: ['mon', 'thu'],
      parity: 'odd',
      mown: ['fri'],
    },
    { ...DAYS, days: { rule: 'interval', everyDays: 3, firstDate: '2027-06-01' }, dates: 7 / 3 },
    { ...DAYS, days: { rule: 'interval', everyDays: 1, firstDate: '2027-06-01' }, dates: 7 },
  ],
  'one-start': [{ program: 'A' }],
  starts: [
    { program: 'A', station: 1, count: 3, stretch: 420 },
    { program: 'A', station: 2, count: 3, stretch: null },
  ],
  start: [
    { ...START, later: 'outside' },
    { ...START, later: 'finish' },
    { ...START, endsHigh: 6 * 3600 - 39, later: 'finish' },
    { ...START, later: 'overlap', into: 'B' },
    { ...START, later: 'overlap' },
    { ...START, later: 'forbidden-hour' },
    { ...START, later: 'free' },
    { ...START, later: 'wish' },
  ],
  run: [
    RUN,
    { ...RUN, given: 3780 },
    { ...RUN, given: 3420 },
    { ...RUN, given: 2400, off: 'stretch' },
    { ...RUN, given: 2400, off: 'longest' },
    { ...RUN, given: 4800, off: 'step' },
    { ...RUN, given: 2400, off: 'room' },
  ],
  split: [{ station: 1, pieces: [420, 420, 360], stretch: 420, soak: 1200 }],
  headroom: [{ percent: 130 }],
  outside: [{ minutes: 42 }],
};

test('every reason', () => {
  const said = Object.entries(REASONS).flatMap(([kind, all]) =>
    // Safe cast: the table is typed kind by kind.
    all.map((rest) => reasonSentence({ ...rest, kind, path: [] } as Reason, brief, '12')),
  );
  expect(said).toMatchInlineSnapshot(`
   [
     "One program, because there is one station to water.",
     "One program for all 6 stations. The same days suit them all, and they fit in one night.",
     "2 programs: station 2 needs 1 day a week and Front lawn (1) 2 to 3 days, so they cannot share their days.",
     "2 programs: lawn and beds must not share a program.",
     "3 programs: with fewer, watering would not fit the preferred hours up to 130 %.",
     "2 programs: lawn and drip have different needs, so each gets its own program as far as programs allow.",
     "2 programs: lawn and the other stations have different needs, so each gets its own program as far as programs allow.",
     "A waters on Mon Thu, 2 days a week. No station needs more, and deep, infrequent watering is better than light, frequent watering.",
     "A waters on Mon Thu, 2 days a week: Front lawn (1) needs at least 2 days a week, station 2 may water at most 1 day a week, only Mon Thu are allowed here, only odd dates are allowed here and it must be dry for mowing on Fri.",
     "A waters every 3 days, about 2.3 days a week. No station needs more, and deep, infrequent watering is better than light, frequent watering.",
     "A waters every day, 7 days a week. No station needs more, and deep, infrequent watering is better than light, frequent watering.",
     "A has one start time. Each station gets its water in one run, or the timer splits it.",
     "A has 3 start times. Front lawn (1) can run 7 min before water runs off, so its water is split into 3 runs.",
     "A has 3 start times, because station 2 needs that many runs on each of its days.",
     "A starts at 4:00 am and ends at 4:30 am, outside the preferred hours from 9:00 pm to 7:00 am. None of the plans we tried fit inside them.",
     "A starts at 4:00 am and ends at 4:30 am. Everything should end by 7:00 am, and the hours before it are the coolest and calmest.",
     "A starts at 4:00 am and ends at 4:30 am. At 130 % it ends at 6:00 am. Everything should end by 7:00 am.",
     "A starts at 4:00 am and ends at 4:30 am. One step later it would run into B at 130 %.",
     "A starts at 4:00 am and ends at 4:30 am. One step later it would run into another cycle at 130 %.",
     "A starts at 4:00 am and ends at 4:30 am. One step later it would water when the rules do not allow it.",
     "A starts at 4:00 am and ends at 4:30 am, before the others.",
     "A starts at 4:00 am and ends at 4:30 am. One step later it would not meet the brief.",
     "Front lawn (1): 20 min a run, 3 runs a week. It needs 1 h a week.",
     "Front lawn (1): 20 min a run, 3 runs a week. It needs 1 h a week and gets 1 h 3 min (+5 %).",
     "Front lawn (1): 20 min a run, 3 runs a week. It needs 1 h a week and gets 57 min (−5 %).",
     "Front lawn (1): 20 min a run, 3 runs a week. It needs 1 h a week and gets 40 min, 33 % too little: it can run only 7 min at a time.",
     "Front lawn (1): 20 min a run, 3 runs a week. It needs 1 h a week and gets 40 min, 33 % too little: this timer's longest run is 4 h.",
     "Front lawn (1): 20 min a run, 3 runs a week. It needs 1 h a week and gets 1 h 20 min, 33 % too much: this timer sets run times in 1 min steps, and the next step is no closer.",
     "Front lawn (1): 20 min a run, 3 runs a week. It needs 1 h a week and gets 40 min, 33 % too little: none of the plans we tried had room for a closer run time.",
     "Front lawn (1) is split into 7 min + 7 min + 6 min with a 20 min soak between, because water runs off after 7 min.",
     "No overlaps and no watering at forbidden times at any percent up to 130 %.",
     "At 130 %, 42 min a week falls outside 9:00 pm to 7:00 am. None of the plans we tried fits inside those hours.",
   ]
  `);
});

const [lawn, beds] = brief.stations;
if (!lawn || !beds) throw new Error('no stations');
const ABOUT: { readonly [About in Demand['about']]: Partial<Demand> } = {
  days: { station: lawn },
  'garden-days': {},
  cycle: { station: lawn },
  often: { station: beds },
  water: { station: lawn },
  weekdays: {},
  parity: {},
  windows: {},
  'days-per-week': {},
  mowing: {},
  'off-days': {},
  starts: {},
  'day-wish': {},
  'one-program': {},
  headroom: {},
  apart: { path: ['wish', 'apart', 0] },
  'program-count': {},
  'start-count': {},
  'day-rules': {},
};

const demand = (about: Demand['about'], more: Partial<Demand> = ABOUT[about]): Demand => ({
  path: [],
  without: () => brief,
  milder: () => [],
  ...more,
  about,
});

test('every demand', () => {
  // Safe cast: the keys of the table are its kinds.
  const abouts = Object.keys(ABOUT) as Demand['about'][];
  const said = abouts.map((about) => demandSentence(demand(about), brief, '12'));
  for (const wish of [{ starts: 'one' }, { starts: 'repeated' }] as const)
    said.push(demandSentence(demand('starts'), { ...brief, wish }, '12'));
  said.push(demandSentence(demand('day-wish'), { ...brief, wish: { days: 'weekdays' } }, '12'));
  said.push(demandSentence(demand('weekdays'), { ...brief, rules: { weekdays: [] } }, '12'));
  expect(said).toMatchInlineSnapshot(`
   [
     "Front lawn (1) needs 2 to 3 days a week.",
     "The garden should water 2 to 3 days a week.",
     "Front lawn (1) can run 7 min before water runs off.",
     "Station 2 needs to run 3 times a day between 9:00 am and 4:00 pm.",
     "Front lawn (1) needs water.",
     "Watering is allowed here only on Mon Wed Sat.",
     "Watering is allowed here only on odd dates.",
     "Watering is not allowed here from 9:00 am to 6:00 pm on Sun.",
     "At most 3 days a week are allowed here.",
     "The lawn must be dry for mowing on Fri, and the day before.",
     "The timer skips these days of the month: 13 and 31.",
     "The timer’s cycle and soak is used.",
     "Days are set as an interval.",
     "There is only one program.",
     "There are no overlaps up to 130 %.",
     "Lawn and beds never share a program.",
     "The timer has 3 programs.",
     "The timer has 4 start times for each program.",
     "The timer does not have every day rule.",
     "Each program has one start time.",
     "Repeated start times allow the water to soak in.",
     "Days are set as weekdays.",
     "Watering is not allowed here on any day.",
   ]
  `);
});

const CHANGES: {
  readonly [Kind in MilderWhat['kind']]: readonly (readonly [
    Demand['about'],
    Extract<MilderWhat, { kind: Kind }>,
  ])[];
} = {
  days: [
    ['days', { kind: 'days', least: 1, most: 3, alike: true }],
    ['days', { kind: 'days', least: 2, most: 2, alike: false }],
  ],
  'garden-days': [['garden-days', { kind: 'garden-days', least: 2, most: 4 }]],
  cycle: [['cycle', { kind: 'cycle', seconds: 600 }]],
  times: [['often', { kind: 'times', times: 2 }]],
  span: [['often', { kind: 'span', from: '08:00', to: '18:00' }]],
  'without-station': [['water', { kind: 'without-station' }]],
  weekdays: [['weekdays', { kind: 'weekdays', added: ['thu'] }]],
  'days-per-week': [['days-per-week', { kind: 'days-per-week', most: 4 }]],
  dropped: [
    ['parity', { kind: 'dropped' }],
    ['windows', { kind: 'dropped' }],
    ['mowing', { kind: 'dropped' }],
    ['off-days', { kind: 'dropped' }],
    ['apart', { kind: 'dropped' }],
    ['often', { kind: 'dropped' }],
    ['headroom', { kind: 'dropped' }],
  ],
  window: [['windows', { kind: 'window', window: { from: '10:00', to: '17:00' } }]],
  mowing: [
    ['mowing', { kind: 'mowing', weekdays: ['fri'], dayBefore: false }],
    ['mowing', { kind: 'mowing', weekdays: ['sat'], dayBefore: true }],
  ],
  wish: [
    ['one-program', { kind: 'wish' }],
    ['starts', { kind: 'wish' }],
  ],
  headroom: [['headroom', { kind: 'headroom', percent: 120 }]],
  count: [
    ['program-count', { kind: 'count', count: 4 }],
    ['start-count', { kind: 'count', count: 1 }],
  ],
  timer: [['day-rules', { kind: 'timer', timer: brief.timer }]],
};

test('every offer of what could be changed', () => {
  const said = Object.values(CHANGES)
    .flat()
    .map(([about, what]) => changeSentence(what, demand(about), brief, '12'));
  expect(said).toMatchInlineSnapshot(`
   [
     "Let Front lawn (1), and all stations with the same days, have 1 to 3 days a week.",
     "Let Front lawn (1) have 2 days a week.",
     "Water the garden 2 to 4 days a week.",
     "Let Front lawn (1) run 10 min without a break.",
     "Let station 2 run 2 times a day.",
     "Let station 2 run between 8:00 am and 6:00 pm.",
     "Leave Front lawn (1) out and water it manually.",
     "Ask whether Thu can be allowed too.",
     "Ask whether 4 days a week can be allowed.",
     "Ask whether other dates can be allowed.",
     "Ask whether watering can be allowed at that hour.",
     "Mow on any day and accept wet grass.",
     "Allow every day of the month.",
     "Let them share a program.",
     "Water it like the others.",
     "Drop this preference.",
     "Ask whether watering can be allowed outside 10:00 am to 5:00 pm.",
     "Keep the lawn dry only on Fri.",
     "Mow only on Sat.",
     "Allow more programs.",
     "Let the planner choose.",
     "Accept 120 %.",
     "A timer with 4 programs would work.",
     "A timer with 1 start time per program would work.",
     "A timer like “Demo timer” would work.",
   ]
  `);
});

test('where a reason comes from', () => {
  const said = [
    ['stations', 0, 'weeklySeconds'],
    ['stations', 0, 'days'],
    ['stations', 0, 'cycleSeconds'],
    ['stations', 1, 'oftenADay'],
    ['stations', 1],
    ['stations', 9, 'name'],
    ['stations'],
    ['rules', 'weekdays'],
    ['mowing'],
    ['timer', 'programCount'],
    ['settings'],
    ['wish', 'finishBy'],
  ].map((path) => sourceWords(path, brief));
  expect(said).toMatchInlineSnapshot(`
   [
     "the water needed by Front lawn (1)",
     "the days of Front lawn (1)",
     "the longest run of Front lawn (1)",
     "the daily waterings of station 2",
     "station 2",
     "a station",
     "the stations",
     "the local rules",
     "the mowing days",
     "the timer",
     "the timer’s settings",
     "the preferences",
   ]
  `);
});
