/** What would have been seen, and run times that would explain it: the parts below the diagnosis. */
import { describe, expect, test } from '@jest/globals';
import { parseDate, simulate, type Plan, type Sighting } from '@water-clock/core';
import { asNoted, withCause } from '../src/diagnose/causes.ts';
import { runCauses } from '../src/diagnose/runCauses.ts';
import { cyclesOf, firstFrom, misfitOf, seenOf, Timeline, MISS } from '../src/diagnose/timeline.ts';
import { formatMoment } from '../src/time/calendar.ts';
import { gardenFrom, randomFrom } from './faultyTimers.ts';

const TODAY = parseDate('2027-06-09') ?? 0;
const DAY = 86_400;
const FROM = TODAY * DAY;
const TO = (TODAY + 6) * DAY;
const gardens = Array.from({ length: 12 }, (_, seed) => gardenFrom(randomFrom(seed + 1)).plan);
const timelineOf = (plan: Plan) => new Timeline(asNoted(plan, 0), FROM, TO);

describe('the timeline', () => {
  test('holds the runs of the simulation, and finds those that touch a span', () => {
    for (const plan of gardens) {
      const timeline = timelineOf(plan);
      const all = simulate(plan, TODAY - 1, 9).runs;
      for (let hour = 0; hour < 24; hour += 3)
        for (const station of [null, ...plan.stations.slice(0, 3).map(({ number }) => number)]) {
          const [from, to] = [FROM + hour * 3600, FROM + hour * 3600 + 5000];
          const plain = all.filter(
            (run) => run.on < to && run.off > from && (station === null || run.station === station),
          );
          expect(timeline.within(station, from, to).map(({ on }) => on)).toEqual(
            plain.map(({ on }) => on),
          );
        }
    }
  });

  test('the first run from a moment on, by looking at each', () => {
    for (const plan of gardens.slice(0, 4)) {
      const { runs } = timelineOf(plan);
      for (let moment = FROM; moment < TO; moment += 7919)
        expect(firstFrom(runs, moment)).toBe(
          runs.findIndex(({ on }) => on >= moment) < 0
            ? runs.length
            : runs.findIndex(({ on }) => on >= moment),
        );
    }
  });

  test('the cycle of a run begins no later and ends no sooner than any run of it', () => {
    for (const plan of gardens) {
      const timeline = timelineOf(plan);
      const run = timeline.runs[Math.floor(timeline.runs.length / 2)];
      if (!run) continue;
      const [span] = cyclesOf([run], timeline);
      const own = timeline.runs.filter(({ cycle }) => cycle === run.cycle);
      expect(span).toEqual({
        from: Math.min(...own.map(({ on }) => on)),
        to: Math.max(...own.map(({ off }) => off)),
      });
    }
  });

  test('a station that is dead is not in it', () => {
    const [plan] = gardens;
    const number = plan?.programs[0]?.runs[0]?.station;
    if (!plan || number === undefined) throw new Error('no run');
    const world = withCause(asNoted(plan, 0), { type: 'dead-station', station: number }, null);
    expect(new Timeline(world, FROM, TO).of(number)).toEqual([]);
    expect(timelineOf(plan).of(number).length).toBeGreaterThan(0);
  });
});

/** A sighting of the timer's own run, some minutes after it began. */
function sightingOf(
  plan: Plan,
  nth: number,
  minutesLater = 0,
): { sighting: Sighting; station: number } {
  const run = timelineOf(plan).runs.filter(({ on }) => on >= FROM)[nth];
  if (!run || run.station === null) throw new Error('no such run');
  return {
    station: run.station,
    sighting: {
      saw: 'ran',
      from: formatMoment(run.on + minutesLater * 60).slice(0, 16),
      station: run.station,
      minutes: Math.round((run.off - run.on) / 60),
    },
  };
}

describe('how well a sighting fits', () => {
  test('what the timer does costs little or nothing; the further off, the more, up to a miss', () => {
    for (const plan of gardens.slice(0, 6)) {
      const timeline = timelineOf(plan);
      const costs = [0, 5, 20, 300].map((minutes) =>
        misfitOf(seenOf(sightingOf(plan, 4, minutes).sighting), timeline, asNoted(plan, 0)),
      );
      expect(costs[0]).toBeLessThan(2);
      expect(costs[3]).toBeLessThanOrEqual(2 * MISS);
      expect(Math.max(...costs)).toBeGreaterThan(costs[0] ?? 0);
    }
  });
});

describe('run times that would explain what was seen', () => {
  const [plan] = gardens;
  const program = plan?.programs.find(({ runs }) => runs.length > 0);
  if (!plan || !program) throw new Error('no program');
  const causesOf = (sightings: readonly Sighting[]) =>
    runCauses(asNoted(plan, 0), sightings.map(seenOf), timelineOf(plan), plan.programs);

  test('a station that ran for longer than it is set to: that long, in each program that runs it', () => {
    const { sighting, station } = sightingOf(plan, 2);
    const causes = causesOf([{ ...sighting, minutes: 47 }]);
    const own = causes.filter((cause) => cause.type === 'run' && cause.station === station);
    expect(own.length).toBeGreaterThan(0);
    for (const cause of own)
      if (cause.type === 'run') {
        expect(plan.programs.some(({ letter }) => letter === cause.program)).toBe(true);
        expect(cause.seconds % plan.timer.runStepSeconds).toBe(0);
        expect(cause.seconds).toBeLessThanOrEqual(plan.timer.longestRunSeconds);
      }
  });

  test('a station that stayed dry: no run at all', () => {
    const { station, sighting } = sightingOf(plan, 2);
    const causes = causesOf([
      {
        saw: 'dry',
        from: sighting.from,
        to: formatMoment(FROM + 2 * DAY).slice(0, 16),
        station,
      },
    ]);
    expect(causes).toContainEqual(expect.objectContaining({ type: 'run', station, seconds: 0 }));
  });

  test('the same is told once, and what is as it is set is no cause', () => {
    const { sighting } = sightingOf(plan, 2);
    const twice = causesOf([sighting, sighting]);
    expect(new Set(twice.map((cause) => JSON.stringify(cause))).size).toBe(twice.length);
    for (const cause of twice)
      if (cause.type === 'run') {
        const set = plan.programs
          .find(({ letter }) => letter === cause.program)
          ?.runs.find(({ station }) => station === cause.station)?.seconds;
        expect(cause.seconds).not.toBe(set);
      }
  });
});
