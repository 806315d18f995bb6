/** The specification's examples, to the letter. */
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { expect, test } from '@jest/globals';
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

/** Plans of examples that have a file of this kind. */
const having = (kind: string) => plans.filter(({ name }) => isThere(`${name}.${kind}.json`));

/** In file order, whatever the spacing. */
const packed = (text: string) => JSON.stringify(JSON.parse(text));

test.each(having('events'))('$name: simulate --events', ({ name, plan }) => {
  const text = file(`${name}.simulate.json`);
  const { from, days } = JSON.parse(text) as SimulationReport;
  const events = readEventsText(file(`${name}.events.json`));
  if (!events.ok) throw new Error('the events are not read');
  const simulated = simulateEvents(plan, parseDate(from) ?? NaN, days, events.value);
  if (!simulated.ok) throw new Error('the events are not simulated');
  expect(JSON.stringify(eventsReport(from, days, simulated.value))).toBe(packed(text));
});

test.each(having('check'))('$name: check', ({ name, plan }) => {
  const expected = JSON.parse(file(`${name}.check.json`)) as { on: string };
  const report = checkReport(check(plan, parseDate(expected.on) ?? NaN));
  // The examples omit findings; everything else is in order.
  const { findings: _findings, ...rest } = report;
  expect(JSON.stringify(rest)).toBe(JSON.stringify(expected));
});

const withoutEvents = having('simulate').filter(({ name }) => !isThere(`${name}.events.json`));

test.each(withoutEvents)('$name: simulate', ({ name, plan }) => {
  const text = file(`${name}.simulate.json`);
  const { from, days } = JSON.parse(text) as SimulationReport;
  const report = simulationReport(from, days, simulate(plan, parseDate(from) ?? NaN, days));
  expect(JSON.stringify(report)).toBe(packed(text));
});
