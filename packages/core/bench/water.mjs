/**
 * `npm run bench:water -w packages/core`: minutes of 48 stations by all three methods with monthly water balance, and the water of the
 * programs over a year. Prints a Markdown table for docs/benchmarks.md. Build first.
 */
import {
  climateOf,
  epochDayOf,
  givenByMonth,
  HEADS,
  SHIPPED_MINUTES,
  SIMULATED_TOWNS,
  simulatedNormals,
  siteMinutes,
} from '@water-clock/core';
import { PLANT_FACTORS, SOILS, SURROUNDINGS } from '../dist/water/tables.js';
import { realisticPlan } from './plans.mjs';
import { yardstick } from './yardstick.mjs';

const names = [HEADS, PLANT_FACTORS, SURROUNDINGS, SOILS].map(Object.keys);
const plan = realisticPlan(48, 8, 4, 1);
const survey = {
  stations: plan.stations.map(({ number }) => {
    const [head, plants, surroundings, soil] = names.map((all) => all[number % all.length]);
    return {
      number,
      head,
      plants,
      surroundings,
      soil,
      slopePercent: number % 15,
      areaSquareMetres: 20 + number,
      headCount: 4 + (number % 9),
      flow: { by: 'bucket', litres: 10, seconds: 30 + number },
    };
  }),
};
const climate = climateOf(simulatedNormals(SIMULATED_TOWNS[0]));
const on = epochDayOf({ year: 2026, month: 11, day: 25 });

/** Median milliseconds of a call. */
function time(work, repetitions) {
  for (let i = 0; i < 20; i++) work();
  const times = Array.from({ length: repetitions }, () => {
    const began = performance.now();
    work();
    return performance.now() - began;
  }).sort((a, b) => a - b);
  return times[Math.floor(repetitions / 2)];
}

const rows = [
  [
    '48 stations, three schools, balance of twelve months',
    () => siteMinutes(plan, survey, SHIPPED_MINUTES, climate),
  ],
  ['what their programs give, month by month', () => givenByMonth(plan, on)],
];
process.stdout.write('| | ms | yardstick then, ms (quiet: 170) |\n| --- | --: | --: |\n');
for (const [what, work] of rows)
  process.stdout.write(`| ${what} | ${time(work, 200).toFixed(2)} | ${yardstick().toFixed(0)} |\n`);
