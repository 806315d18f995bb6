import hooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

/** The house rule: web → core ← server, and core knows neither the applications nor the world. */
const purity = {
  files: ['packages/core/src/**/*.ts'],
  rules: {
    'no-restricted-imports': [
      'error',
      { patterns: [{ regex: '^[^.]|\\.\\./\\.\\.', message: 'core imports nothing but itself' }] },
    ],
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

const apart = (files, others) => ({
  files: [`${files}/**/*.{ts,tsx}`],
  rules: {
    'no-restricted-imports': [
      'error',
      {
        patterns: [
          {
            regex: `(apps/(${others})/|@water-clock/(${others})\\b)`,
            message: 'applications do not import one another',
          },
          { regex: '@water-clock/core/', message: 'use what core exports by name' },
        ],
      },
    ],
  },
});

export default tseslint.config(
  { ignores: ['**/dist/**', '**/node_modules/**', '.data/**', 'coverage/**'] },
  {
    files: ['**/*.{ts,tsx}'],
    extends: [...tseslint.configs.recommendedTypeChecked],
    languageOptions: {
      parserOptions: {
        project: ['./packages/*/tsconfig.json', './apps/*/tsconfig.json', './tsconfig.tests.json'],
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
  apart('apps/web', 'server|cli'),
  apart('apps/server', 'web|cli'),
  apart('apps/cli', 'web|server'),
  {
    // A DTO or an injected class that is imported as a type only is not there when Nest looks for it.
    files: ['apps/server/src/**/*.ts'],
    rules: { '@typescript-eslint/consistent-type-imports': 'off' },
  },
  {
    files: ['apps/web/**/*.{ts,tsx}'],
    ...hooks.configs.flat['recommended-latest'],
  },
);
