/** How much JavaScript the built application loads, gzipped: for the sign-in, and for the first screen of a timer. */
import fs from 'node:fs';
import path from 'node:path';
import { gzipSync } from 'node:zlib';
import { ROOT } from './setup.mjs';

const DIST = path.join(ROOT, 'apps/web/dist');

/** Every file that a built file imports at once, itself with them. */
function withImports(file, found = new Set()) {
  if (found.has(file)) return found;
  found.add(file);
  const code = fs.readFileSync(path.join(DIST, file), 'utf8');
  for (const [, name] of code.matchAll(/(?:from|import)\s*["']\.\/([\w.-]+\.js)["']/g))
    withImports(`assets/${name}`, found);
  return found;
}

const built = (name) => {
  const file = fs
    .readdirSync(path.join(DIST, 'assets'))
    .find((one) => one.startsWith(`${name}-`) && one.endsWith('.js'));
  if (!file) throw new Error(`no ${name} in apps/web/dist; build first`);
  return `assets/${file}`;
};
const [, main = ''] =
  /<script type="module"[^>]* src="\/(assets\/[^"]+\.js)"/.exec(
    fs.readFileSync(path.join(DIST, 'index.html'), 'utf8'),
  ) ?? [];
const kilobytes = (files) =>
  [...files].reduce(
    (sum, file) => sum + gzipSync(fs.readFileSync(path.join(DIST, file))).length,
    0,
  ) / 1000;

const entry = withImports(main);
const rows = [
  ['sign-in', new Set([...entry, ...withImports(built('SignInPage'))]), 220],
  [
    'first screen of a timer',
    new Set([...entry, ...withImports(built('TimerPage')), built('timer.worker')]),
    480,
  ],
];
let isOver = false;
for (const [what, files, most] of rows) {
  const size = kilobytes(files);
  isOver ||= size > most;
  console.log(
    `${what}: ${size.toFixed(0)} kB of JavaScript, gzipped, in ${files.size} files (at most ${most})`,
  );
}
process.exit(isOver ? 1 : 0);
