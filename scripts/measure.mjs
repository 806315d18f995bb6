/**
 * `npm run measure -- CASE [more]`: measures one thing on the built application and prints rows for docs/benchmarks.md. A case is a file in
 * scripts/measure/ whose default export does the work. Each run ends with this machine's yardstick, since its speed varies.
 */
import fs from 'node:fs';
import path from 'node:path';
import { yardstick } from '../packages/core/bench/yardstick.mjs';
import { row } from './measure/parts.mjs';

const FOLDER = path.join(import.meta.dirname, 'measure');
const names = fs
  .readdirSync(FOLDER)
  .map((file) => path.basename(file, '.mjs'))
  .filter((name) => name !== 'parts');

const [name, ...more] = process.argv.slice(2);
if (!names.includes(name)) {
  process.stderr.write(`npm run measure -- CASE, where CASE is one of: ${names.join(', ')}\n`);
  process.exit(2);
}
const { default: measure } = await import(`./measure/${name}.mjs`);
await measure(more);
row('yardstick of this machine, ms', yardstick().toFixed(0));
