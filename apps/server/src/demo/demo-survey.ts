/** What the invented firm has found out at two of its gardens, and what it keeps in its library. Nothing here is real. */
import {
  NO_OFFICE,
  OFFICE_ID,
  civilOf,
  epochDayOf,
  formatDate,
  KIND_FORMAT,
  RULES_FORMAT,
  SHIPPED_KINDS,
  SHIPPED_MINUTES,
  SHIPPED_MINUTES_ID,
  type HeadType,
  type MinutesTable,
  type Plants,
  type Rules,
  type SoilType,
  type Survey,
  type Surroundings,
  type SurveyStation,
  type TimerKind,
  type EpochDay,
} from '@water-clock/core';
import { KEYPAD_KIND } from './demo-visit.ts';
import type { Shelf } from '../library/library-entry.entity.ts';

export const OSTRELLE_RULES_ID = '6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1d01';

/** The first of the month so many months after that of a date. */
function firstOfMonth(on: EpochDay, months: number): string {
  const { year, month } = civilOf(on);
  const count = year * 12 + month - 1 + months;
  return formatDate(epochDayOf({ year: Math.floor(count / 12), month: (count % 12) + 1, day: 1 }));
}

/**
 * Days by the last digit of the street number, in force since three months and for half a year from a date on; a bore has one more;
 * nothing in the heat of the day. Before and after it a ban.
 */
const ostrelleRules = (on: EpochDay): Rules => ({
  format: RULES_FORMAT,
  version: 1,
  name: 'Ostrelle district',
  note: 'Local rules come first, and they change: look them up before the season.',
  editions: [
    {
      from: firstOfMonth(on, -6),
      source: 'district notice, winter',
      clauses: [{ when: { supplies: ['mains', 'bore', 'pump'] }, noWatering: true }],
    },
    {
      from: firstOfMonth(on, -3),
      source: 'district notice, spring and summer',
      newPlantingUntil: firstOfMonth(on, 2),
      clauses: (
        [
          [[1, 2], ['wed', 'sat'], 'mon'],
          [[3, 4], ['thu', 'sun'], 'tue'],
          [[5, 6], ['mon', 'fri'], 'wed'],
          [[7, 8], ['tue', 'sat'], 'thu'],
          [[9, 0], ['wed', 'sun'], 'fri'],
        ] as const
      ).flatMap(([lastDigits, weekdays, more]) => [
        {
          when: { supplies: ['bore', 'tank'] as const, lastDigits },
          weekdays: [...weekdays, more],
          noWaterWindows: [{ from: '09:00', to: '18:00' }],
          mostDaysPerWeek: 3,
          dripExempt: true,
        },
        {
          when: { lastDigits },
          weekdays,
          noWaterWindows: [{ from: '09:00', to: '18:00' }],
          mostDaysPerWeek: 2,
          dripExempt: true,
        },
      ]),
    },
    {
      from: firstOfMonth(on, 6),
      source: 'district notice, winter',
      clauses: [{ when: { supplies: ['mains', 'bore', 'pump'] }, noWatering: true }],
    },
  ],
});

/** Odd and even dates, in the next valley. */
const quarrimeadRules: Rules = {
  format: RULES_FORMAT,
  version: 1,
  name: 'Quarrimead shire',
  editions: [
    {
      from: '2025-10-01',
      source: 'shire bulletin 14',
      clauses: [
        {
          when: { parity: 'odd' },
          parity: 'odd',
          noWaterWindows: [{ from: '08:00', to: '19:00' }],
        },
        {
          when: { parity: 'even' },
          parity: 'even',
          noWaterWindows: [{ from: '08:00', to: '19:00' }],
        },
      ],
    },
  ],
};

const minutes: MinutesTable = {
  ...SHIPPED_MINUTES,
  name: 'Ostrelle coast',
  region: 'southern coast, sandy gardens',
  source: 'our own gardens, seasons 2021 to 2025',
  heads: {
    ...SHIPPED_MINUTES.heads,
    'fixed-spray': { watering: 12, week: 54, headsPerHundred: 11 },
    drip: { watering: 50, week: 135 },
  },
  months: [100, 95, 75, 50, 30, 20, 20, 25, 45, 65, 85, 95],
};

/** The panel of the eight-station wall timer, as the office has written it down. */
function wallTimer(): { id: string; document: TimerKind } {
  const shipped = SHIPPED_KINDS.find(({ kind }) => kind.timer.name === 'Eight-station wall timer');
  if (!shipped) throw new Error('the eight-station wall timer ships');
  return {
    id: shipped.id,
    document: {
      ...shipped.kind,
      format: KIND_FORMAT,
      note: 'Grey box, flap on the left. Most of our houses in Ostrelle have it.',
      reach: [
        {
          setting: 'clock',
          line: 'Hold the clock key three seconds; year first, then date, then time.',
        },
        { setting: 'starts', line: 'Start key; the letter key goes from program to program.' },
        { setting: 'runs', line: 'Minutes key; the station number stands on the left.' },
        { setting: 'days', line: 'Days key; the plus key switches a day on, minus off.' },
        { setting: 'percent', line: 'Both arrow keys together; it goes by tens.' },
        { setting: 'mode', line: 'The slide under the flap: up is on.' },
      ],
    },
  };
}

