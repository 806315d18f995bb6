/**
 * bin/test: sets everything up and runs every check, on its own database cluster. Reports times, and ends with one line `N passed, N
 * failed`: each check besides Jest counts as one, and so does each Jest test.
 */
import { spawn } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { removeOrphans, startCluster } from './cluster.mjs';
import { chromiumProgram, DATA, ROOT, say, setUp } from './setup.mjs';
import { BUNDLES, bundleTests, projectsIn } from './test-bundles.mjs';
import { makeTemplate } from './test-database.mjs';

const jestArguments = process.argv.slice(2);
/** `npm run test:long`. */
const isLong = process.env['CASES'] === '1';
const times = [];
/** Each test file with its seconds. */
const files = [];
const SLOWEST = 10;
let passed = 0;
let failed = 0;
const children = new Set();
for (const signal of ['SIGINT', 'SIGTERM'])
  process.on(signal, () => {
    for (const child of children) child.kill(signal);
    process.exitCode = 1;
  });

/** Runs a step and notes its time. */
async function timed(name, work) {
  const began = performance.now();
  const result = await work();
  times.push([name, (performance.now() - began) / 1000]);
  return result;
}

/** Exit status of a command; its output goes to standard error. */
function run(command, args, { env = process.env, stdout = 2 } = {}) {
  return new Promise((resolve) => {
    const child = spawn(command, args, { cwd: ROOT, env, stdio: ['ignore', stdout, 2] });
    children.add(child);
    child.once('exit', (status) => {
      children.delete(child);
      resolve(status);
    });
  });
}

async function check(name, script, env = process.env) {
  const status = await timed(name, () => run('npm', ['run', '-s', script], { env }));
  say(`${status === 0 ? 'passed' : 'FAILED'}  ${name}`);
  if (status === 0) passed++;
  else failed++;
}

/** Checks of the code itself: the linter on one processor, the others on the second. */
const checks = () =>
  Promise.all([
    check('Lint', 'lint:code', { ...process.env, ...(isLong ? {} : { LINT_QUICK: '1' }) }),
    (async () => {
      await check('Types', 'typecheck');
      await check('Format', 'format:check');
      await check('Layout', 'lint:layout');
      await check('Unused code', 'lint:unused');
      await check('Sizes', 'lint:size');
    })(),
  ]);

/** @param {number} workers Jest's processes */
async function jest(name, args, env, workers = os.availableParallelism()) {
  const results = path.join(DATA, `jest-${process.pid}-${name}.json`);
  const flags = ['--experimental-vm-modules', '--disable-warning=ExperimentalWarning'];
  await timed(`Tests: ${name}`, () =>
    run(
      process.execPath,
      [
        ...flags,
        'node_modules/jest/bin/jest.js',
        `--maxWorkers=${workers}`,
        // Jest prints its JSON to standard output; the report for people goes to standard error.
        '--json',
        `--outputFile=${results}`,
        ...args,
      ],
      { env: { ...process.env, ...env }, stdout: 'ignore' },
    ),
  );
  if (!fs.existsSync(results)) {
    failed++;
    return;
  }
  const report = JSON.parse(fs.readFileSync(results, 'utf8'));
  fs.rmSync(results);
  passed += report.numPassedTests;
  failed += report.numFailedTests + report.numRuntimeErrorTestSuites;
  if (report.numTotalTests === 0) failed++;
  for (const { name: file, startTime, endTime } of report.testResults)
    files.push([path.relative(BUNDLES, file), (endTime - startTime) / 1000]);
}

const projects = (...names) => ['--selectProjects', ...names];

await timed('Setup and build', () =>
  setUp({ database: true, browser: true, web: true, paper: true }),
);
await timed('Bundling of the tests', () =>
  bundleTests(projectsIn(jestArguments), jestArguments.length === 0),
);
const prefix = 'test-';
removeOrphans(prefix);
const cluster = await startCluster({ name: `${prefix}${process.pid}`, throwAway: true });
const env = { TEST_DATABASE_ADMIN_URL: cluster.url('postgres'), CHROMIUM: chromiumProgram() };
try {
  await timed('Demo data', () => makeTemplate(env.TEST_DATABASE_ADMIN_URL, DATA));
  // A browser leaves its processor idle a third of the time, so there is one extra worker.
  const many = os.availableParallelism() + 1;
  if (jestArguments.length > 0) await jest('as asked', jestArguments, env, many);
  else {
    await checks();
    await jest('units', projects('core', 'words', 'cli', 'web', 'pages'), env);
    await jest('server and interface', projects('server', 'e2e'), env, many);
  }
} finally {
  cluster.remove();
}
const row = ([name, seconds]) => say(`${seconds.toFixed(1).padStart(7)} s  ${name}`);
times.forEach(row);
say(`The ${SLOWEST} slowest files:`);
files
  .sort(([, a], [, b]) => b - a)
  .slice(0, SLOWEST)
  .forEach(row);
process.stdout.write(`${passed} passed, ${failed} failed\n`);
process.exitCode = failed > 0 ? 1 : process.exitCode;
