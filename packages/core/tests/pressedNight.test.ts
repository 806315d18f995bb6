/** The strip with events on the timer: the same as the simulated timer, next to what was intended. */
import { describe, expect, test } from '@jest/globals';
import {
  formatMoment,
  nightsFrom,
  pressedNights,
  pressWords,
  simulateEvents,
  type Plan,
  type Press,
  type TimedPress,
} from '@water-clock/core';
import { gardenFrom, pick, randomFrom, TODAY } from './faultyTimers.ts';

const BEFORE = 8;
const at = (press: Press, moment: number): TimedPress => ({ ...press, at: formatMoment(moment) });
const nightOf = (plan: Plan, presses: readonly TimedPress[], ahead = 0) => {
  const nights = nightsFrom(plan, TODAY, 1, { ahead });
  const [night] = pressedNights(nights, { plan, ahead }, presses);
  if (!night || !nights[0]) throw new Error('no night');
  return { night, left: nights[0] };
};

describe('a night in which something is done', () => {
  test('nothing done: the very same nights', () => {
    for (let seed = 1; seed <= 10; seed++) {
      const { plan } = gardenFrom(randomFrom(seed));
      const { night, left } = nightOf(plan, []);
      expect(night).toEqual(left);
    }
  });

  test('the runs are those of the device with the same events; what was intended stays', () => {
    for (let seed = 1; seed <= 40; seed++) {
      const random = randomFrom(seed);
      const { plan } = gardenFrom(random);
      const { left } = nightOf(plan, []);
      const run = left.runs[0] ?? { on: left.from + 3600 };
      const station = pick(random, plan.stations).number;
      const press = pick<Press>(random, [
        { do: 'stop' },
        { do: 'powerOff' },
        { do: 'manual', station, seconds: 900 },
        { do: 'rainDelay', hours: 24 },
      ]);
      const presses = [at(press, run.on + 60)];
      const { night } = nightOf(plan, presses);
      const made = simulateEvents(plan, TODAY - BEFORE, BEFORE + 2, {
        ...{ format: 'water-clock-events', version: 1, events: presses },
      });
      if (!made.ok) throw new Error(JSON.stringify(made.faults));
      expect(night.runs).toEqual(
        made.value.runs.filter(({ on, off }) => on < night.to && off > night.from),
      );
      expect(night.intended).toEqual(left.intended);
      expect(night.isPressed).toBe(true);
    }
  });

  test('starts while there is no power are lost; those after it are served', () => {
    let met = 0;
    for (let seed = 1; seed <= 20; seed++) {
      const made = gardenFrom(randomFrom(seed)).plan;
      // A stopped clock would fire them late.
      const plan: Plan = { ...made, timer: { ...made.timer, powerLoss: { clock: 'kept' } } };
      const { left } = nightOf(plan, []);
      const [first] = left.served;
      if (!first) continue;
      const [off, on] = [first.due - 60, first.due + 60];
      const { night } = nightOf(plan, [at({ do: 'powerOff' }, off), at({ do: 'powerOn' }, on)]);
      left.served.forEach(({ due, outcome }, i) => {
        if (due > off && due < on) expect(night.served[i]).toMatchObject({ outcome: 'lost' });
        if (due >= on && outcome === 'ran') expect(night.served[i]?.began).not.toBeNull();
      });
      met += 1;
    }
    expect(met).toBeGreaterThan(5);
  });
});

test('every press in words', () => {
  const { plan } = gardenFrom(randomFrom(1));
  const speech = { plan, on: TODAY, clock: '12' } as const;
  const presses: readonly Press[] = [
    { do: 'manual', station: 2, seconds: 600 },
    { do: 'manual', program: 'A' },
    { do: 'manual', seconds: 120 },
    { do: 'stop' },
    { do: 'mode', to: 'off' },
    { do: 'mode', to: 'run' },
    { do: 'rainDelay', hours: 48 },
    { do: 'rainDelay', hours: 0 },
    { do: 'percent', to: 130 },
    { do: 'sensor', to: 'bypass' },
    { do: 'sensor', to: 'active' },
    { do: 'clock', to: '2027-06-15T15:10:00' },
    { do: 'wet' },
    { do: 'dry' },
    { do: 'powerOff' },
    { do: 'powerOn' },
  ];
  expect(presses.map((press) => pressWords(press, speech))).toMatchInlineSnapshot(`
   [
     "station 2 is started manually for 10 min",
     "program 1 is started manually",
     "every station is started manually for 2 min each",
     "someone stops the watering",
     "the timer is switched off",
     "the timer is switched on",
     "a rain delay of 48 h is set",
     "the rain delay is ended",
     "the seasonal percent is set to 130 %",
     "the rain sensor is bypassed",
     "the rain sensor is activated",
     "the clock is set to Tue 15 June, 3:10 pm",
     "it rains: the rain sensor opens",
     "the rain sensor is dry again",
     "the power fails",
     "the power comes back",
   ]
  `);
});
