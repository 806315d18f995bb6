/** Proves the layout: no cycles between files or folders, and web → core ← server. `npm run lint:layout`. */
const apart = (application, others) => ({
  name: `${application}-apart`,
  comment: 'Applications do not import one another.',
  severity: 'error',
  from: { path: `^apps/${application}/src` },
  to: { path: `^apps/(${others})/` },
});

export default {
  forbidden: [
    {
      name: 'no-cycle-of-files',
      severity: 'error',
      from: {},
      to: { circular: true },
    },
    {
      name: 'no-cycle-of-folders',
      severity: 'error',
      scope: 'folder',
      from: {},
      to: { circular: true },
    },
    {
      name: 'core-is-alone',
      comment: 'Core imports nothing but itself.',
      severity: 'error',
      from: { path: '^packages/core/src' },
      to: { pathNot: '^packages/core/src' },
    },
    {
      name: 'words-say-and-no-more',
      severity: 'error',
      from: { path: '^packages/words/src' },
      to: { path: '^apps/' },
    },
    {
      name: 'core-by-its-index',
      comment: 'Applications use what the index of core exports.',
      severity: 'error',
      from: { path: '^apps/[^/]+/src' },
      to: { path: '^packages/core/(src|dist)/(?!index\\.(ts|d\\.ts|js)$)' },
    },
    apart('web', 'server|cli'),
    apart('server', 'web|cli'),
    apart('cli', 'web|server'),
  ],
  options: {
    doNotFollow: { path: 'node_modules|/dist/' },
    exclude: { path: '\\.css$' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.base.json' },
    enhancedResolveOptions: { extensions: ['.ts', '.tsx', '.mjs', '.js'] },
  },
};
