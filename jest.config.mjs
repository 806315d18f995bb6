/** One Jest for all packages, each a project of its own. ES modules throughout; swc emits them. */
const transform = {
  '^.+\\.(t|j)sx?$': [
    '@swc/jest',
    {
      jsc: {
        target: 'es2022',
        parser: { syntax: 'typescript', tsx: true, decorators: true },
        transform: {
          legacyDecorator: true,
          decoratorMetadata: true,
          useDefineForClassFields: false,
          react: { runtime: 'automatic' },
        },
        keepClassNames: true,
        // Imported JSON names its kind; without that Jest warns.
        experimental: { keepImportAttributes: true },
      },
      module: { type: 'es6' },
    },
  ],
};

const CORE = {
  '^@water-clock/core$': '<rootDir>/packages/core/src/index.ts',
  '^@water-clock/words$': '<rootDir>/packages/words/src/index.ts',
};

/** Tests that need a page are in `.test.tsx` files, and run in a simulated one. */
const project = (displayName, root, more = {}) => ({
  displayName,
  rootDir: import.meta.dirname,
  testEnvironment: 'node',
  testMatch: [`<rootDir>/${root}/**/*.test.ts`],
  extensionsToTreatAsEsm: ['.ts', '.tsx'],
  moduleNameMapper: CORE,
  transform,
  modulePathIgnorePatterns: ['<rootDir>/.*/dist/'],
  ...more,
});

export default {
  reporters: ['default'],
  // A busy machine is not a failure; whatever must end soon has a limit of its own.
  testTimeout: 120_000,
  projects: [
    project('core', 'packages/core/tests'),
    project('words', 'packages/words/tests'),
    project('cli', 'apps/cli/tests'),
    project('server', 'apps/server/tests'),
    project('web', 'apps/web/tests'),
    project('pages', 'apps/web/tests', {
      testEnvironment: 'jsdom',
      testMatch: ['<rootDir>/apps/web/tests/**/*.test.tsx'],
      setupFiles: ['<rootDir>/apps/web/tests/dom.ts'],
      moduleNameMapper: { ...CORE, '\\.css$': '<rootDir>/apps/web/tests/noStyles.ts' },
    }),
    project('e2e', 'e2e'),
  ],
};
