/** A house that somebody called about: "it comes on in the afternoon"; with the visit before, when all was well. */
import {
  emptyPlan,
  EMPTY_SURVEY,
  formatDate,
  SHIPPED_KINDS,
  type ClosedVisit,
  type EpochDay,
  type Plan,
  type Survey,
  type TimerKind,
} from '@water-clock/core';

const KEYPAD = 'Six-station keypad timer';

const shipped = SHIPPED_KINDS.find(({ kind }) => kind.timer.name === KEYPAD);
if (!shipped) throw new Error(`no timer kind ${KEYPAD}`);

/** The office's own notes on this kind: how one reaches a setting. */
export const KEYPAD_KIND: { readonly id: string; readonly document: TimerKind } = {
  id: shipped.id,
  document: {
    ...shipped.kind,
    reach: [
      { setting: 'clock', line: 'From the resting screen: the key with the clock face.' },
      {
        setting: 'starts',
        line: 'The digit of the program, then S; once more S for the next start.',
      },
      { setting: 'runs', line: 'The digit of the program, then the digit of the station, then M.' },
      { setting: 'days', line: 'The digit of the program, then D, then the digits of the days.' },
      { setting: 'percent', line: 'The key with the percent sign, from the resting screen only.' },
    ],
  },
};

const stations = ['Front lawn', 'Back lawn', 'Side strip', 'Rose bed', 'Herb pots', 'Hedge'].map(
  (name, i) => ({ number: i + 1, name, ...(i >= 3 ? { overhead: false } : {}) }),
);

const planWith = (afternoon: readonly string[]): Plan => ({
  ...emptyPlan(shipped.kind.timer),
  stations,
  settings: { sensor: 'none' },
  programs: [
    {
      letter: 'A',
      starts: ['05:00'],
      runs: [
        { station: 1, seconds: 720 },
        { station: 3, seconds: 480 },
        { station: 4, seconds: 1200 },
      ],
      days: { rule: 'weekdays', weekdays: ['mon', 'wed', 'fri'] },
    },
    {
      letter: 'B',
      starts: ['04:40', ...afternoon],
      runs: [
        { station: 2, seconds: 1200 },
        { station: 5, seconds: 240 },
        { station: 6, seconds: 900 },
      ],
      days: { rule: 'weekdays', weekdays: ['tue', 'thu', 'sat'] },
    },
  ],
});

/** As it is in the box today: somebody has set a second start. */
export const THISTLE_PLAN = planWith(['15:10']);

const SPRING_VISIT_DAYS_AGO = 150;

export const thistleSurvey = (on: EpochDay): Survey => ({
  ...EMPTY_SURVEY,
  rain: 'delay',
  // What each needs in a week nobody has worked out here; what flows was measured once.
  stations: [
    { number: 1, flow: { by: 'meter', before: 120_100, after: 120_190, minutes: 3 } },
    { number: 2, flow: { by: 'meter', before: 120_400, after: 120_538, minutes: 3 } },
    { number: 3, flow: { by: 'timer', litresPerMinute: 14 } },
    { number: 4, flow: { by: 'bucket', litres: 3, seconds: 60 } },
    { number: 5, flow: { by: 'bucket', litres: 1, seconds: 60 } },
    { number: 6, flow: { by: 'bucket', litres: 4, seconds: 60 } },
  ],
  wish: { starts: 'one' },
  device: { power: 'adapter' },
  next: [{ date: formatDate(on + 40), reason: 'percent', note: 'down from the summer' }],
  tariff: {
    currency: 'Kr',
    periodDays: 91,
    steps: [{ upToLitres: 30_000, perCubicMetre: 2.2 }, { perCubicMetre: 3.6 }],
    houseLitres: 26_000,
  },
});

/** The logbook of the house. */
export function thistleVisits(on: EpochDay): readonly ClosedVisit[] {
  const day = formatDate(on - SPRING_VISIT_DAYS_AGO);
  const plan = planWith([]);
  const [a, b] = plan.programs;
  const before: Plan = {
    ...plan,
    programs: [...(a ? [{ ...a, starts: ['06:20'] }] : []), ...(b ? [b] : [])],
  };
  return [
    {
      began: `${day}T09:10`,
      closed: `${day}T09:55`,
      asFound: { at: `${day}T09:15`, plan: before, hidden: 'none-found' },
      asLeft: { at: `${day}T09:50`, plan },
      done: 'Program 1 moved to an earlier hour; two heads of the front lawn set straight.',
      minutesSpent: 45,
      next: [],
      faults: [{ station: 1, fault: 'tilted-head', open: false }],
    },
  ];
}
