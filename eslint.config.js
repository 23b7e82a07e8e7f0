import js from '@eslint/js';
import hooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

/** Imports run one way: web, server, cli → core, kernel; kernel → core. core knows none of them. */
const forbid = (...names) => ({
  'no-restricted-imports': [
    'error',
    { patterns: [{ group: names.flatMap((n) => [`@yellow-pin/${n}`, `@yellow-pin/${n}/*`, `**/${n}/src/**`]), message: 'Imports run one way: see docs/architecture.md.' }] },
  ],
});
const NODE = ['node:*', 'fs', 'path'].map((group) => group);

export default tseslint.config(
  { ignores: ['**/dist/**', 'node_modules/**', '.data/**', 'test-results/**', 'playwright-report/**'] },
  js.configs.recommended,
  ...tseslint.configs.recommended,
  {
    rules: {
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/no-unused-expressions': ['error', { allowShortCircuit: true, allowTernary: true }],
      'no-console': 'error',
      eqeqeq: 'error',
    },
  },
  { files: ['**/*.mjs', '*.js', 'scripts/**', 'cli/bin/**'], languageOptions: { globals: { process: 'readonly', console: 'readonly', URL: 'readonly', setTimeout: 'readonly' } } },
  {
    files: ['core/src/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              group: ['@yellow-pin/*', '**/kernel/**', '**/server/**', '**/web/**', '**/cli/**', ...NODE, 'react', 'react-*', 'typeorm', 'express'],
              message: 'core has no interface, no Node, no database.',
            },
          ],
        },
      ],
      'no-restricted-globals': ['error', 'window', 'document', 'fetch', 'process', 'performance'],
      'no-restricted-properties': [
        'error',
        { object: 'Math', property: 'random', message: 'core has no random.' },
        { object: 'Date', property: 'now', message: 'core has no clock.' },
      ],
    },
  },
  { files: ['kernel/src/**/*.ts'], ignores: ['**/*.test.ts'], rules: forbid('server', 'web', 'cli', 'demo') },
  { files: ['server/src/**/*.ts'], rules: forbid('web', 'cli') },
  { files: ['cli/src/**/*.ts'], rules: forbid('server', 'web') },
  { files: ['cli/src/part.ts', 'bench/**'], rules: { 'no-console': 'off' } },
  {
    files: ['web/src/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': hooks },
    rules: { ...forbid('server', 'cli', 'kernel', 'demo'), 'react-hooks/rules-of-hooks': 'error', 'react-hooks/exhaustive-deps': 'error' },
  },
);
