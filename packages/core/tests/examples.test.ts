/** The examples of the specification, to the letter: those that this version covers; the others are refused by path. */
import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, test } from '@jest/globals';
import {
  check,
  checkReport,
  notCovered,
  parseDate,
  pathText,
  readPlanText,
  simulate,
  simulationReport,
  type SimulationReport,
} from '@water-clock/core';

const folder = new URL('../../../docs/spec/examples/', import.meta.url);
const file = (name: string) => readFileSync(new URL(name, folder), 'utf8');
const names = readdirSync(folder)
  .filter((name) => name.endsWith('.plan.json'))
  .map((name) => name.replace('.plan.json', ''));

const plans = names.map((name) => {
  const read = readPlanText(file(`${name}.plan.json`));
  if (!read.ok) throw new Error(`${name} is not read`);
  return { name, plan: read.value, beyond: notCovered(read.value) };
});

describe.each(plans.filter(({ beyond }) => beyond.length === 0))('$name', ({ name, plan }) => {
  test('check', () => {
    const expected = JSON.parse(file(`${name}.check.json`)) as { on: string };
    const report = checkReport(check(plan, parseDate(expected.on) ?? NaN));
    // The examples leave the findings out; everything else stands in their order.
    const { findings: _findings, ...rest } = report;
    expect(JSON.stringify(rest)).toBe(JSON.stringify(expected));
  });

  test('simulate', () => {
    const text = file(`${name}.simulate.json`);
    const { from, days } = JSON.parse(text) as SimulationReport;
    const report = simulationReport(from, days, simulate(plan, parseDate(from) ?? NaN, days));
    expect(JSON.stringify(report, null, 2)).toBe(text.trimEnd());
  });
});

test('what is not covered is refused, each by the path of what it uses', () => {
  const refused = plans
    .filter(({ beyond }) => beyond.length > 0)
    .map(({ name, beyond }) => `${name}: ${beyond.map(({ path }) => pathText(path)).join(' ')}`);
  expect(refused).toMatchInlineSnapshot(`
   [
     "a-piece-broken-by-a-pause: settings.noWaterWindows",
     "a-start-that-meets-itself: programs[0].days.rule",
     "cut-by-a-window: settings.noWaterWindows",
     "disabled-unused-and-half-set: programs[1].days.rule",
     "every-thirty-six-hours: programs[0].days.rule",
     "held-by-a-window: settings.noWaterWindows",
     "interval-meets-weekday: programs[0].days.rule",
     "lost-starts: programs[0].days.rule programs[1].days.rule",
     "odd-days-and-the-31st: programs[0].days.rule programs[1].days.rule",
     "past-midnight: settings.offDaysOfMonth",
     "side-by-side: programs[0].days.rule programs[1].days.rule",
     "starts-inside-a-window: settings.noWaterWindows programs[1].noWaterWindows",
     "two-valves-at-once: timer.stationsAtOnce",
   ]
  `);
});
