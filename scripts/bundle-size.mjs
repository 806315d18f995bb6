/** Gzipped JavaScript that the built application loads for sign-in, the office, and the first screen of a timer. */
import fs from 'node:fs';
import path from 'node:path';
import { gzipSync } from 'node:zlib';
import { ROOT } from './setup.mjs';

const DIST = path.join(ROOT, 'apps/web/dist');
const manifest = JSON.parse(fs.readFileSync(path.join(DIST, '.vite/manifest.json'), 'utf8'));

/** Every file loaded with a manifest entry. */
function filesWith(name, found = new Set()) {
  const { file, imports = [] } = manifest[name];
  if (!found.has(file)) {
    found.add(file);
    for (const one of imports) filesWith(one, found);
  }
  return found;
}

/** A worker by name, which the manifest does not list. */
function workerNamed(name) {
  const file = fs
    .readdirSync(path.join(DIST, 'assets'))
    .find((one) => one.startsWith(`${name}.worker-`));
  if (!file) throw new Error(`no worker ${name} in apps/web/dist; build first`);
  return `assets/${file}`;
}

const kilobytes = (files) =>
  [...files].reduce(
    (sum, file) => sum + gzipSync(fs.readFileSync(path.join(DIST, file))).length,
    0,
  ) / 1000;

const page = (...names) => [
  ...filesWith('index.html'),
  ...names.flatMap((name) => [...filesWith(`src/${name}.tsx`)]),
];
const OFFICE = 'app/frame/OfficeFrame';
const TIMER = 'visit/timer/TimerPage';
const worker = workerNamed('timer');
const rows = [
  ['sign-in', page('office/account/SignInPage'), 190],
  ['today', page(OFFICE, 'office/today/TodayPage'), 290],
  ['sites', page(OFFICE, 'office/sites/SitesPage'), 370],
  ['first screen of a timer', [...page(TIMER, 'visit/programs/Board'), worker], 380],
  ['the same on a phone', [...page(TIMER, 'visit/programs/PhonePrograms'), worker], 380],
];
let isOver = false;
for (const [what, loaded, most] of rows) {
  const files = new Set(loaded);
  const size = kilobytes(files);
  isOver ||= size > most;
  console.log(
    `${what}: ${size.toFixed(0)} kB of JavaScript, gzipped, in ${files.size} files (at most ${most})`,
  );
}
process.exit(isOver ? 1 : 0);
