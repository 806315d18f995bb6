import fs from 'node:fs';
import path from 'node:path';
import ts from 'typescript';

/** Makes a module next to the tests usable in benchmarks: stripped of its types into the build folder, next to the built core. Build first. */
export async function fromTests(name) {
  const source = fs.readFileSync(path.join(import.meta.dirname, `../tests/${name}.ts`), 'utf8');
  // Its local imports must be there first.
  for (const [, beside] of source.matchAll(/ from '\.\/(\w+)\.ts'/g)) await fromTests(beside);
  const here = source
    .replaceAll(/'\.\/(\w+)\.ts'/g, "'./bench-$1.mjs'")
    .replaceAll(/'\.\.\/src\/([\w/]+)\.ts'/g, "'./$1.js'");
  const options = { target: ts.ScriptTarget.ES2022, module: ts.ModuleKind.ESNext };
  const file = path.join(import.meta.dirname, `../dist/bench-${name}.mjs`);
  fs.writeFileSync(file, ts.transpileModule(here, { compilerOptions: options }).outputText);
  return import(file);
}
