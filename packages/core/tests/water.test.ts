/** Water need: the printed results of FAO-56's worked examples, and properties of each formula. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { allowanceOf, SOILS, type SoilType } from '../src/water/tables.ts';
import {
  cupResult,
  HEADS,
  percentByMonth,
  pieceFromTries,
  quantityWords,
  schedulingMultiplier,
  shownIn,
  soakSecondsOf,
  typedIn,
  type Quantity,
} from '@water-clock/core';
import {
  dayOfSun,
  hargreaves,
  penmanMonteith,
  radiationFromSunshine,
  radiationFromTemperatures,
  saturationPressureKpa,
  vapourPressureKpa,
  windAtTwoMetres,
} from '../src/water/evapotranspiration.ts';
import {
  flowFromBucket,
  flowFromMeter,
  longestRunSeconds,
  rateFromFlow,
  rateOfDripLine,
} from '../src/water/rate.ts';
import { longestIntervalDays, peakMonth, yearBalance } from '../src/water/need.ts';

describe('the worked examples of FAO-56', () => {
  test('17: monthly means, Bangkok in April', () => {
    const sun = dayOfSun(13.73, 105);
    expect(sun.extraterrestrialMj).toBeCloseTo(38.06, 2);
    expect(sun.daylightHours).toBeCloseTo(12.31, 2);
    const radiationMj = radiationFromSunshine(sun, 8.5);
    expect(radiationMj).toBeCloseTo(22.65, 2);
    const eto = penmanMonteith({
      highestCelsius: 34.8,
      lowestCelsius: 25.6,
      vapourPressureKpa: 2.85,
      windAtTwoMetres: 2,
      radiationMj,
      altitudeMetres: 2,
      sun,
      soilHeatMj: 0.14 * (30.2 - 29.2),
    });
    expect(eto).toBeCloseTo(5.72, 2);
  });

  test('18: one day, Uccle on 6 July', () => {
    const sun = dayOfSun(50.8, 187);
    expect(sun.extraterrestrialMj).toBeCloseTo(41.09, 2);
    expect(sun.daylightHours).toBeCloseTo(16.1, 1);
    const wind = windAtTwoMetres(10 / 3.6, 10);
    expect(wind).toBeCloseTo(2.078, 3);
    const vapour = vapourPressureKpa(21.5, 12.3, 84, 63);
    expect(vapour).toBeCloseTo(1.409, 3);
    const radiationMj = radiationFromSunshine(sun, 9.25);
    expect(radiationMj).toBeCloseTo(22.07, 2);
    const eto = penmanMonteith({
      highestCelsius: 21.5,
      lowestCelsius: 12.3,
      vapourPressureKpa: vapour,
      windAtTwoMetres: wind,
      radiationMj,
      altitudeMetres: 100,
      sun,
    });
    expect(eto).toBeCloseTo(3.88, 2);
  });

  test('20: temperatures alone, Lyon in July', () => {
    const sun = dayOfSun(45 + 43 / 60, 196);
    expect(sun.extraterrestrialMj).toBeCloseTo(40.55, 2);
    expect(saturationPressureKpa(14.8)).toBeCloseTo(1.68, 2);
    const radiationMj = radiationFromTemperatures(sun, 26.6, 14.8);
    expect(radiationMj).toBeCloseTo(22.29, 2);
    const eto = penmanMonteith({
      highestCelsius: 26.6,
      lowestCelsius: 14.8,
      radiationMj,
      altitudeMetres: 200,
      sun,
    });
    expect(eto).toBeCloseTo(4.56, 2);
    expect(hargreaves(sun, 26.6, 14.8)).toBeCloseTo(5, 1);
  });
});

test('evapotranspiration is never below nothing, nor beyond what the hottest day gives off; day and night make 24 hours', () => {
  const celsius = fc.double({ min: -30, max: 45, noNaN: true });
  fc.assert(
    fc.property(
      fc.double({ min: -65, max: 65, noNaN: true }),
      fc.integer({ min: 1, max: 366 }),
      celsius,
      fc.double({ min: 0, max: 25, noNaN: true }),
      fc.double({ min: 0, max: 1, noNaN: true }),
      (latitude, day, lowestCelsius, swing, share) => {
        const sun = dayOfSun(latitude, day);
        expect(sun.daylightHours).toBeGreaterThan(0);
        expect(sun.daylightHours).toBeLessThan(24);
        // Day on one side of the equator is night on the other.
        const other = dayOfSun(-latitude, day).daylightHours;
        expect(other + sun.daylightHours).toBeCloseTo(24, 9);
        const highestCelsius = lowestCelsius + swing;
        const radiationMj = radiationFromSunshine(sun, share * sun.daylightHours);
        const weather = { highestCelsius, lowestCelsius, radiationMj, altitudeMetres: 50, sun };
        const eto = penmanMonteith(weather);
        expect(eto).toBeGreaterThanOrEqual(0);
        expect(eto).toBeLessThan(25);
        expect(hargreaves(sun, highestCelsius, lowestCelsius)).toBeGreaterThanOrEqual(0);
      },
    ),
    { seed: 56, numRuns: 500 },
  );
});

describe('rates', () => {
  test('flow and area, drip line, meter and bucket', () => {
    expect(rateFromFlow(20, 80)).toBe(15);
    expect(rateOfDripLine(2, 0.3, 0.5)).toBeCloseTo(13.33, 2);
    expect(flowFromMeter(104_210, 104_270, 4)).toBe(15);
    expect(flowFromBucket(10, 40)).toBe(15);
    // Twice the flow on twice the area is the same.
    expect(rateFromFlow(40, 160)).toBe(rateFromFlow(20, 80));
  });

  test('cups: rate, uniformity of the low quarter, and which cups are its', () => {
    // Eight cups of 80 cm² in 12 minutes: mean 16 mL, low quarter 9 and 11.
    const millilitres = [18, 11, 20, 9, 17, 19, 16, 18];
    const found = cupResult({ mouthSquareCentimetres: 80, minutes: 12, millilitres });
    expect(found?.rate).toBeCloseTo(10, 9);
    expect(found?.uniformity).toBeCloseTo(10 / 16, 9);
    expect(found?.lowQuarter).toEqual([3, 1]);
    // Fewer than four cups: the driest one. None, or all dry: no answer.
    const of = (...cups: number[]) =>
      cupResult({ mouthSquareCentimetres: 80, minutes: 12, millilitres: cups });
    expect(of(5, 4, 6)?.lowQuarter).toEqual([1]);
    expect(of()).toBeNull();
    expect(of(0, 0)).toBeNull();
    expect(of(7, 7, 7, 7)?.uniformity).toBe(1);
    expect(schedulingMultiplier(1)).toBe(1);
    expect(schedulingMultiplier(0)).toBe(2.5);
  });

  test('a run at a stretch ends where more has come than soil and slope hold', () => {
    expect(longestRunSeconds(41, 5, allowanceOf('clay-loam', 2))).toBeCloseTo(560, 6);
    expect(longestRunSeconds(9, 9, 5)).toBe(Infinity);
    for (const soil of Object.keys(SOILS) as SoilType[]) {
      const runs = [0, 5, 10, 30].map((slope) =>
        longestRunSeconds(41, 2, allowanceOf(soil, slope)),
      );
      expect([...runs].sort((a, b) => b - a)).toEqual(runs);
      const soaks = [0, 5, 10, 30].map((slope) => soakSecondsOf(soil, slope));
      expect([...soaks].sort((a, b) => a - b)).toEqual(soaks);
      expect(Math.max(...soaks)).toBeLessThanOrEqual(5400);
    }
    expect(pieceFromTries([400, 500, 360], 'mean', 0.1)).toBe(378);
    expect(pieceFromTries([400, 500, 360], 'least', 0)).toBe(360);
    expect(pieceFromTries([1], 'least', 0.5)).toBe(1);
  });
});

describe('the year', () => {
  const months = fc.array(fc.double({ min: 0, max: 12, noNaN: true }), {
    minLength: 12,
    maxLength: 12,
  });
  const demand = {
    plantFactor: 0.8,
    surroundings: 1,
    rate: 12,
    uniformity: 0.7,
    effectiveRainShare: 0.5,
  };
  const flat = (value: number) => new Array<number>(12).fill(value);

  test('a July by hand', () => {
    const [july] = yearBalance({ etoMmPerDay: flat(5), rainMm: flat(31) }, demand).slice(6);
    expect(july?.plantMmPerWeek).toBeCloseTo(28, 9);
    expect(july?.rainMmPerWeek).toBeCloseTo(3.5, 9);
    expect(july?.netMmPerWeek).toBeCloseTo(24.5, 9);
    expect(july?.weeklySeconds).toBeCloseTo(((3600 * 24.5) / 12) * (1 / 0.82), 6);
  });

  test('rain is never more than the need, need never below nothing, and all of it scales', () => {
    fc.assert(
      fc.property(
        months,
        fc.array(fc.nat({ max: 300 }), { minLength: 12, maxLength: 12 }),
        (eto, rain) => {
          const climate = { etoMmPerDay: eto, rainMm: rain };
          const year = yearBalance(climate, demand);
          const thrice = yearBalance(climate, { ...demand, rate: demand.rate / 3 });
          year.forEach((balance, i) => {
            expect(balance.rainMmPerWeek).toBeLessThanOrEqual(balance.plantMmPerWeek);
            expect(balance.netMmPerWeek).toBeGreaterThanOrEqual(0);
            expect(balance.netMmPerWeek + balance.rainMmPerWeek).toBeCloseTo(
              balance.plantMmPerWeek,
              9,
            );
            expect(thrice[i]?.weeklySeconds).toBeCloseTo(3 * balance.weeklySeconds, 6);
          });
          const steps = Array.from({ length: 21 }, (_, i) => i * 10);
          const percents = percentByMonth(year, null, steps);
          const highest = Math.max(...year.map(({ netMmPerWeek }) => netMmPerWeek));
          if (highest === 0) {
            expect(new Set(percents)).toEqual(new Set([100]));
            return;
          }
          expect(percents[peakMonth(year) - 1]).toBe(100);
          for (const [i, percent] of percents.entries()) {
            expect(steps).toContain(percent);
            const exact = Math.round((100 * (year[i]?.netMmPerWeek ?? 0)) / highest);
            expect(Math.abs(percent - exact)).toBeLessThanOrEqual(5);
          }
        },
      ),
      { seed: 12, numRuns: 300 },
    );
  });

  test('an ordinary month can be 100: hotter ones go beyond it, as far as the timer can', () => {
    const eto = [6, 6, 5, 4, 3, 2, 2, 3, 4, 5, 5, 6];
    const year = yearBalance({ etoMmPerDay: eto, rainMm: flat(0) }, demand);
    const steps = [20, 40, 60, 80, 100, 120, 130];
    expect(percentByMonth(year, 4, steps)).toEqual([
      130, 130, 130, 100, 80, 60, 60, 80, 100, 130, 130, 130,
    ]);
  });

  test('the longest interval is what the roots can reach over what is used', () => {
    expect(longestIntervalDays(155, 0.15, 0.5, 4)).toBeCloseTo(2.90625, 9);
    expect(longestIntervalDays(155, 0.15, 0.5, 0)).toBe(Infinity);
  });
});

test('what is typed as it is shown comes back to the digit, in both systems of units', () => {
  const quantities: Quantity[] = ['depth', 'rate', 'area', 'flow', 'volume', 'length'];
  fc.assert(
    fc.property(
      fc.constantFrom(...quantities),
      fc.constantFrom('metric' as const, 'us' as const),
      fc.double({ min: 0, max: 100_000, noNaN: true }),
      (quantity, system, value) => {
        const text = shownIn(system, quantity, value);
        expect(shownIn(system, quantity, typedIn(system, quantity, Number(text)))).toBe(text);
      },
    ),
    { seed: 25, numRuns: 2000 },
  );
  expect(quantityWords('us', 'rate', 25.4)).toBe('1 in/h');
  expect(quantityWords('us', 'area', 100)).toBe('1076 ft²');
  expect(quantityWords('metric', 'flow', 12.34)).toBe('12.3 L/min');
});

test('starting values of heads lie inside what is usual for them', () => {
  for (const { minutes, usualMinutes } of Object.values(HEADS)) {
    expect(minutes).toBeGreaterThanOrEqual(usualMinutes[0]);
    expect(minutes).toBeLessThanOrEqual(usualMinutes[1]);
  }
});
