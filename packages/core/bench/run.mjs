/**
 * `npm run bench -w packages/core`: how long a check takes, beside the slow reference model of the tests in the same run.
 * Prints a table in Markdown; docs/benchmarks.md holds one, with the machine it was made on. Build first.
 */
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { performance } from 'node:perf_hooks';
import ts from 'typescript';
import {
  check,
  emptyPlan,
  epochDayOf,
  formatTime,
  nightsFrom,
  notCovered,
  readPlan,
  TIMER_KINDS,
  WEEKDAYS,
} from '@water-clock/core';

/** The reference is TypeScript beside the tests; it is stripped of its types into the build folder. */
async function loadReference() {
  const source = fs.readFileSync(path.join(import.meta.dirname, '../tests/reference.ts'), 'utf8');
  const options = { target: ts.ScriptTarget.ES2022, module: ts.ModuleKind.ESNext };
  const file = path.join(import.meta.dirname, '../dist/bench-reference.mjs');
  fs.writeFileSync(file, ts.transpileModule(source, { compilerOptions: options }).outputText);
  return import(file);
}

/**
 * A weekday timer: each program has `stations / programs` stations of its own, `minutes` each, its starts spread evenly
 * over the day between those of the others.
 */
function weekdayPlan(stations, programs, starts, minutes) {
  const timer = {
    ...TIMER_KINDS[4],
    name: 'Bench timer',
    stationCount: stations,
    programCount: programs,
    startsPerProgram: starts,
    startStepMinutes: 1,
    cycleSoak: 'none',
    onOverlap: 'queue',
  };
  const each = Math.floor(stations / programs);
  const between = 1440 / (programs * starts);
  const plan = {
    ...emptyPlan(timer),
    programs: Array.from({ length: programs }, (_, p) => ({
      letter: String.fromCharCode(65 + p),
      starts: Array.from({ length: starts }, (_, s) =>
        formatTime(Math.floor((s * programs + p) * between) * 60),
      ),
      runs: Array.from({ length: each }, (_, i) => ({
        station: p * each + i + 1,
        seconds: minutes * 60,
      })),
      days: { rule: 'weekdays', weekdays: WEEKDAYS.filter((_, w) => (w + p) % 3 !== 0) },
    })),
  };
  const read = readPlan(plan);
  if (!read.ok || notCovered(plan).length > 0) throw new Error('the bench plan is not sound');
  return plan;
}

/** Median milliseconds of one call. */
function time(work, least, repetitions) {
  for (let i = 0; i < least; i++) work();
  const times = Array.from({ length: repetitions }, () => {
    const began = performance.now();
    work();
    return performance.now() - began;
  }).sort((a, b) => a - b);
  return times[Math.floor(times.length / 2)];
}

const { referenceOverlaps, referenceHeadroom, referencePairsBySecond } = await loadReference();
const on = epochDayOf({ year: 2027, month: 3, day: 1 });
// Everything that a weekly rule can do shows within five weeks.
const HORIZON = 35;
const plans = [
  ['6 stations, 3 programs × 2 starts, clear', weekdayPlan(6, 3, 2, 20)],
  ['24 stations, 4 programs × 4 starts, clear', weekdayPlan(24, 4, 4, 8)],
  ['48 stations, 8 programs × 8 starts, clear', weekdayPlan(48, 8, 8, 2)],
  ['48 stations, 8 programs × 8 starts, overlapping', weekdayPlan(48, 8, 8, 5)],
];
const rows = plans.map(([name, plan]) => {
  const found = check(plan, on);
  const engine = time(() => check(plan, on), 30, 201);
  const nights = time(() => nightsFrom(plan, on, 8), 10, 101);
  const byDate = time(
    () => [referenceOverlaps(plan, on, HORIZON), referenceHeadroom(plan, on, HORIZON)],
    0,
    5,
  );
  // One percent only: the second-by-second model would take a minute to go up all the steps.
  const bySecond = time(() => referencePairsBySecond(plan, on, HORIZON), 0, 1);
  const same =
    referenceOverlaps(plan, on, HORIZON).length === found.overlaps.length &&
    referenceHeadroom(plan, on, HORIZON) === found.headroomPercent;
  if (!same) throw new Error(`${name}: engine and reference disagree`);
  const cells = [
    name,
    found.overlaps.length,
    found.headroomPercent ?? 'none',
    engine.toFixed(2),
    byDate.toFixed(0),
    Math.round(byDate / engine).toLocaleString('en'),
    bySecond.toFixed(0),
    Math.round(bySecond / engine).toLocaleString('en'),
    nights.toFixed(2),
  ];
  return `| ${cells.join(' | ')} |`;
});
process.stdout.write(`Node.js ${process.version}, ${os.cpus().length} × ${os.cpus()[0]?.model}

| weekday timer | overlapping pairs | headroom % | check with headroom, ms | reference date by date, ms | times faster | reference second by second, without headroom, ms | times faster | eight nights, ms |
| --- | --: | --: | --: | --: | --: | --: | --: | --: |
${rows.join('\n')}
`);
