/**
 * `npm run bench -w packages/core`: time of a check next to the slow reference model in the same run, its growth, and the worst timer the
 * format allows. Prints Markdown tables for docs/benchmarks.md. Build first.
 */
import { spawnSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { performance } from 'node:perf_hooks';
import { attempt, check, epochDayOf, nightsFrom, writePlan } from '@water-clock/core';
import { fromTests } from './fromTests.mjs';
import { realisticPlan, worstPlan } from './plans.mjs';
import { yardstick } from './yardstick.mjs';

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

const print = (text) => process.stdout.write(`${text}\n`);
const row = (cells) => print(`| ${cells.join(' | ')} |`);
const table = (head) => {
  row(head);
  row(head.map((_, i) => (i === 0 ? '---' : '--:')));
};
const on = epochDayOf({ year: 2027, month: 3, day: 1 });
const { referenceOverlaps, referencePairsBySecond, referenceSteps } =
  await fromTests('referenceCycles');

/** Headroom by trying each step from the lowest (timing-rules.md section 7); null: no step is free of overlaps. */
function referenceHeadroom(plan, on, days) {
  let free = null;
  for (const percent of referenceSteps(plan.timer)) {
    if (referenceOverlaps(plan, on, days, percent).length > 0) return free;
    free = percent;
  }
  return free;
}

print(`Yardstick now: ${yardstick().toFixed(0)} ms\n`);
print(`Node.js ${process.version}, ${os.cpus().length} × ${os.cpus()[0]?.model}\n`);

print('### Check with headroom, beside the reference model\n');
table([
  'timer, interval, odd and weekday rules, cycle-and-soak, delay',
  'overlapping pairs',
  'headroom %',
  'check with headroom, ms',
  'reference second by second, 12 weeks, one percent, ms',
  'times faster',
  'reference date by date, 12 weeks, overlaps and headroom, ms',
  'times faster',
  'fourteen nights, ms',
]);
// Twelve weeks are far too few for a proof, but enough here.
const HORIZON = 84;
for (const [name, plan] of [
  ['6 stations, 2 programs × 2 starts', realisticPlan(6, 2, 2)],
  ['24 stations, 4 programs × 4 starts', realisticPlan(24, 4, 4)],
  ['48 stations, 8 programs × 8 starts', realisticPlan(48, 8, 8)],
  ['24 stations, 4 programs × 4 starts, overlapping', realisticPlan(24, 4, 4, 1.6)],
]) {
  const found = check(plan, on);
  const engine = time(() => check(plan, on), 40, 201);
  const bySecond = time(() => referencePairsBySecond(plan, on, HORIZON), 0, 1);
  const slow = [];
  // A new object each time, because the reference caches results by plan.
  const byDate = time(
    () => {
      const copy = structuredClone(plan);
      slow.push([
        referenceOverlaps(copy, on, HORIZON).length,
        referenceHeadroom(copy, on, HORIZON),
      ]);
    },
    0,
    3,
  );
  const nights = time(() => nightsFrom(plan, on, 14), 10, 101);
  if (slow[0][0] !== found.overlaps.length || slow[0][1] !== found.headroomPercent)
    throw new Error(`${name}: engine and reference disagree: ${slow[0]}`);
  row([
    name,
    found.overlaps.length,
    found.headroomPercent ?? 'none',
    engine.toFixed(2),
    bySecond.toFixed(0),
    Math.round(bySecond / engine).toLocaleString('en'),
    byDate.toFixed(0),
    Math.round(byDate / engine).toLocaleString('en'),
    nights.toFixed(2),
  ]);
}

{
  // What a check does, second by second: pairs at the set percent, and every step up to the first overlap.
  const plan = realisticPlan(24, 4, 4);
  const WEEKS = 6;
  const began = performance.now();
  referencePairsBySecond(plan, on, WEEKS * 7);
  let steps = 0;
  for (const percent of referenceSteps(plan.timer)) {
    steps++;
    if (referencePairsBySecond(plan, on, WEEKS * 7, percent).length > 0) break;
  }
  const slow = performance.now() - began;
  const engine = time(() => check(plan, on), 40, 201);
  print(
    `\nThe 24 stations of 4 programs × 4 starts second by second with headroom, ${WEEKS} weeks, ${steps} percent steps: ${(slow / 1000).toFixed(0)} s, against ${engine.toFixed(2)} ms: ${Math.round(slow / engine).toLocaleString('en')} times faster.`,
  );
}

print(
  '\n### The worst timers that the format allows: 99 stations, 26 programs × 24 starts, all rules\n',
);
table([
  'timer',
  'overlapping pairs',
  'check with headroom, ms',
  'yardstick then, ms',
  'yardsticks',
  'memory of the process, MB',
]);
for (const [name, args] of [
  ['4 stations a program, 1 min each, windows pause', [1, 'pause']],
  ['4 stations a program, 1 min each, half of the programs by hours', [1, 'pause', true]],
  ['99 stations a program, 5 min each, windows ignored', [5, 'ignore']],
  ['99 stations a program, 5 min each, windows cut', [5, 'cut']],
  ['99 stations a program, 5 min each, windows pause', [5, 'pause']],
]) {
  // Each in its own process, for separate memory figures.
  const script = `
    import { check } from '@water-clock/core';
    import { worstPlan } from ${JSON.stringify(path.join(import.meta.dirname, 'plans.mjs'))};
    import { yardstick } from ${JSON.stringify(path.join(import.meta.dirname, 'yardstick.mjs'))};
    const before = yardstick();
    const plan = worstPlan(...${JSON.stringify(args)});
    const began = performance.now();
    const { overlapCount } = check(plan, ${on});
    const took = performance.now() - began;
    const speed = (before + yardstick()) / 2;
    console.log(JSON.stringify([overlapCount, took, speed, process.resourceUsage().maxRSS / 1024]));`;
  const ran = spawnSync(process.execPath, ['--input-type=module', '-e', script], {
    cwd: import.meta.dirname,
    encoding: 'utf8',
  });
  const [overlaps, took, speed, memory] = JSON.parse(ran.stdout);
  row([
    name,
    overlaps.toLocaleString('en'),
    took.toFixed(0),
    speed.toFixed(0),
    (took / speed).toFixed(1),
    memory.toFixed(0),
  ]);
}
const absurd = worstPlan(60);
const began = performance.now();
const answer = attempt(() => check(absurd, on));
print(
  `\nAn absurd one (99 stations of an hour in each program): ${answer.ok ? 'answered' : 'refused by path'} after ${(performance.now() - began).toFixed(0)} ms.`,
);

print('\n### Cost against size\n');
table(['dimension', 'sizes', 'check with headroom, ms', 'slope on log-log axes']);
const slope = (sizes, times) => {
  const xs = sizes.map(Math.log);
  const ys = times.map(Math.log);
  const mean = (list) => list.reduce((a, b) => a + b, 0) / list.length;
  const [x, y] = [mean(xs), mean(ys)];
  const up = xs.reduce((sum, one, i) => sum + (one - x) * (ys[i] - y), 0);
  return up / xs.reduce((sum, one) => sum + (one - x) ** 2, 0);
};
const points = [];
for (const [name, sizes, make] of [
  ['stations', [6, 12, 24, 48, 96], (n) => realisticPlan(n, 4, 4)],
  ['starts a program', [1, 2, 4, 8, 16, 24], (n) => realisticPlan(24, 4, n)],
  ['programs', [1, 2, 4, 8, 16, 24], (n) => realisticPlan(24, n, 4)],
]) {
  const times = sizes.map((n) => {
    const plan = make(n);
    return time(() => check(plan, on), 30, 101);
  });
  points.push({ name, sizes, times });
  row([
    name,
    sizes.join(', '),
    times.map((one) => one.toFixed(2)).join(', '),
    slope(sizes, times).toFixed(2),
  ]);
}

/** A log-log plot as an SVG next to docs/benchmarks.md. */
function plot(series) {
  const [width, height, left, bottom] = [560, 360, 56, 40];
  const x = (n) => left + (Math.log(n) / Math.log(100)) * (width - left - 120);
  const y = (ms) => height - bottom - ((Math.log10(ms) + 1) / 2) * (height - bottom - 20);
  const marks = ['6 3', '', '2 4'];
  const lines = series.map(({ name, sizes, times }, i) => {
    const path = sizes.map(
      (n, k) => `${k ? 'L' : 'M'}${x(n).toFixed(1)} ${y(times[k]).toFixed(1)}`,
    );
    const last = sizes.length - 1;
    return `<path d="${path.join('')}" fill="none" stroke="#222" stroke-width="2" stroke-dasharray="${marks[i]}"/><text x="${x(sizes[last]) + 6}" y="${y(times[last]) + 4 + 14 * (i - 1)}">${name}</text>`;
  });
  const grid = [
    ...[1, 3, 10, 30, 100].map(
      (n) =>
        `<path d="M${x(n)} 20V${height - bottom}" stroke="#ccc"/><text x="${x(n)}" y="${height - bottom + 16}" text-anchor="middle">${n}</text>`,
    ),
    ...[0.1, 1, 10].map(
      (ms) =>
        `<path d="M${left} ${y(ms)}H${width - 120}" stroke="#ccc"/><text x="${left - 6}" y="${y(ms) + 4}" text-anchor="end">${ms} ms</text>`,
    ),
  ];
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" font-family="sans-serif" font-size="12"><rect width="100%" height="100%" fill="#fff"/>${grid.join('')}${lines.join('')}<text x="${(width - 120) / 2}" y="${height - 6}" text-anchor="middle">number of stations, starts a program, programs</text></svg>\n`;
}
fs.writeFileSync(path.join(import.meta.dirname, '../../../docs/check-cost.svg'), plot(points));

print('\n### The command line\n');
const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'plans-'));
const files = Array.from({ length: 1000 }, (_, i) => {
  const file = path.join(folder, `${i}.plan.json`);
  const plan = realisticPlan(4 + (i % 21), 1 + (i % 4), 1 + (i % 4), 0.3 + (i % 13) / 10);
  fs.writeFileSync(file, writePlan(plan));
  return file;
});
const cli = path.join(import.meta.dirname, '../../../bin/water-clock');
const call = (list) =>
  time(() => spawnSync(cli, ['check', ...list, '--on', '2027-03-01'], { maxBuffer: 1e9 }), 0, 3);
table(['call', 'seconds, start included']);
row(['`water-clock check` with 1,000 realistic plans', (call(files) / 1000).toFixed(2)]);
row(['`water-clock check` with one', (call(files.slice(0, 1)) / 1000).toFixed(2)]);
fs.rmSync(folder, { recursive: true });
