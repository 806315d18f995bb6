/** `npm run lint:unused`: unused files, exports and dependencies. Every exception has its reason. */
export default {
  workspaces: {
    '.': {
      entry: ['scripts/*.mjs', 'scripts/measure/*.mjs', 'e2e/**/*.test.ts'],
      project: ['scripts/**/*.mjs', 'e2e/**/*.ts'],
      ignoreDependencies: [
        // Run as a file, with Node.js flags.
        'jest',
        // Installed by hand for one measurement, as it says.
        'lighthouse',
      ],
    },
    'packages/core': {
      entry: ['tests/*.test.ts', 'bench/*.mjs'],
      project: ['src/**/*.ts', 'tests/**/*.ts', 'bench/**/*.mjs'],
    },
    'packages/words': { entry: ['tests/*.test.ts'], project: ['src/**/*.ts'] },
    'apps/cli': {
      entry: ['tests/*.test.ts'],
      project: ['src/**/*.ts'],
      // The tests call the command by path.
      ignoreUnresolved: ['bin/water-clock'],
    },
    'apps/server': {
      // Threads load the worker by path.
      entry: ['src/main.ts', 'src/work/thread.cts', 'tests/*.test.ts'],
      project: ['src/**/*.ts', 'tests/**/*.ts'],
      ignoreDependencies: [
        // Fonts for PDFs are read as files.
        '@fontsource/.*',
        // Types of a package that has none.
        '@types/smtp-server',
      ],
    },
    'apps/web': {
      entry: ['src/data/workers/*.worker.ts', 'tests/*.test.{ts,tsx}'],
      project: ['src/**/*.{ts,tsx}', 'tests/**/*.{ts,tsx}', '*.ts'],
      ignoreDependencies: [
        // Named in a style sheet.
        '@fontsource/.*',
      ],
    },
  },
  // Debian programs, installed by the setup or present everywhere.
  ignoreBinaries: ['pdftotext', 'pdfinfo', 'pdffonts', 'mount', 'umount', 'getent'],
};
