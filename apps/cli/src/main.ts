#!/usr/bin/env node
/** `water-clock`: a thin shell over the core, without server or database (plan-format.md, The command line). */
import { readFileSync } from 'node:fs';
import {
  attempt,
  check,
  checkReport,
  eventsReport,
  explainReport,
  faultLine,
  planReport,
  readBriefText,
  readEventsText,
  readGardenText,
  readPlanText,
  readSightingsText,
  repair,
  repairReport,
  seasonReport,
  simulate,
  simulateEvents,
  simulationReport,
  workOut,
  type Brief,
  type Events,
  type Outcome,
  type Plan,
  type SupplyNoted,
} from '@water-clock/core';
import { CallError, readCall, type Call } from './call.ts';
import { HELP } from './help.ts';

type Work = Exclude<Call, { command: 'help' | 'explain' | 'repair' | 'season' }>;

/** Exit code when no plan meets the brief (planning.md section 3). */
const NO_PLAN = 3;

type Answer =
  | { readonly ok: true; readonly report: object; readonly code: 0 | typeof NO_PLAN }
  | { readonly ok: false; readonly lines: readonly string[] };

function readText(file: string): string {
  try {
    return readFileSync(file === '-' ? 0 : file, 'utf8');
  } catch (error) {
    throw new CallError(`${file}: cannot be read: ${error instanceof Error ? error.message : ''}`);
  }
}

/** Documents read besides the plans. */
interface Beside {
  readonly brief: Brief | null;
  readonly events: Events | null;
}

function readBeside(call: Work): Outcome<Beside> {
  const nothing = { brief: null, events: null };
  if (call.command === 'check' && call.brief !== null) {
    const read = readBriefText(readText(call.brief));
    return read.ok ? { ok: true, value: { ...nothing, brief: read.value } } : read;
  }
  if (call.command === 'simulate' && call.events !== null) {
    const read = readEventsText(readText(call.events));
    return read.ok ? { ok: true, value: { ...nothing, events: read.value } } : read;
  }
  return { ok: true, value: nothing };
}

function simulated(
  { from, fromDay, days }: Extract<Work, { command: 'simulate' }>,
  plan: Plan,
  events: Events | null,
): Outcome<object> {
  if (!events) return attempt(() => simulationReport(from, days, simulate(plan, fromDay, days)));
  const worked = simulateEvents(plan, fromDay, days, events);
  return worked.ok ? { ok: true, value: eventsReport(from, days, worked.value) } : worked;
}

/** The water that `check` is told of, with the flows of the plan's stations; null: nothing. */
function supplyOf(
  { supply, pump }: Extract<Work, { command: 'check' }>,
  { stations }: Plan,
): SupplyNoted | null {
  if (supply === null && pump === null) return null;
  return {
    litresPerMinute: supply,
    flows: new Map(
      stations.flatMap(({ number, flowLpm }) =>
        flowLpm === undefined ? [] : [[number, flowLpm] as const],
      ),
    ),
    pump: pump && { runsOn: pump === 'unknown' ? null : pump === 'runs-on' },
  };
}

/** Output for one document. */
function report(call: Work, text: string, { brief, events }: Beside): Outcome<object> {
  if (call.command === 'plan') {
    const read = readBriefText(text);
    if (!read.ok) return read;
    const worked = attempt(() => workOut(read.value, call.on === null ? {} : { on: call.on }));
    return worked.ok ? { ok: true, value: planReport(read.value, worked.value) } : worked;
  }
  const read = readPlanText(text);
  if (!read.ok) return read;
  if (call.command === 'simulate') return simulated(call, read.value, events);
  const supply = supplyOf(call, read.value);
  return attempt(() => checkReport(check(read.value, call.on, { brief, supply })));
}

function answer(call: Work, text: string, beside: Beside): Answer {
  const given = report(call, text, beside);
  if (!given.ok) return { ok: false, lines: given.faults.map(faultLine) };
  const isWithout = 'plan' in given.value && given.value.plan === null;
  return { ok: true, report: given.value, code: isWithout ? NO_PLAN : 0 };
}

/** Prints the result for a plan and a second document. */
function together<Other, Report extends object>(
  [plan = '', other = '']: readonly string[],
  readOther: (text: string) => Outcome<Other>,
  work: (plan: Plan, other: Other) => Report,
): number {
  const read = [readPlanText(readText(plan)), readOther(readText(other))] as const;
  const [known, asked] = read;
  const worked = known.ok && asked.ok ? attempt(() => work(known.value, asked.value)) : null;
  if (worked?.ok) {
    process.stdout.write(`${JSON.stringify(worked.value, null, 2)}\n`);
    return 'plan' in worked.value && worked.value.plan === null ? NO_PLAN : 0;
  }
  for (const one of [...read, worked])
    if (one && !one.ok) process.stderr.write(`${one.faults.map(faultLine).join('\n')}\n`);
  return 1;
}

/** Runs one command and returns its exit code. */
function run(args: readonly string[]): number {
  const call = readCall(args);
  if (call.command === 'help') {
    process.stdout.write(HELP);
    return 0;
  }
  if (call.command === 'explain') return together(call.files, readSightingsText, explainReport);
  if (call.command === 'season')
    return together(call.files, readGardenText, (plan, garden) =>
      seasonReport(plan, garden, call.daily),
    );
  if (call.command === 'repair')
    return together(call.files, readBriefText, (plan, brief) =>
      repairReport(repair(plan, brief, call.on), call.on),
    );
  // Read every file before printing, so that a missing file fails the call before any output.
  const texts = call.files.map((file) => ({ file, text: readText(file) }));
  const beside = readBeside(call);
  if (!beside.ok) {
    process.stderr.write(`${beside.faults.map(faultLine).join('\n')}\n`);
    return 1;
  }
  let refused = false;
  let without = false;
  for (const { file, text } of texts) {
    const given = answer(call, text, beside.value);
    refused ||= !given.ok;
    without ||= given.ok && given.code === NO_PLAN;
    if (texts.length > 1) {
      const line = given.ok ? { file, ...given.report } : { file, refused: given.lines };
      process.stdout.write(`${JSON.stringify(line)}\n`);
    } else if (given.ok) process.stdout.write(`${JSON.stringify(given.report, null, 2)}\n`);
    else process.stderr.write(`${given.lines.join('\n')}\n`);
  }
  return refused ? 1 : without ? NO_PLAN : 0;
}

try {
  process.exitCode = run(process.argv.slice(2));
} catch (error) {
  if (!(error instanceof CallError)) throw error;
  process.stderr.write(`water-clock: ${error.message}\nwater-clock --help shows how it is used\n`);
  process.exitCode = 2;
}
