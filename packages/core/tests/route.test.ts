/** Orders of places by distance: close to the best of all, and never losing a place. */
import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { kilometresBetween, routeKilometres, routeThrough, type Position } from '@water-clock/core';
import { cases } from './cases.ts';

const orders = <T>(all: readonly T[]): T[][] =>
  all.length < 2
    ? [[...all]]
    : all.flatMap((one, i) => orders(all.filter((_, k) => k !== i)).map((rest) => [one, ...rest]));

const place = fc.record({
  latitude: fc.double({ min: -35, max: -34, noNaN: true }),
  longitude: fc.double({ min: 138, max: 139, noNaN: true }),
});

test('a degree of latitude is 111 km, and a degree of longitude shrinks towards the poles', () => {
  const at = (latitude: number, longitude: number): Position => ({ latitude, longitude });
  expect(kilometresBetween(at(0, 0), at(1, 0))).toBeCloseTo(111.2, 1);
  expect(kilometresBetween(at(60, 0), at(60, 1))).toBeCloseTo(55.6, 1);
  expect(kilometresBetween(at(0, 179.5), at(0, -179.5))).toBeCloseTo(111.2, 1);
});

test('an order holds each place once, and is little longer than the shortest there is', () => {
  fc.assert(
    fc.property(fc.array(place, { maxLength: 7 }), (places) => {
      const way = routeThrough(places);
      expect(new Set(way)).toEqual(new Set(places));
      expect(way).toHaveLength(places.length);
      const best = Math.min(...orders(places).map(routeKilometres));
      expect(routeKilometres(way)).toBeLessThanOrEqual(1.15 * best + 1e-9);
    }),
    { seed: 63, numRuns: cases(60) },
  );
  // On a line the order is that of the line.
  const line = [3, 0, 4, 1, 2].map((longitude) => ({ latitude: 0, longitude }));
  const lngs = routeThrough(line).map(({ longitude }) => longitude);
  expect([lngs, [...lngs].reverse()]).toContainEqual([0, 1, 2, 3, 4]);
});
