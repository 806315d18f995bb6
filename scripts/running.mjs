/** What bin/start writes down about itself while running. */
import fs from 'node:fs';
import path from 'node:path';
import { DATA } from './setup.mjs';

const RUNNING = path.join(DATA, 'running.json');

/** What this or an earlier start wrote down; empty if none did. */
export function noted() {
  try {
    return JSON.parse(fs.readFileSync(RUNNING, 'utf8'));
  } catch {
    return {};
  }
}

export const note = (facts) => fs.writeFileSync(RUNNING, JSON.stringify(facts));

export const forget = () => fs.rmSync(RUNNING, { force: true });
