import hooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

/** Core knows nothing outside itself. `npm run lint:layout` proves who imports what. */
const purity = {
  files: ['packages/core/src/**/*.ts'],
  rules: {
    'no-restricted-globals': [
      'error',
      ...['Date', 'Intl', 'Temporal', 'performance', 'crypto', 'process', 'fetch'].map((name) => ({
        name,
        message:
          'core has no clock, no zones, no randomness and no network: take it as a parameter',
      })),
    ],
    'no-restricted-properties': [
      'error',
      { object: 'Math', property: 'random', message: 'core has no randomness: take a seed' },
    ],
  },
};

/** Controls come from the component library. Only drawings and the board's cells are hand-made, each listed with its reason. */
const RAW_CONTROLS = {
  'apps/web/src/shared/charts/SmallNight.tsx': 'a night as a drawing that one presses',
  'apps/web/src/visit/programs/BoardCell.tsx':
    'cells of the board, hundreds on a page, redrawn with every key',
};
const controls = {
  files: ['apps/web/src/**/*.tsx'],
  ignores: Object.keys(RAW_CONTROLS),
  rules: {
    'no-restricted-syntax': [
      'error',
      {
        selector: 'JSXOpeningElement[name.name=/^(button|select|input|textarea|dialog|details)$/]',
        message: 'take the control from antd or from fields/',
      },
    ],
  },
};

/**
 * The React compiler rules take a third of the linter's time. `bin/test` skips them with LINT_QUICK; `npm run lint` and `npm run test:long`
 * run them.
 */
const hookRules = process.env['LINT_QUICK']
  ? { 'react-hooks/rules-of-hooks': 'error', 'react-hooks/exhaustive-deps': 'warn' }
  : {
      ...hooks.configs.flat['recommended-latest'].rules,
      // Matters only to a compiler this project does not use.
      'react-hooks/incompatible-library': 'off',
    };

export default tseslint.config(
  { ignores: ['**/dist/**', '**/node_modules/**', '.data/**', 'coverage/**'] },
  {
    files: ['**/*.{ts,tsx}'],
    extends: [...tseslint.configs.recommendedTypeChecked],
    languageOptions: {
      parserOptions: {
        project: ['./tsconfig.lint.json'],
        tsconfigRootDir: import.meta.dirname,
      },
    },
    rules: {
      eqeqeq: 'error',
      'no-console': 'error',
      '@typescript-eslint/consistent-type-imports': ['error', { fixStyle: 'inline-type-imports' }],
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', varsIgnorePattern: '^_', destructuredArrayIgnorePattern: '^_' },
      ],
      '@typescript-eslint/switch-exhaustiveness-check': [
        'error',
        { considerDefaultExhaustiveForUnions: true },
      ],
    },
  },
  purity,
  controls,
  {
    // Nest needs DTOs and injected classes at run time, which a type-only import would remove.
    files: ['apps/server/src/**/*.ts'],
    rules: { '@typescript-eslint/consistent-type-imports': 'off' },
  },
  {
    files: ['apps/web/src/**/*.{ts,tsx}'],
    ...hooks.configs.flat['recommended-latest'],
    rules: hookRules,
  },
);
