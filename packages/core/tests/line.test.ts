/** A two-wire line: the search finds all decoders that answer, can be stopped at any query, and reports progress. */
import { describe, expect, test } from '@jest/globals';
import {
  assignInOrder,
  decoderState,
  isNewSerial,
  LineSearch,
  newSerial,
  simulatedDecoders,
  SimulatedLine,
  unheard,
  type Decoder,
} from '@water-clock/core';
import { randomFrom } from './faultyTimers.ts';

const beds = (count: number) => Array.from({ length: count }, (_, i) => i + 1);
const lineOf = (seed: string, count: number) =>
  new SimulatedLine(simulatedDecoders(seed, beds(count)));
function searched(line: SimulatedLine): LineSearch {
  const search = new LineSearch(line);
  for (let n = 0; n < 1e6 && !search.isDone; n++) search.step();
  return search;
}
const answering = ({ decoders }: SimulatedLine) =>
  decoders.filter(({ fault }) => fault !== 'silent').map(({ serial }) => serial);

describe('the search', () => {
  test('finds every decoder that answers, once, and no other, on lines of any length', () => {
    for (let count = 0; count <= 99; count += 9) {
      const line = lineOf(`garden ${count}`, count);
      const { found } = searched(line);
      expect([...found].sort()).toEqual(answering(line).sort());
    }
  });

  test('serials that differ in the last digit only, all ten of them, and two alike', () => {
    const decoder = (serial: string): Decoder => ({
      serial,
      metres: 1,
      milliamps: 28,
      fault: null,
    });
    const near = beds(10).map((n) => decoder(`12345${n % 10}`));
    expect([...searched(new SimulatedLine(near)).found].sort()).toEqual(
      near.map(({ serial }) => serial).sort(),
    );
    // No one can tell these apart; the search still ends.
    const twins = searched(new SimulatedLine([decoder('000001'), decoder('000001')]));
    expect([twins.found, twins.isDone]).toEqual([[], true]);
  });

  test('serials that begin like others, of any length', () => {
    const serials = ['0', '03', '031', '03107', '031071', '0310710000'];
    const line = new SimulatedLine(
      serials.map((serial) => ({ serial, metres: 1, milliamps: 28, fault: null })),
    );
    expect([...searched(line).found].sort()).toEqual(serials);
  });

  test('its progress only grows, and is whole at the end and not before', () => {
    const search = new LineSearch(lineOf('progress', 48));
    let before = 0;
    while (!search.isDone) {
      expect(search.share).toBeLessThan(1);
      expect(search.share).toBeGreaterThanOrEqual(before);
      before = search.share;
      search.step();
    }
    expect(search.share).toBe(1);
    const { asked } = search;
    search.step();
    expect(search.asked).toBe(asked);
  });

  test('stopped at any question it has found a part of what there is, and goes on from there', () => {
    const line = lineOf('stopped', 24);
    const whole = searched(line);
    for (let at = 0; at < whole.asked; at += 17) {
      const search = new LineSearch(line);
      for (let n = 0; n < at; n++) search.step();
      expect(whole.found.slice(0, search.found.length)).toEqual(search.found);
      while (!search.isDone) search.step();
      expect(search.found).toEqual(whole.found);
    }
  });
});

test('a line is always the same for a seed, has one of each fault, and a short one has none', () => {
  expect(lineOf('a', 24).decoders).toEqual(lineOf('a', 24).decoders);
  expect(lineOf('a', 24).decoders).not.toEqual(lineOf('b', 24).decoders);
  for (let seed = 0; seed < 50; seed++) {
    const { decoders } = lineOf(`line ${seed}`, 6 + (seed % 40));
    const faults = decoders.flatMap(({ fault }) => fault ?? []);
    expect(faults.sort()).toEqual(['coil-open', 'coil-short', 'silent']);
    expect(new Set(decoders.map(({ serial }) => serial)).size).toBe(decoders.length);
    expect(decoders.every(({ serial }) => !isNewSerial(serial))).toBe(true);
  }
  expect(lineOf('a', 5).decoders.every(({ fault }) => fault === null)).toBe(true);
});

test('each fault shows when its decoder is tried, and a new one in its place is good', () => {
  const line = lineOf('faults', 24);
  const stateOf = ({ serial }: Decoder, on = line) => {
    const milliamps = on.open(serial);
    return decoderState(milliamps === null ? {} : { milliamps });
  };
  for (const decoder of line.decoders)
    expect(stateOf(decoder)).toBe(
      decoder.fault === null ? 'good' : decoder.fault === 'silent' ? 'no-answer' : decoder.fault,
    );
  expect(line.open('999999')).toBeNull();
  const anew = new Map(
    line.decoders.flatMap(({ fault }, i) =>
      fault ? [[i + 1, newSerial('faults', i)] as const] : [],
    ),
  );
  const mended = new SimulatedLine(simulatedDecoders('faults', beds(24), anew));
  expect(mended.decoders.map((one) => stateOf(one, mended))).toEqual(beds(24).map(() => 'good'));
  expect(unheard(line, searched(line).found.length)).toBe(1);
  expect(unheard(mended, searched(mended).found.length)).toBe(0);
  // One that was there before the search is found, with the fault of its place.
  const before = new SimulatedLine(simulatedDecoders('faults', beds(24), new Map([[1, '03107']])));
  expect(before.decoders[0]).toEqual({ ...line.decoders[0], serial: '03107' });
  // Assigned to another station, the line's own decoder stays where it is.
  const [, second] = line.decoders;
  const mistaken = new Map([[1, second?.serial ?? '']]);
  expect(simulatedDecoders('faults', beds(24), mistaken)).toEqual(line.decoders);
  // The others are unchanged.
  expect(mended.decoders.filter(({ serial }) => !isNewSerial(serial))).toEqual(
    line.decoders.filter(({ fault }) => fault === null),
  );
});

test('a list is assigned in order, to stations that have none, each serial once', () => {
  for (let seed = 1; seed <= 200; seed++) {
    const random = randomFrom(seed);
    const stations = beds(12);
    const serials = Array.from({ length: Math.floor(random() * 20) }, () =>
      String(Math.floor(random() * 15)),
    );
    const before = new Map(
      stations.filter(() => random() < 0.4).map((station, i) => [station, String(i)] as const),
    );
    const made = assignInOrder(stations, serials, before);
    const all = [...before.values(), ...made.values()];
    expect(new Set(all).size).toBe(all.length);
    expect([...made.keys()].every((station) => !before.has(station))).toBe(true);
    const wanted = [...new Set(serials)].filter((one) => ![...before.values()].includes(one));
    expect([...made.values()]).toEqual(wanted.slice(0, made.size));
    expect(made.size).toBe(Math.min(wanted.length, stations.length - before.size));
  }
});