/** What the firm keeps, as of a date. */
export const demoLibrary = (
  on: EpochDay,
): readonly { shelf: Shelf; id: string; document: object }[] => [
  { shelf: 'rules', id: OSTRELLE_RULES_ID, document: ostrelleRules(on) },
  { shelf: 'rules', id: '6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1d02', document: quarrimeadRules },
  { shelf: 'minutes', id: SHIPPED_MINUTES_ID, document: minutes },
  { shelf: 'kinds', ...wallTimer() },
  { shelf: 'kinds', ...KEYPAD_KIND },
  {
    shelf: 'office',
    id: OFFICE_ID,
    document: { ...NO_OFFICE, phone: '555 0100', hours: 'Mon to Fri, 8 to 5' },
  },
];

type Walked = readonly [
  head: HeadType,
  plants: Plants,
  surroundings: Surroundings,
  slopePercent: number,
  areaSquareMetres: number,
  headCount: number,
  group: string,
];

const walk = (soil: SoilType, rows: readonly Walked[]): SurveyStation[] =>
  rows.map(([head, plants, surroundings, slopePercent, areaSquareMetres, headCount, group], i) => ({
    number: i + 1,
    walked: 'seen',
    head,
    plants,
    surroundings,
    soil,
    slopePercent,
    areaSquareMetres,
    headCount,
    group,
  }));

const more = (
  stations: readonly SurveyStation[],
  facts: Readonly<Record<number, Partial<SurveyStation>>>,
): SurveyStation[] => stations.map((station) => ({ ...station, ...facts[station.number] }));

/** A house that is surveyed whole, with cups, a bucket, a few faults and new seed. */
export const FENNIMORE_SURVEY: Survey = {
  school: 'balance',
  season: 'percent',
  rain: 'sensor',
  dryBeforeMowing: false,
  wish: { finishBy: '06:30', days: 'weekdays' },
  device: {
    power: 'mains',
    transformer: '24 V, 1 A, in the box',
    liveTerminals: [1, 2, 3, 4, 5, 6, 7, 8],
    sensors: [{ kind: 'rain', bypass: 'active', note: 'on the carport gutter' }],
    slowValveSeconds: 4,
    changers: ['homeowner'],
    clockShown: '2026-11-20T22:14',
    clockReally: '2026-11-20T10:12',
  },
  stations: more(
    walk('sandy-loam', [
      ['fixed-spray', 'cool-season-lawn', 'full-sun', 2, 58, 7, 'lawn'],
      ['fixed-spray', 'cool-season-lawn', 'part-shade', 1, 24, 4, 'lawn'],
      ['gear-rotor', 'warm-season-lawn', 'full-sun', 4, 130, 3, 'lawn'],
      ['gear-rotor', 'warm-season-lawn', 'full-sun', 7, 142, 3, 'lawn'],
      ['drip', 'trees-and-shrubs', 'hot-wall', 0, 18, 30, 'beds'],
      ['micro-spray', 'trees-and-shrubs', 'part-shade', 0, 35, 9, 'beds'],
      ['drip', 'vegetables-and-fruit', 'full-sun', 0, 22, 44, 'kitchen'],
      ['drip', 'annual-flowers', 'hot-wall', 0, 4, 12, 'pots'],
    ]),
    {
      1: {
        cups: {
          mouthSquareCentimetres: 85,
          minutes: 10,
          millilitres: [62, 58, 44, 51, 66, 49, 31, 55, 60, 47, 38, 57],
          across: 4,
        },
        runOff: { seconds: [640, 590, 612], taken: 'least', safetyPercent: 10 },
        faults: [
          { fault: 'tilted-head', severity: 'soon', note: 'by the letter box' },
          { fault: 'overspray', severity: 'can-wait', note: 'onto the footpath' },
        ],
      },
      3: { flow: { by: 'meter', before: 148_210, after: 148_318, minutes: 4 } },
      4: { faults: [{ fault: 'valve-slow-to-close', severity: 'soon' }] },
      5: {
        drip: { emitterLitresPerHour: 2.3, emitterSpacingMetres: 0.3, rowSpacingMetres: 0.45 },
        note: 'Line lies under the mulch.',
      },
      7: { drip: { emitterLitresPerHour: 2, emitterSpacingMetres: 0.3, rowSpacingMetres: 0.4 } },
      8: {
        overruled: { weeklySeconds: 2520 },
        note: 'Pots dry out by noon in January.',
      },
    },
  ),
};

/** A large garden, walked and measured in part: the new turf along the drive is watered several times a day. */
export const larkholtSurvey = (on: EpochDay): Survey => ({
  school: 'weekly',
  season: 'percent',
  hundredMonth: 1,
  rain: 'delay',
  device: {
    power: 'mains',
    pump: 'bore pump on the pump terminal, relay in the shed',
    masterValve: false,
    tankRefillMinutes: 40,
    slowValveSeconds: 6,
    changers: ['online-service'],
  },
  stations: more(
    walk(
      'clay-loam',
      Array.from({ length: 12 }, (_, i): Walked => [
        i === 2 ? 'fixed-spray' : 'gear-rotor',
        i === 2 ? 'new-seed-or-turf' : 'cool-season-lawn',
        i === 4 ? 'part-shade' : 'full-sun',
        i === 5 || i === 6 ? 14 : 3,
        90 + 10 * i,
        4,
        'lawn',
      ]),
    ),
    {
      3: {
        oftenADay: { times: 3, from: '05:00', to: '21:00', until: formatDate(on + 16) },
        runOff: { seconds: [1280, 1275], taken: 'mean', safetyPercent: 10 },
      },
      6: { runOff: { seconds: [410, 400], taken: 'mean', safetyPercent: 10 } },
      9: { faults: [{ fault: 'sunken-head', severity: 'can-wait' }] },
    },
  ),
});
