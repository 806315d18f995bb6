/** The examples of the specification, to the letter. */
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { describe, expect, test } from '@jest/globals';
import {
  check,
  checkReport,
  eventsReport,
  parseDate,
  readEventsText,
  readPlanText,
  simulate,
  simulateEvents,
  simulationReport,
} from '@water-clock/core';
import { type SimulationReport } from '../src/engine/simulate.ts';

const folder = new URL('../../../docs/spec/examples/', import.meta.url);
const file = (name: string) => readFileSync(new URL(name, folder), 'utf8');
const isThere = (name: string) => existsSync(new URL(name, folder));
const names = readdirSync(folder)
  .filter((name) => name.endsWith('.plan.json'))
  .map((name) => name.replace('.plan.json', ''));

const plans = names.map((name) => {
  const read = readPlanText(file(`${name}.plan.json`));
  if (!read.ok) throw new Error(`${name} is not read`);
  return { name, plan: read.value };
});

const isWithEvents = ({ name }: { name: string }) => isThere(`${name}.events.json`);

describe.each(plans.filter(isWithEvents))('$name', ({ name, plan }) => {
  test('simulate --events', () => {
    const text = file(`${name}.simulate.json`);
    const { from, days } = JSON.parse(text) as SimulationReport;
    const events = readEventsText(file(`${name}.events.json`));
    if (!events.ok) throw new Error('the events are not read');
    const simulated = simulateEvents(plan, parseDate(from) ?? NaN, days, events.value);
    if (!simulated.ok) throw new Error('the events are not simulated');
    const report = eventsReport(from, days, simulated.value);
    expect(JSON.stringify(report, null, 2)).toBe(text.trimEnd());
  });
});

describe.each(plans.filter((one) => !isWithEvents(one)))('$name', ({ name, plan }) => {
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
