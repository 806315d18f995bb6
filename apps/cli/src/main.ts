#!/usr/bin/env node
/** `water-clock`: a thin shell over the core. Needs no server and no database (plan-format.md, The command line). */
import { readFileSync } from 'node:fs';
import {
  attempt,
  check,
  checkReport,
  faultLine,
  readPlanText,
  simulate,
  simulationReport,
  type Plan,
} from '@water-clock/core';
import { CallError, readCall, type Call } from './call.ts';
import { HELP } from './help.ts';

type Work = Exclude<Call, { command: 'help' }>;

type Answer =
  | { readonly ok: true; readonly report: object }
  | { readonly ok: false; readonly lines: readonly string[] };

function readText(file: string): string {
  try {
    return readFileSync(file === '-' ? 0 : file, 'utf8');
  } catch (error) {
    throw new CallError(`${file}: cannot be read: ${error instanceof Error ? error.message : ''}`);
  }
}

function report(call: Work, plan: Plan): object {
  return call.command === 'check'
    ? checkReport(check(plan, call.on))
    : simulationReport(call.from, call.days, simulate(plan, call.fromDay, call.days));
}

function answer(call: Work, text: string): Answer {
  const read = readPlanText(text);
  if (!read.ok) return { ok: false, lines: read.faults.map(faultLine) };
  const worked = attempt(() => report(call, read.value));
  return worked.ok
    ? { ok: true, report: worked.value }
    : { ok: false, lines: worked.faults.map(faultLine) };
}

/** Runs one call; the result is the exit code. */
function run(args: readonly string[]): number {
  const call = readCall(args);
  if (call.command === 'help') {
    process.stdout.write(HELP);
    return 0;
  }
  // All are read before anything is printed: a file that is not there is a wrong call, whatever the others say.
  const texts = call.files.map((file) => ({ file, text: readText(file) }));
  let refused = false;
  for (const { file, text } of texts) {
    const given = answer(call, text);
    refused ||= !given.ok;
    if (texts.length > 1) {
      const line = given.ok ? { file, ...given.report } : { file, refused: given.lines };
      process.stdout.write(`${JSON.stringify(line)}\n`);
    } else if (given.ok) process.stdout.write(`${JSON.stringify(given.report, null, 2)}\n`);
    else process.stderr.write(`${given.lines.join('\n')}\n`);
  }
  return refused ? 1 : 0;
}

try {
  process.exitCode = run(process.argv.slice(2));
} catch (error) {
  if (!(error instanceof CallError)) throw error;
  process.stderr.write(`water-clock: ${error.message}\nwater-clock --help shows how it is used\n`);
  process.exitCode = 2;
}
