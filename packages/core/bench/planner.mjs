/**
 * `npm run bench:planner -w packages/core`: compares the planner with plain enumeration and a general-purpose solver on seeded random
 * briefs, checks its plans with the slow reference model, and measures time and growth. Prints Markdown tables for docs/benchmarks.md.
 * Build first; takes half an hour. `node bench/planner.mjs 1 again` only checks plans with the slow model; some minutes.
 */
import fs from 'node:fs';
import path from 'node:path';
import { performance } from 'node:perf_hooks';
import loadHighs from 'highs';
import { barePlan } from '../dist/planner/needs.js';
import { compareCosts } from '../dist/planner/cost.js';
import { conflictsOf } from '../dist/planner/conflicts.js';
import { hardPercents } from '../dist/planner/verify.js';
import { parseDate } from '@water-clock/core';
import { readBrief } from '../dist/brief/readBrief.js';
import { searchPlan } from '../dist/planner/searchPlan.js';
import { exactCost, nightBrief } from './exactPlanner.mjs';
import { fromTests } from './fromTests.mjs';
import { plainPlan, smallBrief } from './plainPlanner.mjs';

const print = (text) => process.stdout.write(`${text}\n`);
const row = (cells) => print(`| ${cells.join(' | ')} |`);
const table = (head) => {
  row(head);
  row(head.map((_, i) => (i === 0 ? '---' : '--:')));
};
const median = (list) => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)] ?? 0;
const milliseconds = (value) => (value < 10 ? value.toFixed(1) : value.toFixed(0));

function sound(brief) {
  const read = readBrief(brief);
  if (!read.ok) throw new Error(`the bench brief is not sound: ${JSON.stringify(read.faults[0])}`);
  return read.value;
}

function timed(work) {
  const began = performance.now();
  const value = work();
  return { value, took: performance.now() - began };
}

const { realisticBrief } = await fromTests('plannerBriefs');
const { referenceOverlaps } = await fromTests('referenceCycles');
const { forbiddenSeconds } = await fromTests('forbidden');
const ON = parseDate('2027-01-01');
const looked = { plans: 0, overlaps: 0, forbidden: 0 };

/** What the slow model finds wrong with a plan, at every percent up to the wished headroom. */
function lookAgain(brief, found) {
  if (!found) return;
  looked.plans++;
  for (const percent of hardPercents(brief)) {
    looked.overlaps += referenceOverlaps(found.plan, ON, 28, percent).length;
    looked.forbidden += forbiddenSeconds(brief, found.plan, percent, ON);
  }
}

function againstEnumeration(count) {
  const tally = { finished: 0, worse: 0, cheaper: 0, none: 0, optimal: 0, untrue: 0 };
  let ours = 0;
  let theirs = 0;
  for (let seed = 0; seed < count; seed++) {
    const brief = sound(smallBrief(seed));
    const { value: answer, took } = timed(() => searchPlan(brief));
    lookAgain(brief, answer.found);
    const { value: best, took: tookPlain } = timed(() => plainPlan(brief, barePlan(brief)));
    if (best === 'unfinished') continue;
    tally.finished++;
    ours += took;
    theirs += tookPlain;
    if (!answer.found || !best) {
      if (!answer.found && !best) tally.none++;
      else tally.worse += answer.found ? 0 : 1;
      continue;
    }
    const difference = compareCosts(answer.found.cost, best.cost);
    if (difference > 0) tally.worse++;
    if (difference < 0) tally.cheaper++;
    if (answer.proof.optimal) tally.optimal++;
    if (compareCosts(answer.proof.bound, best.cost) > 0) tally.untrue++;
  }
  table([
    'briefs',
    'enumeration finished',
    'ours worse',
    'ours cheaper',
    'no plan, both',
    'proved optimal',
    'untrue bounds',
    'time, theirs ÷ ours',
  ]);
  row([
    count,
    tally.finished,
    tally.worse,
    tally.cheaper,
    tally.none,
    tally.optimal,
    tally.untrue,
    (theirs / ours).toFixed(0),
  ]);
}

