/** The true cause is found from three sightings: random gardens, random single and double faults. */
import { describe, expect, test } from '@jest/globals';
import {
  askNext,
  emptyPlan,
  explain,
  SHIPPED_KINDS,
  type Explanation,
  type OnOverlap,
  type Plan,
  type Sighting,
  type Cause,
} from '@water-clock/core';
import {
  deedFrom,
  gardenFrom,
  oneIsEnough,
  randomFrom,
  slipsFrom,
  TODAY,
  type Garden,
} from './faultyTimers.ts';
import { fewCases } from './cases.ts';
import { answerTo, happens, lookAlike, namesSame, sightingsFrom } from './watched.ts';

/** More with DIAGNOSES=200, other gardens with FIRST_SEED; results are in docs/visits.md. */
const CASES = Number(process.env['DIAGNOSES'] ?? fewCases(20));
const FIRST_SEED = Number(process.env['FIRST_SEED'] ?? 1);

/** Whether an explanation, or a variant decided by the same check, is what happened. */
function isTrue(
  { or, causes: first }: Explanation,
  truth: readonly Cause[],
  garden: Garden,
): boolean {
  return [first, ...or.map(({ causes: slips }) => slips)].some((slips) => {
    const named =
      slips.length === truth.length &&
      truth.every((slip) => slips.some((cause) => namesSame(slip, cause)));
    return named || lookAlike(happens(garden, slips), happens(garden, truth));
  });
}

interface Kind {
  /** Number of faults at once. */
  readonly count: 1 | 2;
  /** Whether the clock was checked first. */
  readonly looked: boolean;
  /** Further questions the homeowner answers. */
  readonly asked: number;
  /** How many in a hundred must be among the first three. */
  readonly least: number;
}

const KINDS: readonly Kind[] = [
  { count: 1, looked: false, asked: 0, least: 95 },
  { count: 2, looked: false, asked: 0, least: 95 },
  { count: 2, looked: true, asked: 1, least: 95 },
];

const clockOf = (slips: readonly Cause[]): number =>
  slips.reduce((ahead, slip) => ('ahead' in slip ? slip.ahead : ahead), 0);

test.each(KINDS)(
  '$count wrong, clock looked at: $looked, asked: $asked; $least of 100 are told among three',
  ({ count, looked, asked, least }) => {
    const missed: string[] = [];
    let first = 0;
    let headlines = 0;
    let tried = 0;
    for (let seed = FIRST_SEED; tried < CASES; seed++) {
      const random = randomFrom(seed * 7919 + count);
      const garden = gardenFrom(random);
      const truth = slipsFrom(random, garden, count);
      const sightings = truth && sightingsFrom(random, garden, truth);
      if (!sightings) continue;
      const known = looked ? truth.filter(({ type }) => type === 'clock') : [];
      if (count === 2 && oneIsEnough(garden, sightings, known)) continue;
      tried += 1;
      const { plan, factory } = garden;
      const ahead = looked ? clockOf(truth) : null;
      const question = { plan, signs: [], ahead, factory };
      for (let n = 0; n < asked; n++) {
        const ask = askNext(
          explain({ ...question, sightings }),
          plan.stations.map(({ number }) => number),
          // Sightings end at midnight, in the middle of the last night, so no one can answer for that one.
          (TODAY - 1) * 86_400,
        );
        if (ask) sightings.push(answerTo(ask, happens(garden, truth)));
      }
      const answers = explain({ ...question, sightings });
      const at = answers.findIndex((explanation) => isTrue(explanation, truth, garden));
      if (at === 0) first += 1;
      if (
        answers.slice(0, 3).some((explanation) => isTrue({ ...explanation, or: [] }, truth, garden))
      )
        headlines += 1;
      if (at < 0 || at > 2)
        missed.push(
          JSON.stringify({
            seed,
            at,
            truth,
            sightings,
            told: answers.slice(0, 3).map((explanation) => explanation.causes),
          }),
        );
    }
    const within = ((tried - missed.length) * 100) / tried;
    if (process.env['DIAGNOSES'])
      process.stdout.write(
        `${count} ${looked} ${asked}: first ${first}, in three ${within} %, without variants ${headlines}\n${missed.join('\n')}\n`,
      );
    expect({ within: Math.max(least, within), missed: within < least ? missed : [] }).toEqual({
      within,
      missed: [],
    });
  },
);

