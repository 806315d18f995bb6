/** The events document: its reader against its schema, and refusals by path. */
import { readFileSync } from 'node:fs';
import { describe, expect, test } from '@jest/globals';
import { Ajv2020 } from 'ajv/dist/2020.js';
import fc from 'fast-check';
import {
  emptyPlan,
  epochDayOf,
  faultLine,
  readEvents,
  simulateEvents,
  TIMER_KINDS,
  type Events,
} from '@water-clock/core';
import { cases, enough } from './cases.ts';

const schema = new URL('../../../docs/spec/events.schema.json', import.meta.url);
const bySchema = new Ajv2020({ strict: false }).compile(
  JSON.parse(readFileSync(schema, 'utf8')) as object,
);

const sound = (...events: unknown[]) => ({ format: 'water-clock-events', version: 1, events });
const at = '2027-03-01T05:00:00';

const lines = (document: unknown) => {
  const read = readEvents(document);
  return read.ok ? [] : read.faults.map(faultLine);
};

test.each([
  [sound({ at, do: 'dance' }), 'events[0].do: "dance" is not allowed'],
  [sound({ at, do: 'wet', by: 'rain' }), 'events[0].by: there is no field with this name'],
  [sound({ at: '2027-03-01T05:00', do: 'wet' }), 'events[0].at: "2027-03-01T05:00" is not'],
  [sound({ at: '2027-02-30T05:00:00', do: 'wet' }), 'events[0].at: '],
  [sound({ at, do: 'manual' }), 'events[0].seconds: this field is missing'],
  [sound({ at, do: 'manual', station: 3 }), 'events[0].seconds: this field is missing'],
  [sound({ at, do: 'manual', program: 'A', seconds: 5 }), 'events[0].seconds: there is no field'],
  [sound({ at, do: 'manual', station: 0, seconds: 5 }), 'events[0].station: 0 is out of range'],
  [sound({ at, do: 'manual', seconds: 1.5 }), 'events[0].seconds: found a number'],
  [sound({ at, do: 'rainDelay', hours: 4801 }), 'events[0].hours: 4801 is out of range'],
  [sound({ at, do: 'percent', to: -1 }), 'events[0].to: -1 is out of range'],
  [sound({ at, do: 'sensor', to: 'none' }), 'events[0].to: "none" is not allowed'],
  [sound({ at, do: 'clock', to: '05:00' }), 'events[0].to: "05:00" is not a moment'],
  [
    sound({ at, do: 'wet' }, { at: '2027-03-01T04:59:59', do: 'dry' }),
    'events[1].at: this is before the event above it, at 2027-03-01T05:00:00',
  ],
  [{ ...sound(), version: 2 }, 'version: version 2 is not supported'],
  [{ ...sound(), format: 'water-clock-plan' }, 'format: "water-clock-plan" is not allowed'],
])('refused by path: %j', (document, line) => {
  expect(lines(document)).toEqual([expect.stringContaining(line)]);
});

describe('events that a simulation cannot have', () => {
  const kind = TIMER_KINDS[0];
  if (!kind) throw new Error('no kind of timer ships');
  const from = epochDayOf({ year: 2027, month: 3, day: 1 });
  const refused = (timer: object, ...events: Events['events']) => {
    const plan = emptyPlan(kind);
    const simulated = simulateEvents({ ...plan, timer: { ...plan.timer, ...timer } }, from, 2, {
      ...{ format: 'water-clock-events', version: 1, events },
    });
    return simulated.ok ? [] : simulated.faults.map(faultLine);
  };

  test('before the first day and after the last', () => {
    expect(
      refused(
        {},
        { at: '2027-02-28T23:59:59', do: 'wet' },
        { at: '2027-03-02T23:59:59', do: 'dry' },
        { at: '2027-03-03T00:00:00', do: 'wet' },
      ),
    ).toEqual([
      'events[0].at: this moment is outside the simulation; allowed: 2027-03-01T00:00:00 to 2027-03-02T23:59:59',
      'events[2].at: this moment is outside the simulation; allowed: 2027-03-01T00:00:00 to 2027-03-02T23:59:59',
    ]);
  });

  test('loss of power on a timer whose plan does not hold its factory settings', () => {
    expect(
      refused({ powerLoss: { settings: 'factory' } }, { at, do: 'stop' }, { at, do: 'powerOff' }),
    ).toEqual([expect.stringMatching(/^events\[1\]\.do: .*factory settings/)]);
  });
});

const SOUND: readonly Record<string, unknown>[] = [
  { at, do: 'manual', station: 3, seconds: 600 },
  { at, do: 'manual', program: 'B' },
  { at, do: 'manual', seconds: 0 },
  { at, do: 'stop' },
  { at, do: 'mode', to: 'off' },
  { at, do: 'rainDelay', hours: 24 },
  { at, do: 'percent', to: 130 },
  { at, do: 'sensor', to: 'bypass' },
  { at, do: 'clock', to: '2020-01-01T00:00:59' },
  { at, do: 'powerOff' },
];

test('the reader takes what the schema takes, and nothing else', () => {
  const values = ['run', 'active', 'A', 'AB', at, '2027-03-01', 'wet', 0, 1, 99, 100, 600, -1, 1.5];
  const value = fc.constantFrom<unknown>(...values, null);
  const field = fc.constantFrom('at', 'do', 'to', 'hours', 'station', 'program', 'seconds');
  const taken = { yes: 0, no: 0 };
  fc.assert(
    fc.property(fc.constantFrom(...SOUND), field, value, fc.nat(3), (event, name, to, how) => {
      const { [name]: _gone, ...rest } = event;
      const one = how === 0 ? event : how === 1 ? rest : { ...event, [name]: to };
      const is = readEvents(sound(one)).ok;
      expect([one, is]).toEqual([one, bySchema(sound(one))]);
      taken[is ? 'yes' : 'no']++;
    }),
    { seed: 41, numRuns: cases(3000) },
  );
  expect(taken.yes).toBeGreaterThan(enough(500));
  expect(taken.no).toBeGreaterThan(enough(500));
});
