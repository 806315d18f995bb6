/**
 * One Jest for all packages, each its own project. It runs the bundles of scripts/test-bundles.mjs, made first by `npm run jest`: a test is
 * in .data/tests/PROJECT/ under its source path.
 */
import { PROJECTS } from './scripts/test-bundles.mjs';

const swc = [
  '@swc/jest',
  { jsc: { target: 'es2022', parser: { syntax: 'typescript' } }, module: { type: 'es6' } },
];

export default {
  reporters: ['default'],
  // A busy machine is not a failure; what must end soon has its own limit.
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
