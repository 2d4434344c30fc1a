import js from '@eslint/js';
import hooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

export default tseslint.config(
  { ignores: ['**/dist/**', '**/node_modules/**', 'data/**', 'test-results/**', '.stamp/**'] },
  js.configs.recommended,
  ...tseslint.configs.recommended,
  {
    rules: {
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', varsIgnorePattern: '^_', caughtErrors: 'none' },
      ],
      '@typescript-eslint/consistent-type-imports': 'off',
      '@typescript-eslint/no-unused-expressions': 'off',
      eqeqeq: 'error',
      'no-console': ['error', { allow: ['error', 'log'] }],
    },
  },
  {
    // What needs to know types: a promise that nobody waits for.
    files: [
      'core/src/**/*.ts',
      'contract/src/**/*.ts',
      'server/src/**/*.ts',
      'demo/src/**/*.ts',
      'web/src/**/*.{ts,tsx}',
    ],
    ignores: ['**/*.test.ts'],
    languageOptions: {
      parserOptions: {
        project: ['core', 'contract', 'server', 'demo', 'web'].map((part) => `${part}/tsconfig.json`),
        tsconfigRootDir: import.meta.dirname,
      },
    },
    rules: {
      '@typescript-eslint/no-floating-promises': 'error',
      '@typescript-eslint/no-unnecessary-type-assertion': 'error',
    },
  },
  {
    // The core runs in a worker and on the server alike: nothing of either may creep in.
    files: ['core/src/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-globals': [
        'error',
        'window',
        'document',
        'process',
        'fetch',
        'localStorage',
        'Buffer',
        'setTimeout',
        'performance',
      ],
      'no-console': 'error',
    },
  },
  {
    files: ['web/src/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': hooks },
    rules: { 'react-hooks/rules-of-hooks': 'error', 'react-hooks/exhaustive-deps': 'error' },
  },
  {
    // A part of a screen is one idea, and can be seen at once.
    files: ['web/src/**/*.tsx'],
    ignores: ['**/*.test.tsx'],
    rules: { 'max-lines-per-function': ['error', { max: 80 }] },
  },
  {
    files: ['**/*.mjs', '**/*.cjs', '*.js'],
    languageOptions: {
      globals: {
        process: 'readonly',
        console: 'readonly',
        URL: 'readonly',
        TextEncoder: 'readonly',
        TextDecoder: 'readonly',
        module: 'writable',
      },
    },
  },
);
