/** `npm run lint:unused`: files, exports and dependencies that nobody uses. Every exception has its reason. */
export default {
  workspaces: {
    '.': {
      entry: ['scripts/*.mjs', 'scripts/measure/*.mjs', 'e2e/**/*.test.ts'],
      project: ['scripts/**/*.mjs', 'e2e/**/*.ts'],
      ignoreDependencies: [
        // Run by its file, with flags of Node.js.
        'jest',
        // Installed by hand for one measurement, which says so.
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
      // The tests call the command by its path.
      ignoreUnresolved: ['bin/water-clock'],
    },
    'apps/server': {
      // Threads run the worker by its file.
      entry: ['src/main.ts', 'src/work/thread.cts', 'tests/*.test.ts'],
      project: ['src/**/*.ts', 'tests/**/*.ts'],
      ignoreDependencies: [
        // Fonts for paper are read as files.
        '@fontsource/.*',
        // The types of a package without its own.
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
  // Programs of Debian, which setting up installs or which every system has.
  ignoreBinaries: ['pdftotext', 'pdfinfo', 'pdffonts', 'mount', 'umount', 'getent'],
};
