import path from 'node:path';
import { build, type Plugin } from 'vite';

const FIRST = path.join(import.meta.dirname, 'src/first.ts');

/** All that `first.ts` needs in one text. Built apart, it does not change how the application is divided into files. */
async function builtFirst(): Promise<string> {
  const built = await build({
    ...{ configFile: false, logLevel: 'warn', publicDir: false },
    build: {
      ...{ write: false, target: 'es2022', modulePreload: false },
      rolldownOptions: { input: FIRST, output: { codeSplitting: false } },
    },
  });
  const [output] = [built].flat();
  const code = output && 'output' in output ? output.output[0].code : '';
  if (code === '') throw new Error('first.ts was not built');
  return code;
}

/** Has the built page run `first.ts` in place of the application, of which it is told the address. It fetches the rest itself. */
export function firstScript(): Plugin {
  let first = '';
  return {
    name: 'first-script',
    apply: 'build',
    async generateBundle() {
      const file = this.emitFile({ type: 'asset', name: 'first.js', source: await builtFirst() });
      first = this.getFileName(file);
    },
    transformIndexHtml: {
      order: 'post',
      handler: (html) => html.replace(/src="(\/assets\/[^"]*)"/u, `src="/${first}" data-main="$1"`),
    },
  };
}
