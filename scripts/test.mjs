/**
 * bin/test: sets everything up and runs every check there is, on a database cluster of its own. Ends with one line
 * `N passed, N failed`: each of the checks before Jest counts as one, each of Jest's tests as one.
 */
import { spawn } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { removeOrphans, startCluster } from './cluster.mjs';
import { chromiumProgram, DATA, ROOT, say, setUp } from './setup.mjs';

const jestArguments = process.argv.slice(2);
setUp({ database: true, browser: true, web: true, paper: true });

const CHECKS = [
  ['Format', ['run', '-s', 'format:check']],
  ['Types', ['run', '-s', 'typecheck']],
  ['Lint', ['run', '-s', 'lint']],
];

let passed = 0;
let failed = 0;
// With arguments for Jest somebody is at work on a test; then only those run. Lint takes longest; the others run beside it.
await Promise.all(
  (jestArguments.length > 0 ? [] : CHECKS).map(async ([name, args]) => {
    const began = performance.now();
    const status = await new Promise((resolve) => {
      spawn('npm', args, { cwd: ROOT, stdio: ['ignore', 2, 2] }).once('exit', resolve);
    });
    const seconds = ((performance.now() - began) / 1000).toFixed(1);
    say(`${status === 0 ? 'passed' : 'FAILED'}  ${name} (${seconds} s)`);
    if (status === 0) passed++;
    else failed++;
  }),
);

const prefix = 'test-';
removeOrphans(prefix);
const cluster = await startCluster({ name: `${prefix}${process.pid}`, throwAway: true });
const results = path.join(DATA, `jest-${process.pid}.json`);
let child;
for (const signal of ['SIGINT', 'SIGTERM'])
  process.on(signal, () => {
    child?.kill(signal);
    process.exitCode = 1;
  });
try {
  await new Promise((resolve) => {
    child = spawn(
      process.execPath,
      [
        '--experimental-vm-modules',
        '--disable-warning=ExperimentalWarning',
        'node_modules/jest/bin/jest.js',
        // One for each processor; Jest itself would leave one of two idle.
        `--maxWorkers=${os.availableParallelism()}`,
        '--json',
        `--outputFile=${results}`,
        ...jestArguments,
      ],
      {
        cwd: ROOT,
        env: {
          ...process.env,
          TEST_DATABASE_ADMIN_URL: cluster.url('postgres'),
          CHROMIUM: chromiumProgram(),
        },
        // Jest prints its JSON on standard output too; the report for people goes to standard error.
        stdio: ['ignore', 'ignore', 2],
      },
    );
    child.once('exit', resolve);
  });
} finally {
  cluster.remove();
}
if (fs.existsSync(results)) {
  const report = JSON.parse(fs.readFileSync(results, 'utf8'));
  passed += report.numPassedTests;
  failed += report.numFailedTests + report.numRuntimeErrorTestSuites;
  if (report.numTotalTests === 0) failed++;
  fs.rmSync(results);
} else failed++;
process.stdout.write(`${passed} passed, ${failed} failed\n`);
process.exitCode = failed > 0 ? 1 : process.exitCode;
