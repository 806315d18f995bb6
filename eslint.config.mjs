import hooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

/** Core does not know the world around it. `npm run lint:layout` proves what imports what. */
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

/** Controls come from the component library. Hand-made are only the drawings and the cells of the board, each named here with its reason. */
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
 * The rules of the React compiler take a third of the linter's time. `bin/test` sets LINT_QUICK and leaves them out; `npm run lint` and
 * `npm run test:long` have them.
 */
const hookRules = process.env['LINT_QUICK']
  ? { 'react-hooks/rules-of-hooks': 'error', 'react-hooks/exhaustive-deps': 'warn' }
  : {
      ...hooks.configs.flat['recommended-latest'].rules,
      // It only matters to a compiler that this project does not use.
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
    // A DTO or an injected class that is imported as a type only is not there when Nest looks for it.
    files: ['apps/server/src/**/*.ts'],
    rules: { '@typescript-eslint/consistent-type-imports': 'off' },
  },
  {
    files: ['apps/web/src/**/*.{ts,tsx}'],
    ...hooks.configs.flat['recommended-latest'],
    rules: hookRules,
  },
);
