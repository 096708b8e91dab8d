import next from '@next/eslint-plugin-next';
import a11y from 'eslint-plugin-jsx-a11y';
import hooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

const restricted = (...selectors) => [
  'error',
  ...selectors.map(([selector, message]) => ({
    selector,
    message,
  })),
];

export default tseslint.config(
  {
    ignores: [
      '.next/**',
      'public/**',
      'node_modules/**',
      'data/**',
      'next-env.d.ts',
      'test-results/**',
      'playwright-report/**',
      '.tmp/**',
      '*.cjs',
    ],
  },
  { linterOptions: { reportUnusedDisableDirectives: 'error' } },
  ...tseslint.configs.recommended,
  {
    files: ['**/*.{ts,tsx}'],
    plugins: { 'react-hooks': hooks },
    languageOptions: { parserOptions: { project: './tsconfig.json', tsconfigRootDir: import.meta.dirname } },
    rules: {
      'react-hooks/rules-of-hooks': 'error',
      'react-hooks/exhaustive-deps': 'error',
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/no-non-null-assertion': 'error',
      '@typescript-eslint/consistent-type-imports': 'error',
      // A code is an object: put into a text by mistake it reads [object Object].
      '@typescript-eslint/no-base-to-string': 'error',
      '@typescript-eslint/restrict-template-expressions': [
        'error',
        { allowNumber: true, allowBoolean: true, allowNullish: true },
      ],
      '@typescript-eslint/no-floating-promises': 'error',
      '@typescript-eslint/no-misused-promises': 'error',
      '@typescript-eslint/switch-exhaustiveness-check': 'error',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
    },
  },
  {
    files: ['src/{app,ui}/**/*.tsx'],
    plugins: { 'jsx-a11y': a11y, '@next/next': next },
    rules: {
      ...a11y.flatConfigs.recommended.rules,
      ...next.configs.recommended.rules,
      ...next.configs['core-web-vitals'].rules,
      // What scrolls must be reachable by keyboard: a region or group with a name may take the focus.
      'jsx-a11y/label-has-associated-control': [
        'error',
        { controlComponents: ['FormControl', 'FormSelect', 'FormCheckInput', 'NumberInput', 'TextInput'] },
      ],
      'jsx-a11y/no-noninteractive-tabindex': ['error', { tags: [], roles: ['tabpanel', 'region', 'group'] }],
    },
  },
  {
    files: ['src/{app,ui}/**/*.tsx'],
    ignores: ['src/ui/shared/link.tsx'],
    rules: {
      'no-restricted-imports': ['error', { name: 'next/link', message: 'ui/shared/link: pages are not fetched ahead' }],
    },
  },
  {
    // A Playwright fixture is handed a function called `use`; no component lives here.
    files: ['e2e/**/*.ts'],
    rules: { 'react-hooks/rules-of-hooks': 'off' },
  },
  {
    files: ['src/core/**/*.ts'],
    ignores: ['src/core/**/*.test.ts'],
    rules: {
      'no-restricted-syntax': restricted(
        [
          'CallExpression[callee.object.name="Date"][callee.property.name="now"]',
          'core never reads the clock: pass the time in',
        ],
        ['NewExpression[callee.name="Date"][arguments.length=0]', 'core never reads the clock: pass the time in'],
        [
          'CallExpression[callee.object.name="Math"][callee.property.name="random"]',
          'core never draws chance: pass a seed in',
        ],
      ),
      'no-restricted-globals': ['error', 'window', 'document', 'process', 'localStorage', 'fetch'],
    },
  },
  {
    // The cockpit is only there on a secure address; an office may be at http://name in the network of the school.
    files: ['src/ui/**/*.{ts,tsx}'],
    ignores: ['src/ui/fly/**'],
    rules: {
      'no-restricted-syntax': restricted([
        'MemberExpression[object.name="crypto"][property.name=/^(randomUUID|subtle)$/]',
        'not there without TLS: ui/shared/new-id',
      ]),
    },
  },
  {
    files: ['src/server/**/*.ts', 'src/app/**/*.{ts,tsx}', 'scripts/**/*.ts', 'demo/**/*.ts'],
    ignores: ['src/server/floor/write.ts', '**/*.test.ts'],
    rules: {
      'no-restricted-syntax': restricted(
        ['CallExpression[callee.property.name="transaction"]', 'only server/floor/write opens a transaction'],
        [
          'CallExpression[callee.property.name=/^(removeColumn|changeColumn|addConstraint)$/]',
          'these recreate the table on SQLite and lose triggers: write raw SQL',
        ],
      ),
    },
  },
);