/** What a power cut does to a timer's clock. */
const LOSSES: readonly NonNullable<Plan['timer']['powerLoss']>[] = [
  { clock: 'kept', settings: 'kept' },
  { clock: 'stops', settings: 'kept' },
  { clock: 'resets', settings: 'kept' },
];

test('what people and power did in between is told among three, with all that followed from it, 90 of 100', () => {
  const missed: string[] = [];
  let [tried, first] = [0, 0];
  for (let seed = FIRST_SEED; tried < CASES; seed++) {
    const random = randomFrom(seed * 104_729);
    const made = gardenFrom(random);
    const powerLoss = LOSSES[seed % LOSSES.length];
    const timer = { ...made.plan.timer, ...(powerLoss ? { powerLoss } : {}) };
    const clockAfterReset = '2027-01-01T00:00';
    const garden = { ...made, plan: { ...made.plan, timer: { ...timer, clockAfterReset } } };
    const deed = deedFrom(random, garden);
    const sightings = deed && sightingsFrom(random, garden, [deed], { tellingEach: 2, count: 5 });
    // One dry bed may have a hundred causes: only what no single wrong setting explains can be told.
    if (!sightings || oneIsEnough(garden, sightings, [])) continue;
    tried += 1;
    const question = { plan: garden.plan, signs: [], ahead: null, factory: garden.factory };
    const answers = explain({ ...question, sightings });
    const at = answers.findIndex((explanation) => isTrue(explanation, [deed], garden));
    if (at === 0) first += 1;
    if (at < 0 || at > 2)
      missed.push(JSON.stringify({ seed, at, deed, sightings, told: answers[0]?.causes }));
  }
  const within = ((tried - missed.length) * 100) / tried;
  if (process.env['DIAGNOSES'])
    process.stdout.write(
      `done: first ${first} of ${tried}, in three ${within} %\n${missed.join('\n')}\n`,
    );
  expect({ within: Math.max(90, within), missed: within < 90 ? missed : [] }).toEqual({
    within,
    missed: [],
  });
});

