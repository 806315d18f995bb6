/** `npm run jest`: bundles the tests of the given projects and passes all arguments to Jest. */
import { spawnSync } from 'node:child_process';
import { setUp } from './setup.mjs';
import { bundleTests, projectsIn } from './test-bundles.mjs';

const given = process.argv.slice(2);
setUp({});
await bundleTests(projectsIn(given));
const { status } = spawnSync(
  process.execPath,
  [
    '--experimental-vm-modules',
    '--disable-warning=ExperimentalWarning',
    'node_modules/jest/bin/jest.js',
    ...given,
  ],
  { stdio: 'inherit' },
);
process.exitCode = status ?? 1;
