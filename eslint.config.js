import js from '@eslint/js';
import prettier from 'eslint-config-prettier';
import reactHooks from 'eslint-plugin-react-hooks';
import globals from 'globals';
import tseslint from 'typescript-eslint';

export default tseslint.config(
  { ignores: ['**/dist/', '**/node_modules/', 'data/', '.cache/', 'test-results/', 'playwright-report/'] },
  js.configs.recommended,
  {
    files: ['**/*.{ts,tsx}'],
    extends: [...tseslint.configs.recommendedTypeChecked],
    languageOptions: {
      parserOptions: {
        project: [
          'packages/core/tsconfig.test.json',
          'packages/contracts/tsconfig.test.json',
          'apps/server/tsconfig.test.json',
          'apps/web/tsconfig.json',
          'e2e/tsconfig.json',
        ],
        tsconfigRootDir: import.meta.dirname,
      },
    },
    rules: {
      '@typescript-eslint/consistent-type-imports': ['error', { fixStyle: 'inline-type-imports' }],
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/switch-exhaustiveness-check': ['error', { considerDefaultExhaustiveForUnions: true }],
      'max-lines': ['error', { max: 330, skipBlankLines: true, skipComments: true }],
      eqeqeq: ['error', 'always', { null: 'ignore' }],
    },
  },
  {
    // Parameters of decorated classes name values at run time: what looks like a type import is needed there.
    files: ['apps/server/src/**/*.ts', 'packages/contracts/src/**/*.ts'],
    rules: { '@typescript-eslint/consistent-type-imports': 'off' },
  },
  {
    files: ['apps/web/src/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': reactHooks },
    rules: { 'react-hooks/rules-of-hooks': 'error', 'react-hooks/exhaustive-deps': 'error' },
    languageOptions: { globals: globals.browser },
  },
  {
    // Answers of the server under test, and of mocks, are loosely typed on purpose: their shape is what is tested.
    files: ['**/*.{test,spec}.{ts,tsx}', 'apps/server/src/testing/**', 'e2e/**'],
    rules: {
      '@typescript-eslint/no-unsafe-assignment': 'off',
      '@typescript-eslint/no-unsafe-member-access': 'off',
      '@typescript-eslint/no-unsafe-argument': 'off',
      '@typescript-eslint/no-unsafe-call': 'off',
      '@typescript-eslint/no-unsafe-return': 'off',
      'max-lines': 'off',
    },
  },
  { files: ['**/*.{js,mjs}'], languageOptions: { globals: globals.node } },
  // Part of them runs in the page that is photographed or measured.
  { files: ['scripts/screenshots.mjs', 'bench/**/*.mjs'], languageOptions: { globals: globals.browser } },
  { files: ['attacks/**/*.test.mjs'], languageOptions: { globals: globals.jest } },
  { files: ['apps/web/public/**/*.js'], languageOptions: { globals: globals.browser } },
  prettier,
);
