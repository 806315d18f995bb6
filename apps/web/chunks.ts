/** What is loaded together comes in one file: a hundred small ones take longer, and are a tenth larger when compressed. */
import { build, type Plugin, type Rolldown, type UserConfig } from 'vite';

/** The pages that are opened most often. */
const PAGES: Readonly<Record<string, RegExp>> = {
  signin: /\/SignInPage\.tsx$/,
  today: /\/(OfficeFrame|TodayPage)\.tsx$/,
  sites: /\/(OfficeFrame|SitesPage)\.tsx$/,
  timer: /\/visit\/timer\/TimerPage\.tsx$/,
  board: /\/visit\/programs\/Board\.tsx$/,
  phone: /\/visit\/programs\/PhonePrograms\.tsx$/,
};

type Chunks = ReadonlyMap<string, Rolldown.OutputChunk>;

/** Every module that comes with some chunks. */
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
 * Builds once as the bundler divides the modules, to see which of them each page needs, and names a chunk for them: `app` is there from the start;
 * what some of the pages need is named after these, such as `today-sites`.
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
      // It comes by a plugin that writes files, and has little code.
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
  // A module that is imported when it is needed keeps a file of its own, by which the manifest knows it.
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

/** Divides the build as planned. Only a build plans: whoever reads the configuration does not wait for it. @param config of both builds */
export const chunksOf = (config: UserConfig): Plugin => ({
  name: 'planned-chunks',
  apply: 'build',
  async config() {
    const groups = [{ name: await plannedChunks(config), debugName: 'pages' }];
    const codeSplitting = { includeDependenciesRecursively: false, groups };
    return { build: { rolldownOptions: { output: { codeSplitting } } } };
  },
});

/**
 * Each field of the component library looks whether it stands in a form, and with that brings the whole form, which one page has. The context
 * alone is enough for it.
 */
export const formContextAlone = (): Plugin => ({
  name: 'form-context-alone',
  enforce: 'pre',
  resolveId(source, importer) {
    return source === '@rc-component/form' && importer?.endsWith('/antd/es/form/context.js')
      ? this.resolve('@rc-component/form/es/FormContext', importer, { skipSelf: true })
      : null;
  },
});
