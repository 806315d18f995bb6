/** The sightings document: its reader against its schema, refusals by path, and reported events in between. */
import { readFileSync } from 'node:fs';
import { describe, expect, test } from '@jest/globals';
import { Ajv2020 } from 'ajv/dist/2020.js';
import fc from 'fast-check';
import {
  emptyPlan,
  explainReport,
  faultLine,
  readEvents,
  readSightings,
  SHIPPED_KINDS,
  SIGNS,
  type Plan,
  type Sightings,
} from '@water-clock/core';
import { cases } from './cases.ts';

const file = (name: string) =>
  JSON.parse(
    readFileSync(new URL(`../../../docs/spec/${name}`, import.meta.url), 'utf8'),
  ) as object;
const bySchema = new Ajv2020({ strict: false, validateFormats: false })
  .addSchema(file('plan.schema.json'), 'plan.schema.json')
  .compile(file('sightings.schema.json'));

const sound = (...sightings: unknown[]) => ({
  ...{ format: 'water-clock-sightings', version: 1, sightings },
});
const from = '2027-06-10T04:00';

test.each([
  [sound(), 'sightings: '],
  [sound({ saw: 'rain', from }), 'sightings[0].saw: "rain" is not allowed'],
  [sound({ saw: 'ran' }), 'sightings[0].from: this field is missing'],
  [sound({ saw: 'ran', from: '2027-06-31T04:00' }), 'sightings[0].from: '],
  [sound({ saw: 'ran', from, station: 100 }), 'sightings[0].station: 100 is out of range'],
  [sound({ saw: 'ran', from, giveOrTake: 0 }), 'sightings[0].giveOrTake: 0 is out of range'],
  [sound({ saw: 'ran', from, ranAfter: true }), 'sightings[0].ranAfter: '],
  [sound({ saw: 'dry', from, ranBefore: true }), 'sightings[0].ranBefore: '],
  [sound({ saw: 'dry', from, to: '2027-06-09T04:00' }), 'sightings[0].to: this is before'],
  [{ ...sound({ saw: 'ran', from }), signs: ['smoke'] }, 'signs[0]: "smoke" is not allowed'],
  [{ ...sound({ saw: 'ran', from }), clock: { shows: from } }, 'clock.shows: '],
  [{ ...sound({ saw: 'ran', from }), factory: {} }, 'factory.'],
  [{ ...sound({ saw: 'ran', from }), version: 2 }, 'version: version 2 is not supported'],
])('refused by path: %j', (document, line) => {
  const read = readSightings(document);
  expect(read.ok).toBe(false);
  if (!read.ok) expect(read.faults.map(faultLine).join('\n')).toContain(line);
  // Everything except the order of two moments, and month lengths, is also in the schema.
  if (!/before|from: $/u.test(line)) expect(bySchema(document)).toBe(false);
});

test('the reader takes what the schema takes: random documents, some with a field that is wrong', () => {
  const some = <T>(arbitrary: fc.Arbitrary<T>) => fc.option(arbitrary, { nil: undefined });
  const sighting = fc
    .record({
      saw: fc.constantFrom('ran', 'dry', 'wet'),
      from: fc.constantFrom(from, '2027-06-10T24:00', 7),
      to: some(fc.constantFrom('2027-06-11T04:00')),
      station: some(fc.integer({ min: 0, max: 100 })),
      minutes: some(fc.integer({ min: 0, max: 1441 })),
      giveOrTake: some(fc.integer({ min: 0, max: 241 })),
      times: some(fc.constantFrom(1, 99, 2.5)),
      ranBefore: some(fc.boolean()),
      odd: fc.oneof({ weight: 9, arbitrary: fc.constant(undefined) }, fc.constant(1)),
    })
    .map((one) => JSON.parse(JSON.stringify(one)) as object);
  const document = fc
    .record({
      format: fc.constant('water-clock-sightings'),
      version: fc.constant(1),
      sightings: fc.array(sighting, { minLength: 1, maxLength: 2 }),
      signs: some(fc.array(fc.constantFrom(...SIGNS), { maxLength: 2 })),
    })
    .map((one) => JSON.parse(JSON.stringify(one)) as object);
  let taken = 0;
  fc.assert(
    fc.property(document, (one) => {
      const { ok } = readSightings(one);
      expect(ok).toBe(bySchema(one));
      if (ok) taken += 1;
    }),
    { seed: 20, numRuns: cases(1500) },
  );
  expect(taken).toBeGreaterThan(20);
});

describe('what was done in between', () => {
  const timer = SHIPPED_KINDS.find(({ kind }) => kind.timer.name.startsWith('Eight-station'))?.kind
    .timer;
  if (!timer) throw new Error('no such kind');
  const planWith = (powerLoss: Plan['timer']['powerLoss']): Plan => ({
    ...emptyPlan({ ...timer, ...(powerLoss ? { powerLoss } : {}) }),
    programs: [
      {
        ...{ letter: 'A', starts: ['04:00'], days: { rule: 'daily' } },
        runs: [1, 2, 3].map((station) => ({ station, seconds: 1200 })),
      },
    ],
  });
  const report = (plan: Plan, ...sightings: Sightings['sightings']) =>
    explainReport(plan, {
      ...{ format: 'water-clock-sightings', version: 1, sightings },
      clock: { shows: '2027-06-15T10:00:00', is: '2027-06-15T10:00:00' },
    }).explanations;

  test('a station started by hand in the middle ends the cycle, and the rest of it stays dry', () => {
    const found = report(
      planWith({ clock: 'kept' }),
      { saw: 'ran', from: '2027-06-10T04:05', station: 7, minutes: 5 },
      { saw: 'ran', from: '2027-06-10T04:00', station: 1, minutes: 5 },
      { saw: 'dry', from: '2027-06-10T04:12', to: '2027-06-10T23:00', station: 2 },
      { saw: 'ran', from: '2027-06-11T04:00', station: 1, minutes: 20 },
    );
    expect(found[0]?.causes).toMatchObject([{ type: 'manual', station: 7 }]);
    expect(found[0]?.fits).toEqual(['fits', 'fits', 'fits', 'fits']);
    // They can be simulated as they are.
    const events = { format: 'water-clock-events', version: 1, events: found[0]?.events };
    expect(readEvents(events).ok).toBe(true);
    expect(events.events).toHaveLength(1);
  });

  test('a clock that stood still while the power was out is late from then on, and not before', () => {
    const late = explainReport(planWith({ clock: 'stops' }), {
      ...{ format: 'water-clock-sightings', version: 1 },
      sightings: [
        { saw: 'ran', from: '2027-06-09T04:00', station: 1, minutes: 20 },
        { saw: 'ran', from: '2027-06-12T06:30', station: 1, minutes: 20 },
      ],
      clock: { shows: '2027-06-15T07:30:00', is: '2027-06-15T10:00:00' },
    }).explanations;
    expect(late[0]?.causes).toMatchObject([{ type: 'outage' }]);
    expect(late[0]?.fits).toEqual(['fits', 'fits']);
  });

  test('a percent that somebody raised between two nights', () => {
    const found = report(
      planWith({ clock: 'kept' }),
      { saw: 'ran', from: '2027-06-09T04:00', station: 1, minutes: 20 },
      { saw: 'ran', from: '2027-06-12T04:00', station: 1, minutes: 30 },
      { saw: 'ran', from: '2027-06-12T04:30', station: 2, minutes: 30 },
    );
    expect(found[0]?.causes).toMatchObject([{ type: 'percent-changed', before: 100, after: 150 }]);
  });
});
