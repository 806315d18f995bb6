/** Groups modules that load together into one file: a hundred small files take longer and compress a tenth worse. */
import { build, type Plugin, type Rolldown, type UserConfig } from 'vite';

/** The pages opened most often. */
const PAGES: Readonly<Record<string, RegExp>> = {
  signin: /\/SignInPage\.tsx$/,
  today: /\/(OfficeFrame|TodayPage)\.tsx$/,
  sites: /\/(OfficeFrame|SitesPage)\.tsx$/,
  timer: /\/visit\/timer\/TimerPage\.tsx$/,
  board: /\/visit\/programs\/Board\.tsx$/,
  phone: /\/visit\/programs\/PhonePrograms\.tsx$/,
};

type Chunks = ReadonlyMap<string, Rolldown.OutputChunk>;

/** Every module loaded with a set of chunks. */
function modulesWith(roots: readonly Rolldown.OutputChunk[], chunks: Chunks): ReadonlySet<string> {
  const found = new Set<Rolldown.OutputChunk>();
  const waiting = [...roots];
  for (let chunk = waiting.pop(); chunk; chunk = waiting.pop()) {
    if (found.has(chunk)) continue;
    found.add(chunk);
    waiting.push(...chunk.imports.flatMap((name) => chunks.get(name) ?? []));
  }
  return new Set([...found].flatMap((chunk) => Object.keys(chunk.modules)));
}

/**
 * Runs a first build to see which modules each page needs, and names a chunk for them: `app` is always loaded; modules shared by some pages
 * are named after those pages, such as `today-sites`.
 *
 * @returns the chunk of a module; null: the bundler decides
 */
async function plannedChunks(config: UserConfig): Promise<(id: string) => string | null> {
  const { output } = (await build({
    ...config,
    configFile: false,
    logLevel: 'silent',
    build: {
      ...config.build,
      write: false,
      // It comes from a plugin that writes files, and is small.
      rolldownOptions: { external: ['virtual:pwa-register'] },
    },
  })) as Rolldown.RolldownOutput;
  const all = output.filter((one) => one.type === 'chunk');
  const chunks: Chunks = new Map(all.map((chunk) => [chunk.fileName, chunk]));
  const app = modulesWith(
    all.filter(({ isEntry }) => isEntry),
    chunks,
  );
  const pages = Object.entries(PAGES).map(
    ([name, pattern]) =>
      [
        name,
        modulesWith(
          all.filter(({ facadeModuleId }) => pattern.test(facadeModuleId ?? '')),
          chunks,
        ),
      ] as const,
  );
  // A dynamically imported module keeps a file of its own, by which the manifest finds it.
  const lazy = new Set(
    all.filter(({ isDynamicEntry }) => isDynamicEntry).map(({ facadeModuleId }) => facadeModuleId),
  );
  return (id) => {
    if (lazy.has(id)) return null;
    if (app.has(id)) return 'app';
    const names = pages.filter(([, modules]) => modules.has(id)).map(([name]) => name);
    return names.join('-') || null;
  };
}

/**
 * Adds the planned chunks. Only a build runs the planning; readers of the configuration do not wait for it.
 *
 * @param config of both builds
 */
export const chunksOf = (config: UserConfig): Plugin => ({
  name: 'planned-chunks',
  apply: 'build',
  async config() {
    const groups = [{ name: await plannedChunks(config), debugName: 'pages' }];
    const codeSplitting = { includeDependenciesRecursively: false, groups };
    return { build: { rolldownOptions: { output: { codeSplitting } } } };
  },
});

/** Every field component checks whether it is in a form, which would load the whole form module. The context alone is enough. */
export const formContextAlone = (): Plugin => ({
  name: 'form-context-alone',
  enforce: 'pre',
  resolveId(source, importer) {
    return source === '@rc-component/form' && importer?.endsWith('/antd/es/form/context.js')
      ? this.resolve('@rc-component/form/es/FormContext', importer, { skipSelf: true })
      : null;
  },
});
