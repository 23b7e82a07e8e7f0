import js from '@eslint/js';
import hooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

/** Imports run one way: web, server, cli → core, kernel; kernel → core. core knows none of them. */
const forbid = (...names) => ({
  'no-restricted-imports': [
    'error',
    {
      patterns: [
        {
          group: names.flatMap((n) => [`@yellow-pin/${n}`, `@yellow-pin/${n}/*`, `**/${n}/src/**`]),
          message: 'Imports run one way: see docs/architecture.md.',
        },
      ],
    },
  ],
});
const COLOURS = 'Colours have names: see web/src/look/palette.ts.';
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
  {
    files: ['**/*.mjs', '*.js', 'scripts/**', 'cli/bin/**'],
    languageOptions: {
      globals: {
        process: 'readonly',
        console: 'readonly',
        URL: 'readonly',
        setTimeout: 'readonly',
        setInterval: 'readonly',
        clearInterval: 'readonly',
        fetch: 'readonly',
        performance: 'readonly',
        AbortSignal: 'readonly',
      },
    },
  },
  {
    files: ['core/src/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              group: [
                '@yellow-pin/*',
                '**/kernel/**',
                '**/server/**',
                '**/web/**',
                '**/cli/**',
                ...NODE,
                'react',
                'react-*',
                'typeorm',
                'express',
              ],
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
  // A list without an entry stops there (core/src/lists.ts). What walks a model's typed arrays and trees in measured loops is the exception.
  {
    files: ['core/src/**/*.ts'],
    ignores: [
      '**/*.test.ts',
      'core/src/{metal,model,part21,brep,geometry,space,testing}/**',
      'core/src/{order/tour,step/step-scan}.ts',
    ],
    rules: { '@typescript-eslint/no-non-null-assertion': 'error' },
  },
  { files: ['kernel/src/**/*.ts'], ignores: ['**/*.test.ts'], rules: forbid('server', 'web', 'cli', 'demo') },
  { files: ['server/src/**/*.ts'], rules: forbid('web', 'cli') },
  { files: ['cli/src/**/*.ts'], rules: forbid('server', 'web') },
  { files: ['cli/src/part.ts', 'bench/**'], rules: { 'no-console': 'off' } },
  {
    files: ['web/src/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': hooks },
    rules: {
      ...forbid('server', 'cli', 'kernel', 'demo'),
      'react-hooks/rules-of-hooks': 'error',
      'react-hooks/exhaustive-deps': 'error',
      'no-restricted-syntax': [
        'error',
        {
          selector:
            'JSXOpeningElement[name.name=/^(button|input|select|option|textarea|table|fieldset|dialog|progress|details)$/]',
          message: 'Controls come from the kit: Chakra UI, or web/src/kit.',
        },
        { selector: 'Literal[value=/#[0-9a-fA-F]{3,8}\\b/]', message: COLOURS },
        { selector: 'TemplateElement[value.raw=/#[0-9a-fA-F]{3,8}\\b/]', message: COLOURS },
        {
          selector:
            'JSXAttribute[name.name="style"] Property[key.name=/[cC]olor|background|fill|stroke|boxShadow/]',
          message: COLOURS,
        },
      ],
    },
  },
  // The one file that names colours, and the one wrapper of a native list of choices.
  { files: ['web/src/look/palette.ts', 'web/src/kit/Choice.tsx'], rules: { 'no-restricted-syntax': 'off' } },
);
