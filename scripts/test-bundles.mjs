/**
 * Bundles each project's tests for Jest: one file for each test, and a few shared ones for core, packages and application. Jest loads every
 * module again for every test file, so a page test read 1,500 files before it began; now it reads four.
 */
import fs from 'node:fs';
import path from 'node:path';
import { pathToFileURL } from 'node:url';
import { ROOT } from './setup.mjs';

/** Output folder; each bundle has the path of its source there. */
export const BUNDLES = path.join(ROOT, '.data/tests');

/** Packages not bundled: native ones, and those that locate their own files. */
const EXTERNAL = ['sharp', '@node-rs/argon2', 'piscina', 'dockerfile-utils', 'puppeteer-core'];

/** Jest's projects: where their tests are. */
export const PROJECTS = {
  core: { folder: 'packages/core/tests' },
  words: { folder: 'packages/words/tests', external: ['typescript'] },
  cli: { folder: 'apps/cli/tests' },
  web: { folder: 'apps/web/tests' },
  pages: {
    folder: 'apps/web/tests',
    ending: '.test.tsx',
    platform: 'browser',
    environment: 'jsdom',
    setup: ['apps/web/tests/dom.ts'],
  },
  // A third of a file's time was loading the server's modules; in a whole run they load once for several files.
  server: { folder: 'apps/server/tests', groups: 5 },
  e2e: { folder: 'e2e' },
};

const SHARED = [
  { name: 'core', test: /\/packages\/(core|words)\/src\// },
  { name: 'packages', test: /\/node_modules\// },
  { name: 'application', test: /\/(apps\/[a-z]+\/(src|dist)|scripts)\// },
];

/** A bundled module still finds files next to its source. */
const ownPlace = {
  name: 'own-place',
  transform: {
    filter: { code: /import\.meta\.(url|dirname|filename)|\b__(dirname|filename)\b/ },
    handler(code, id) {
      const places = { url: pathToFileURL(id).href, dirname: path.dirname(id), filename: id };
      const declares = /\b(const|let|var) __(dirname|filename)\b/.test(code);
      const place = (_, name) => JSON.stringify(places[name]);
      const own = code.replaceAll(/import\.meta\.(url|dirname|filename)/g, place);
      return declares ? own : own.replaceAll(/\b__(dirname|filename)\b/g, place);
    },
  },
};

/** A catalogue's keys are sentences; unless it is imported as a whole, each would become a name. */
const jsonWhole = {
  name: 'json-whole',
  load: {
    filter: { id: /^(?!.*node_modules).*\.json$/ },
    handler: (id) => ({
      code: `export default ${fs.readFileSync(id, 'utf8')}`,
      moduleType: 'js',
    }),
  },
};

/** Modules that run some test files, each in a `describe` of its own name. */
const groupsOf = (files, count) =>
  Array.from({ length: count }, (_, n) => files.filter((_file, i) => i % count === n)).map(
    (group) =>
      [
        `import { describe } from '@jest/globals';`,
        ...group.map(
          (file) => `describe('${path.basename(file)}', () => { require('${file}'); });`,
        ),
      ].join('\n'),
  );

const GROUP = 'group:';

async function bundle(name, isGrouped) {
  const { folder, ending = '.test.ts', platform = 'node', external = [], groups } = PROJECTS[name];
  const files = fs
    .readdirSync(path.join(ROOT, folder))
    .filter((file) => file.endsWith(ending))
    .map((file) => path.join(ROOT, folder, file));
  const grouped = groups && isGrouped ? groupsOf(files, groups) : [];
  const tests =
    grouped.length > 0
      ? grouped.map((_, n) => [path.join(folder, `group-${n + 1}.test`), `${GROUP}${n}`])
      : files.map((file) => [path.relative(ROOT, file).replace(/\.tsx?$/, ''), file]);
  const inGroups = {
    name: 'in-groups',
    resolveId: (id) => (id.startsWith(GROUP) ? id : null),
    load: (id) => (id.startsWith(GROUP) ? grouped[Number(id.slice(GROUP.length))] : null),
  };
  // Missing in a fresh clone before setup.
  const { rolldown } = await import('rolldown');
  const isLeft = (id) =>
    [...EXTERNAL, ...external].some((one) => id === one || id.startsWith(`${one}/`));
  const made = await rolldown({
    cwd: ROOT,
    input: Object.fromEntries(tests),
    platform,
    external: (id) => id.startsWith('node:') || id === '@jest/globals' || isLeft(id),
    resolve: {
      alias: {
        '@water-clock/core': path.join(ROOT, 'packages/core/src/index.ts'),
        '@water-clock/words': path.join(ROOT, 'packages/words/src/index.ts'),
      },
    },
    transform: { define: { 'process.env.NODE_ENV': '"test"' } },
    moduleTypes: { '.css': 'empty' },
    plugins: [inGroups, ownPlace, jsonWhole],
    tsconfig: path.join(ROOT, 'tsconfig.tests.json'),
    // Its warnings are about libraries; our code is checked by the compiler and the linter.
    logLevel: 'silent',
  });
  try {
    await made.write({
      dir: path.join(BUNDLES, name),
      format: 'esm',
      sourcemap: true,
      entryFileNames: '[name].js',
      chunkFileNames: `${folder}/[name].js`,
      codeSplitting: { groups: SHARED },
      // Modules run when first imported, as without bundles.
      strictExecutionOrder: true,
    });
  } finally {
    await made.close();
  }
}

/**
 * @param {readonly string[]} names of projects
 * @param {boolean} isGrouped whether files share a bundle where their project says so; single files can then not be run
 */
export async function bundleTests(names = Object.keys(PROJECTS), isGrouped = false) {
  // Jest reads the folders of all projects, also of those it does not run.
  for (const name of Object.keys(PROJECTS))
    fs.mkdirSync(path.join(BUNDLES, name), { recursive: true });
  for (const name of names) {
    fs.rmSync(path.join(BUNDLES, name), { recursive: true, force: true });
    await bundle(name, isGrouped);
  }
}

/** Projects named in Jest's arguments; undefined: all. */
export function projectsIn(given) {
  const from = given.findIndex((one) => one.startsWith('--selectProjects'));
  if (from < 0) return undefined;
  const names = given.slice(from).join(' ').replace('=', ' ').split(' ').slice(1);
  const end = names.findIndex((one) => one.startsWith('-'));
  return names.slice(0, end < 0 ? names.length : end);
}