describe('what is asked and told', () => {
  test('nothing seen, nothing told', () => {
    const { plan, factory } = gardenFrom(randomFrom(1));
    expect(explain({ plan, sightings: [], signs: [], ahead: null, factory })).toEqual([]);
  });

  test('a sign on the box speaks for what it stands for', () => {
    const random = randomFrom(5);
    const garden = gardenFrom(random);
    const { plan, factory } = garden;
    const [run] = plan.programs[0]?.runs ?? [];
    const span = { from: '2027-06-05T12:00', to: '2027-06-14T12:00' };
    const sightings = [{ saw: 'dry' as const, ...span, station: run?.station ?? 1 }];
    const told = (signs: readonly 'station-error'[]) =>
      explain({ plan, sightings, signs, ahead: 0, factory }).map(
        ({ causes: slips }) => slips[0]?.type,
      );
    expect(told([])[0]).not.toBe('dead-station');
    expect(told(['station-error'])[0]).toBe('dead-station');
  });

  /** Two stations, each in its own program, on nights a week apart (noon to noon), and what is reported of them. */
  const kindOf = (onOverlap: OnOverlap) =>
    SHIPPED_KINDS.find(
      ({ kind: { timer } }) => timer.onOverlap === onOverlap && timer.stationCount >= 4,
    )?.kind.timer;
  const gardenOf = (onOverlap: OnOverlap, sensor: 'active' | 'bypass' = 'active'): Plan => {
    const shipped = kindOf(onOverlap) ?? kindOf('share');
    const timer = shipped && { ...shipped, onOverlap };
    if (!timer) throw new Error(`no kind that answers an overlap with ${onOverlap}`);
    const program = (letter: string, start: string, stations: readonly number[]) => ({
      letter,
      starts: [start],
      runs: stations.map((station) => ({ station, seconds: 1200 })),
      days: { rule: 'daily' as const },
    });
    const empty = emptyPlan(timer);
    return {
      ...empty,
      settings: { ...empty.settings, sensor },
      programs: [program('A', '04:00', [1, 2]), program('B', '04:40', [3, 4])],
    };
  };
  const told = (plan: Plan, ahead: number | null, ...sightings: Sighting[]) =>
    explain({ plan, sightings, signs: [], ahead, factory: null });
  const all = (explanations: readonly Explanation[]) =>
    explanations.flatMap(({ causes: slips, or }) => [
      ...slips,
      ...or.flatMap((variant) => variant.causes),
    ]);

  test('where all agrees with what is set, nothing else is told', () => {
    const seen = { saw: 'ran' as const, from: '2027-06-10T04:00', station: 1, minutes: 20 };
    expect(told(gardenOf('queue'), null, seen).map(({ causes: slips }) => slips)).toEqual([[]]);
  });

  test('twelve hours out is one explanation: the clock first, and the start as its variant', () => {
    const seen = { saw: 'ran' as const, from: '2027-06-10T16:00', station: 1, minutes: 20 };
    const [first] = told(gardenOf('queue'), null, seen);
    expect(first?.causes).toEqual([{ type: 'clock', ahead: expect.any(Number) }]);
    expect(Math.abs(first?.world.ahead ?? 0)).toBe(43_200);
    expect(first?.or.map(({ causes: slips }) => slips)).toContainEqual([
      { type: 'other-start', program: 'A', start: '04:00', to: '16:00' },
    ]);
    // If the clock was checked, it is the start.
    const [known] = told(gardenOf('queue'), 0, seen);
    expect(known?.causes.map(({ type }) => type)).toEqual(['other-start']);
  });

  test.each([
    ['active', true],
    ['bypass', false],
  ] as const)('a sensor on %s is thought of: %s', (sensor, isThoughtOf) => {
    const dry = { saw: 'dry' as const, from: '2027-06-08T12:00', to: '2027-06-11T12:00' };
    const slips = all(
      told(gardenOf('queue', sensor), 0, { ...dry, station: 1 }, { ...dry, station: 3 }),
    );
    expect(slips.some(({ type }) => type === 'sensor')).toBe(isThoughtOf);
    expect(slips.some(({ type }) => type === 'rain-delay')).toBe(true);
  });

  test('a run that holds another program up is found only where the timer lets it wait', () => {
    const late = { saw: 'ran' as const, from: '2027-06-10T05:00', station: 3, minutes: 20 };
    const holding = (onOverlap: OnOverlap) =>
      all(told(gardenOf(onOverlap), 0, late)).filter(
        (slip) => slip.type === 'run' && slip.program === 'A',
      );
    expect(holding('queue')).toContainEqual({
      type: 'run',
      program: 'A',
      station: 2,
      seconds: 2400,
    });
    expect(holding('together')).toEqual([]);
  });

  test('the cycle that cut a run short is told by the start at which it was cut', () => {
    const cut = { saw: 'ran' as const, from: '2027-06-10T04:00', station: 1, minutes: 15 };
    expect(all(told(gardenOf('cut'), 0, cut))).toContainEqual(
      expect.objectContaining({ type: 'extra-start', start: '04:15' }),
    );
  });

  test('somebody who watered by hand at an unknown place did not water the bed that is dry', () => {
    const plan = gardenOf('queue');
    const explanations = told(
      plan,
      0,
      { saw: 'ran', from: '2027-06-10T15:20' },
      { saw: 'dry', from: '2027-06-05T00:00', to: '2027-06-14T00:00', station: 1 },
      { saw: 'dry', from: '2027-06-05T00:00', to: '2027-06-14T00:00', station: 2 },
      { saw: 'ran', from: '2027-06-09T04:40', station: 3, minutes: 20 },
    );
    const byHand = explanations.find(({ causes: slips }) =>
      slips.some(({ type }) => type === 'manual'),
    );
    expect(byHand?.causes.map(({ type }) => type).sort()).toEqual(['half-set', 'manual']);
    expect(byHand?.fits).toEqual([0, 0, 0, 0]);
  });
});
