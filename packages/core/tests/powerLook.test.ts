/** A timer after a power cut: the right question first, by kind, and what stays unknown. */
import { describe, expect, test } from '@jest/globals';
import {
  emptyPlan,
  factoryPlan,
  phasesAfterLoss,
  powerAsks,
  powerAskWords,
  powerCameBack,
  SHIPPED_KINDS,
  unknownPhases,
  parseMoment,
  type FirstShown,
  type Plan,
  type Survey,
} from '@water-clock/core';

const kindOf = (name: string) => {
  const found = SHIPPED_KINDS.find(({ kind }) => kind.timer.name.startsWith(name));
  if (!found) throw new Error(name);
  return found.kind;
};
const BATTERY = kindOf('Two-station battery');
const interval = { rule: 'interval', everyDays: 3, firstDate: '2027-06-01' } as const;
const planOf = (kind: typeof BATTERY, powerLoss = kind.timer.powerLoss): Plan => {
  const { powerLoss: _, ...timer } = kind.timer;
  return {
    ...emptyPlan({ ...timer, ...(powerLoss ? { powerLoss } : {}) }),
    programs: [
      { letter: 'A', starts: ['05:00'], runs: [{ station: 1, seconds: 600 }], days: interval },
    ],
  };
};
const surveyWith = (display: FirstShown | undefined, more: Partial<Survey> = {}): Survey => ({
  stations: [],
  visit: { began: '2027-06-10T09:00', ...(display ? { display } : {}) },
  ...more,
});
const asked = (plan: Plan, survey: Survey) =>
  powerAsks(plan, survey, factoryPlan(plan, BATTERY), null).map(({ what }) => what);

describe('what is asked', () => {
  const plan = planOf(BATTERY);

  test('nothing where the clock is steady, or nobody has looked', () => {
    expect(asked(plan, surveyWith(undefined))).toEqual([]);
    expect(asked(plan, surveyWith('steady'))).toEqual([]);
  });

  test.each([
    ['flashing', 'resets', 'factory', ['clock', 'factory', 'phases', 'battery']],
    ['blank', 'resets', 'factory', ['supply', 'clock', 'factory', 'phases', 'battery']],
    ['flashing', 'stops', 'kept', ['clock', 'phases', 'battery']],
    ['flashing', 'kept', 'kept', ['clock', 'battery']],
  ] as const)('%s, the clock %s, the settings %s: %j', (display, clock, settings, expected) => {
    expect(asked(planOf(BATTERY, { clock, settings }), surveyWith(display))).toEqual(expected);
  });

  test('what is answered is done, and a factory program has no intervals of ours', () => {
    const answered = surveyWith('flashing');
    const survey: Survey = {
      ...answered,
      ...{ device: { clockShown: '2020-01-01T03:00', clockReally: '2027-06-10T09:05' } },
      ...(answered.visit ? { visit: { ...answered.visit, factoryBack: true } } : {}),
    };
    const asks = powerAsks(plan, survey, factoryPlan(plan, BATTERY), null);
    expect(asks.map(({ what }) => what)).toEqual(['clock', 'factory', 'battery']);
    expect(asks.every((ask) => !('isDone' in ask) || ask.isDone)).toBe(true);
    // The clock of an earlier visit says nothing about this one.
    const old = { clockShown: '2020-01-01T03:00', clockReally: '2027-05-01T09:05' };
    expect(powerAsks(plan, { ...survey, device: old }, null, null)[0]).toMatchObject({
      isDone: false,
    });
  });
});

test('a timer on a battery alone has no outlet and no backup battery', () => {
  const plan = planOf(BATTERY);
  const asks = powerAsks(plan, surveyWith('blank'), null, 'battery');
  expect(asks.map(({ what }) => what)).not.toContain('battery');
  const [supply] = asks;
  expect(supply && powerAskWords(supply, { plan, on: 20_984, clock: '12' }).question).toBe(
    'Is the battery good? Try a new one.',
  );
});

test('a clock that began again tells when the power came back, unless that is long ago or it was set since', () => {
  const plan = planOf(BATTERY);
  const at = (clockShown: string) =>
    powerCameBack(
      plan,
      surveyWith('flashing', { device: { clockShown, clockReally: '2027-06-10T09:05' } }),
    );
  expect(at('2020-01-01T03:47')).toBe(parseMoment('2027-06-10T05:18'));
  expect(at('2020-05-01T03:47')).toBeNull();
  expect(at('2019-12-31T23:59')).toBeNull();
  expect(powerCameBack(planOf(BATTERY, { clock: 'stops' }), { stations: [] })).toBeNull();
});

test('the intervals that nobody knows then are those of which the verdict is for any phase', () => {
  const plan = planOf(BATTERY);
  const phases = phasesAfterLoss(plan);
  expect(
    unknownPhases(plan, { stations: [], ...(phases ? { unknownPhases: phases } : {}) }),
  ).toEqual(['A']);
  expect(phasesAfterLoss(planOf(BATTERY, { clock: 'kept' }))).toBeNull();
});

test('every question in words', () => {
  const plan = planOf(BATTERY);
  const speech = { plan, on: 20_984, clock: '12' } as const;
  const device = { clockShown: '2020-01-01T03:47', clockReally: '2027-06-10T09:05' };
  const all = [
    ...powerAsks(plan, surveyWith('blank'), factoryPlan(plan, BATTERY), null),
    ...powerAsks(plan, surveyWith('flashing', { device }), null, null).slice(0, 1),
    ...(['kept', 'stops'] as const).flatMap((clock) =>
      powerAsks(planOf(BATTERY, { clock }), surveyWith('flashing'), null, null).slice(0, 1),
    ),
  ];
  expect(all.map((ask) => Object.values(powerAskWords(ask, speech)).join(' ')))
    .toMatchInlineSnapshot(`
   [
     "Is there power? Check the outlet, its switch, the adapter and the battery. Mains wiring is for a licensed electrician. Follow the local code.",
     "Read the clock before anyone sets it: the time, the date, am or pm. This timer’s clock restarts when the power comes back, so it shows when that was.",
     "Is it running its factory program? Every program would be empty.",
     "Read the days left for program A, or type ? if they cannot be read. Intervals count by the clock. Until they are read, the verdict covers every day they may water.",
     "Test the backup battery: unplug the timer for a minute and watch the clock. A good battery would have kept the clock.",
     "Read the clock before anyone sets it: the time, the date, am or pm. By its clock, the power came back Thu 10 June, 5:18 am.",
     "Read the clock before anyone sets it: the time, the date, am or pm. This timer keeps its clock without power. If it flashes, it was never set or its battery is flat.",
     "Read the clock before anyone sets it: the time, the date, am or pm. This timer’s clock stops without power, so it is slow by as long as the power was out.",
   ]
  `);
});
