/**
 * Prepares a fresh clone: Debian packages, node_modules, builds. Does only what is missing or stale, so that a second call takes a moment.
 * Uses only Node.js itself.
 */
import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import fs from 'node:fs';
import path from 'node:path';

export const ROOT = path.resolve(import.meta.dirname, '..');
/** Where the setup keeps its notes. */
const BUILD = path.join(ROOT, '.data');
/** Where the database, the log and runtime files are kept. */
export const DATA = path.resolve(process.env.WATER_CLOCK_DATA ?? BUILD);
const LEAST_NODE = [20, 19];

/** Messages go to standard error, so that a command's own output stays clean. */
export const say = (text) => process.stderr.write(`${text}\n`);

export const isRoot = process.getuid() === 0;

function run(command, args, options = {}) {
  execFileSync(command, args, { cwd: ROOT, stdio: ['ignore', 2, 2], ...options });
}

export function findProgram(name) {
  const folders = (process.env.PATH ?? '').split(':');
  return folders.map((folder) => path.join(folder, name)).find((file) => fs.existsSync(file));
}

/** Folder of the newest PostgreSQL that has a program, in Debian's layout, or null: a server has `initdb`, a client only `pg_dump`. */
export function postgresPrograms(program = 'initdb') {
  const base = '/usr/lib/postgresql';
  const versions = fs.existsSync(base) ? fs.readdirSync(base).map(Number) : [];
  return (
    versions
      .sort((a, b) => b - a)
      .map((version) => path.join(base, String(version), 'bin'))
      .find((folder) => fs.existsSync(path.join(folder, program))) ?? null
  );
}

/** The browser without a window system: the same with a third less processor time. */
const SMALL_CHROMIUM = 'chromium-headless-shell';

export const chromiumProgram = () =>
  process.env.CHROMIUM ?? findProgram(SMALL_CHROMIUM) ?? findProgram('chromium') ?? null;

function installDebianPackages(packages) {
  if (!findProgram('apt-get'))
    throw new Error(`missing: ${packages.join(', ')}; this is no Debian, so install them by hand`);
  const asRoot = (command, args) =>
    isRoot ? run(command, args) : run('sudo', [command, ...args], { stdio: ['inherit', 2, 2] });
  if (!isRoot && !findProgram('sudo'))
    throw new Error(`missing: ${packages.join(', ')}; install them as root, or install sudo`);
  say(`Installing from Debian's packages: ${packages.join(', ')}`);
  if (packages.includes('postgresql')) {
    // Keeps Debian from creating and starting its own cluster; ours is private.
    const file = '/etc/postgresql-common/createcluster.conf';
    if (!fs.existsSync(file))
      asRoot('sh', [
        '-c',
        `mkdir -p /etc/postgresql-common && echo 'create_main_cluster = false' > ${file}`,
      ]);
  }
  const quiet = ['-qq', '-o', 'Dpkg::Use-Pty=0', '-o', 'Dpkg::Options::=--force-confold'];
  asRoot('apt-get', ['update', '-qq']);
  asRoot('env', [
    'DEBIAN_FRONTEND=noninteractive',
    'apt-get',
    'install',
    '-y',
    '--no-install-recommends',
    ...quiet,
    ...packages,
  ]);
}

function sourceFiles(folder) {
  return fs.readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const full = path.join(folder, entry.name);
    if (entry.isDirectory())
      return ['node_modules', 'dist', 'tests', 'bench', 'compiled'].includes(entry.name)
        ? []
        : sourceFiles(full);
    return entry.name.endsWith('.tsbuildinfo') ? [] : [full];
  });
}

/** SHA-256 over the contents of files and folders; equal sources give equal text. */
function fingerprint(places) {
  const hash = createHash('sha256').update(process.version);
  for (const place of places) {
    const full = path.join(ROOT, place);
    const files = fs.statSync(full).isDirectory() ? sourceFiles(full).sort() : [full];
    for (const file of files) hash.update(path.relative(ROOT, file)).update(fs.readFileSync(file));
  }
  return hash.digest('hex');
}

/** Runs `make` unless it ran for the same sources before and its output still exists. */
function whereStale(stampFile, sources, products, make) {
  const wanted = fingerprint(sources);
  const made = fs.existsSync(stampFile) && fs.readFileSync(stampFile, 'utf8') === wanted;
  if (made && products.every((product) => fs.existsSync(path.join(ROOT, product)))) return;
  make();
  fs.mkdirSync(path.dirname(stampFile), { recursive: true });
  fs.writeFileSync(stampFile, wanted);
}

function alive(pid) {
  try {
    process.kill(pid, 0);
    return true;
  } catch {
    return false;
  }
}

/** One setup at a time, so that bin/start and bin/test may be run together in a fresh clone. */
function locked(work) {
  for (const folder of [BUILD, DATA]) fs.mkdirSync(folder, { recursive: true });
  const lock = path.join(BUILD, 'setup.lock');
  for (let told = false; ;) {
    try {
      fs.writeFileSync(lock, String(process.pid), { flag: 'wx' });
      break;
    } catch {
      const owner = Number(fs.existsSync(lock) ? fs.readFileSync(lock, 'utf8') : 0);
      if (owner > 0 && !alive(owner)) fs.rmSync(lock, { force: true });
      else {
        if (!told) say('Waiting for another setup to finish …');
        told = true;
        Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0, 300);
      }
    }
  }
  try {
    work();
  } finally {
    fs.rmSync(lock, { force: true });
  }
}

const LOCAL = ['package.json', 'package-lock.json', 'tsconfig.base.json', 'scripts/words'];
const TYPESCRIPT = ['packages/core', 'packages/words', 'apps/cli', 'apps/server'];

/** @param {{ database?: boolean, browser?: boolean, web?: boolean, paper?: boolean }} needs `paper`: tools that read PDF files */
export function setUp({ database = false, browser = false, web = false, paper = false }) {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major < LEAST_NODE[0] || (major === LEAST_NODE[0] && minor < LEAST_NODE[1]))
    throw new Error(`Node.js ${process.version} is too old; ${LEAST_NODE.join('.')} is needed`);
  locked(() => {
    const missing = [];
    if (database && !postgresPrograms()) missing.push('postgresql');
    if (browser && !process.env.CHROMIUM && !findProgram(SMALL_CHROMIUM))
      missing.push(SMALL_CHROMIUM);
    if (paper && !findProgram('pdftotext')) missing.push('poppler-utils');
    try {
      if (missing.length > 0) installDebianPackages(missing);
    } catch (error) {
      // A full browser works as well, if there is one.
      if (missing.some((one) => one !== SMALL_CHROMIUM) || !chromiumProgram()) throw error;
    }
    whereStale(
      path.join(ROOT, 'node_modules/.water-clock-stamp'),
      ['package-lock.json'],
      ['node_modules/typescript-native'],
      () => {
        say('Installing packages (npm ci) …');
        run('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error']);
      },
    );
    whereStale(
      path.join(BUILD, 'built-ts'),
      [...LOCAL, ...TYPESCRIPT],
      TYPESCRIPT.map((place) => `${place}/dist`),
      () => {
        say('Building the core, the command line and the server …');
        run('npm', ['run', '-s', 'build:ts']);
      },
    );
    if (web)
      whereStale(
        path.join(BUILD, 'built-web'),
        [...LOCAL, 'packages/core', 'packages/words', 'apps/web'],
        ['apps/web/dist/index.html'],
        () => {
          say('Building the web application …');
          run('npm', ['run', '-s', 'build', '-w', 'apps/web']);
        },
      );
  });
}