async function againstSolver(count) {
  const tally = { finished: 0, worse: 0, cheaper: 0, none: 0, optimal: 0 };
  let ours = 0;
  let theirs = 0;
  for (let seed = 0; seed < count; seed++) {
    const raw = nightBrief(seed, 3 + (seed % 6));
    const brief = sound(raw);
    const { value: answer, took } = timed(() => searchPlan(brief));
    lookAgain(brief, answer.found);
    // A new one each time: once out of memory, a solver stays unusable.
    const highs = await loadHighs();
    let exact;
    const began = performance.now();
    try {
      exact = exactCost(highs, raw);
    } catch {
      continue;
    }
    if (exact === 'unfinished') continue;
    theirs += performance.now() - began;
    ours += took;
    tally.finished++;
    const cost = answer.found?.cost;
    const isWhole = cost !== undefined && cost[0] === 0 && cost[1] === 0;
    if (answer.proof.optimal) tally.optimal++;
    if (!exact) {
      tally.none += isWhole ? 0 : 1;
      continue;
    }
    if (!isWhole || cost[3] > exact[0] || (cost[3] === exact[0] && cost[5] > exact[2] + 1))
      tally.worse++;
    else if (cost[3] < exact[0] || cost[5] < exact[2] - 1) tally.cheaper++;
  }
  table([
    'briefs',
    'solver finished',
    'ours worse',
    'ours cheaper',
    'not all has room, both',
    'proved optimal',
    'time, theirs ÷ ours',
  ]);
  row([
    count,
    tally.finished,
    tally.worse,
    tally.cheaper,
    tally.none,
    tally.optimal,
    (theirs / ours).toFixed(0),
  ]);
}

function growth(perSize) {
  table([
    'stations',
    'briefs',
    'with a plan',
    'first plan, ms',
    'longest',
    'proof or gap, ms',
    'longest',
    'proved optimal',
  ]);
  for (const count of [6, 12, 24, 48]) {
    const first = [];
    const whole = [];
    let optimal = 0;
    let slowestConflict = 0;
    for (let seed = 0; seed < perSize; seed++) {
      const brief = sound(realisticBrief(seed, count));
      const began = performance.now();
      let found = null;
      const answer = searchPlan(brief, {}, { found: () => (found ??= performance.now() - began) });
      whole.push(performance.now() - began);
      if (found === null) {
        slowestConflict = Math.max(slowestConflict, timed(() => conflictsOf(brief)).took);
        continue;
      }
      first.push(found);
      if (answer.proof.optimal) optimal++;
      lookAgain(brief, answer.found);
    }
    row([
      count,
      perSize,
      first.length,
      milliseconds(median(first)),
      milliseconds(Math.max(...first)),
      milliseconds(median(whole)),
      milliseconds(Math.max(...whole)),
      optimal,
    ]);
  }
}

const scale = Number(process.argv[2] ?? 1);
const count = Math.round(240 * scale);
if (process.argv[3] === 'again') {
  for (let seed = 0; seed < count; seed++)
    for (const raw of [
      smallBrief(seed),
      nightBrief(seed, 3 + (seed % 6)),
      realisticBrief(Math.floor(seed / 4), [6, 12, 24, 48][seed % 4]),
    ]) {
      const brief = sound(raw);
      lookAgain(brief, searchPlan(brief).found);
    }
} else {
  print('### Against plain enumeration\n');
  againstEnumeration(count);
  print('\n### Against a general-purpose solver\n');
  await againstSolver(count);
  print('\n### How long, and how it grows\n');
  growth(Math.round(60 * scale));
}
print('\n### Looked at again by the reference model\n');
table(['plans', 'overlaps', 'forbidden seconds']);
row([looked.plans, looked.overlaps, looked.forbidden]);
