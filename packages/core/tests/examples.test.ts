/** The examples of the specification, to the letter. */
import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, test } from '@jest/globals';
import {
  check,
  checkReport,
  parseDate,
  readPlanText,
  simulate,
  simulationReport,
} from '@water-clock/core';
import { type SimulationReport } from '../src/engine/simulate.ts';

const folder = new URL('../../../docs/spec/examples/', import.meta.url);
const file = (name: string) => readFileSync(new URL(name, folder), 'utf8');
const names = readdirSync(folder)
  .filter((name) => name.endsWith('.plan.json'))
  .map((name) => name.replace('.plan.json', ''));

const plans = names.map((name) => {
  const read = readPlanText(file(`${name}.plan.json`));
  if (!read.ok) throw new Error(`${name} is not read`);
  return { name, plan: read.value };
});

describe.each(plans)('$name', ({ name, plan }) => {
  test('check', () => {
    const expected = JSON.parse(file(`${name}.check.json`)) as { on: string };
    const report = checkReport(check(plan, parseDate(expected.on) ?? NaN));
    // The examples leave the findings out; everything else is in their order.
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
