/**
 * One Jest for all packages, each a project of its own. What runs are the bundles of scripts/test-bundles.mjs, which `npm run jest` makes first: a
 * test stands in .data/tests/PROJECT/ under the path of its source.
 */
import { PROJECTS } from './scripts/test-bundles.mjs';

const swc = [
  '@swc/jest',
  { jsc: { target: 'es2022', parser: { syntax: 'typescript' } }, module: { type: 'es6' } },
];

export default {
  reporters: ['default'],
  // A busy machine is not a failure; whatever must end soon has a limit of its own.
  testTimeout: 300_000,
  projects: Object.entries(PROJECTS).map(([name, { environment = 'node', setup = [] }]) => ({
    displayName: name,
    rootDir: import.meta.dirname,
    roots: [`<rootDir>/.data/tests/${name}`],
    testMatch: ['**/*.test.js'],
    testEnvironment: environment,
    setupFiles: setup.map((file) => `<rootDir>/${file}`),
    extensionsToTreatAsEsm: ['.ts'],
    transform: { '/\\.data/tests/.*\\.js$': '<rootDir>/scripts/bundle-maps.mjs', '\\.ts$': swc },
  })),
};
