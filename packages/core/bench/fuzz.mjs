/**
 * `npm run fuzz -w packages/core [count] [seed]`: mutated plan documents through the reader, the engine and the command line. Each is
 * refused by path, or answered as the reference model does for the dates it covers. Reports the slowest.
 */
import { spawnSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { performance } from 'node:perf_hooks';
import { attempt, check, faultLine, readPlan, simulate } from '@water-clock/core';
import { fromTests } from './fromTests.mjs';

const [count = 10_000, seed = 1] = process.argv.slice(2).map(Number);
const here = import.meta.dirname;
const { referenceSimulate } = await fromTests('reference');
const { referenceOverlaps } = await fromTests('referenceCycles');

/** mulberry32: small, seeded, the same everywhere. */
let state = seed;
function random() {
  state = (state + 0x6d2b79f5) | 0;
  let t = Math.imul(state ^ (state >>> 15), 1 | state);
  t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
  return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
}
const pick = (list) => list[Math.floor(random() * list.length)];

const NUMBERS = [
  0, 1, 2, 59, 60, 61, 99, 100, 365, 366, 500, 501, 743, 744, 745, 3600, 86399, 86400, 86401, -1,
  0.5, 1e9,
];
const TEXTS = [
  '',
  'A',
  'Z',
  '00:00',
  '23:59',
  '24:00',
  '05:07',
  '2027-02-29',
  '2028-02-29',
  '1969-12-31',
  '9999-12-31',
  '2027-03-01T05:00',
  'daily',
  'hours',
  'pause',
  'cut',
  'together',
  'none',
  'program',
  'mon',
];
const VALUES = [
  null,
  true,
  false,
  [],
  {},
  [[]],
  ['mon'],
  [1, 31],
  [{ from: '00:00', to: '23:59' }],
  [{ from: '00:00', to: '00:00' }],
  { rule: 'odd' },
  { rule: 'even', blockedWeekdays: ['sun'] },
  { rule: 'interval', everyDays: 365, firstDate: '9999-12-31' },
  { rule: 'hours', everyHours: 7, first: '2027-03-01T05:00' },
  { scope: 'none' },
];

function places(value, at = []) {
  const list = [at];
  if (typeof value === 'object' && value !== null)
    for (const key of Object.keys(value)) list.push(...places(value[key], [...at, key]));
  return list;
}

function mutated(document) {
  const copy = structuredClone(document);
  for (let n = 1 + Math.floor(random() * 3); n > 0; n--) {
    const at = pick(places(copy).slice(1));
    let parent = copy;
    for (const key of at.slice(0, -1)) parent = parent?.[key];
    if (typeof parent !== 'object' || parent === null) continue;
    const key = at.at(-1);
    const old = parent[key];
    const kind = random();
    if (kind < 0.08) delete parent[key];
    else if (kind < 0.12) parent.surprise = old;
    else if (kind < 0.2) parent[key] = pick(VALUES);
    else if (typeof old === 'number')
      parent[key] = random() < 0.6 ? pick(NUMBERS) : old + Math.floor(random() * 100);
    else if (typeof old === 'string')
      parent[key] =
        random() < 0.5 ? pick(TEXTS) : old.replace(/\d/, String(Math.floor(random() * 10)));
    else if (Array.isArray(old))
      parent[key] = random() < 0.5 ? [...old, ...structuredClone(old.slice(0, 1))] : old.slice(1);
    else parent[key] = pick([...VALUES, pick(NUMBERS), pick(TEXTS)]);
  }
  return copy;
}

const examples = fs
  .readdirSync(path.join(here, '../../../docs/spec/examples'))
  .filter((name) => name.endsWith('.plan.json'))
  .map((name) =>
    JSON.parse(fs.readFileSync(path.join(here, '../../../docs/spec/examples', name), 'utf8')),
  );

const ON = 20_880;
const HORIZON = 40;
const seen = {
  refused: 0,
  answered: 0,
  'too much work': 0,
  'compared with the reference': 0,
  'simulated by both': 0,
};
let slowest = 0;
const documents = [];
for (let i = 0; i < count; i++) {
  const document = mutated(pick(examples));
  documents.push(document);
  const began = performance.now();
  const read = readPlan(document);
  const answers = read.ok
    ? [attempt(() => check(read.value, ON)), attempt(() => simulate(read.value, ON, 7))]
    : [];
  slowest = Math.max(slowest, performance.now() - began);
  if (!read.ok) {
    seen.refused++;
    for (const fault of read.faults)
      if (!/^[\w.[\]]+: .{10,}/.test(faultLine(fault))) throw new Error(faultLine(fault));
    continue;
  }
  seen.answered++;
  if (answers.some(({ ok }) => !ok)) {
    seen['too much work']++;
    continue;
  }
  // The reference steps through every second, so cycles of weeks are skipped.
  const { value: found } = answers[0];
  if (found.programs.some(({ cycleSeconds }) => (cycleSeconds?.longest ?? 0) > 2 * 86_400))
    continue;
  seen['compared with the reference']++;
  const line = ({ first: a, second: b, sharedSeconds }) =>
    `${a.letter}${a.start}@${a.day} ${b.letter}${b.start}@${b.day} ${sharedSeconds}`;
  const mine = found.overlaps
    .filter(({ first, second }) => Math.max(first.day, second.day) < ON + HORIZON)
    .map(line)
    .sort();
  const slow = referenceOverlaps(read.value, ON, HORIZON);
  if (JSON.stringify(mine) !== JSON.stringify(slow))
    throw new Error(`document ${i} of seed ${seed}: ${JSON.stringify({ mine, slow, document })}`);
  // Stepping through a simulation is slow, so only every tenth is.
  if (seen['compared with the reference'] % 10 !== 0) continue;
  seen['simulated by both']++;
  const { cycles } = simulate(read.value, ON, 2);
  const done = cycles.map(({ due, outcome, began, ended }) =>
    [due.letter, due.start, due.due, outcome, began, ended].join(' '),
  );
  const lived = referenceSimulate(read.value, ON, 2).map((one) =>
    [one.program, one.start, one.due, one.outcome, one.began, one.ended].join(' '),
  );
  if (JSON.stringify(done) !== JSON.stringify(lived))
    throw new Error(`document ${i} of seed ${seed}: ${JSON.stringify({ done, lived, document })}`);
}

// The same through the command line, 500 to a call: one line each, and no crash.
const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'fuzz-'));
let lines = 0;
for (let from = 0; from < documents.length; from += 500) {
  const files = documents.slice(from, from + 500).map((document, i) => {
    const file = path.join(folder, `${i}.json`);
    fs.writeFileSync(file, JSON.stringify(document));
    return file;
  });
  const cli = path.join(here, '../../../bin/water-clock');
  const ran = spawnSync(cli, ['check', ...files, '--on', '2027-03-03'], {
    encoding: 'utf8',
    maxBuffer: 1e9,
  });
  if (ran.stderr !== '' || ![0, 1].includes(ran.status)) throw new Error(ran.stderr);
  for (const one of ran.stdout.trimEnd().split('\n')) {
    const { file, refused, verdict } = JSON.parse(one);
    if (file === undefined || (refused === undefined) === (verdict === undefined))
      throw new Error(one);
    lines++;
  }
}
fs.rmSync(folder, { recursive: true });
process.stdout.write(
  `${count} documents, seed ${seed}: ${Object.entries(seen)
    .map(([name, n]) => `${n} ${name}`)
    .join(
      ', ',
    )}; ${lines} lines from the command line; the slowest took ${slowest.toFixed(0)} ms\n`,
);
