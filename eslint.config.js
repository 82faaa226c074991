import path from 'node:path';
import js from '@eslint/js';
import prettier from 'eslint-config-prettier';
import pluginVue from 'eslint-plugin-vue';
import { defineConfig, globalIgnores } from 'eslint/config';
import globals from 'globals';
import tseslint from 'typescript-eslint';
import { vueScripts } from './scripts/lib/vueScripts.mjs';

export default defineConfig(
  globalIgnores(['**/dist/', '**/node_modules/', '.veglia/', 'packages/web/components.d.ts', 'test-results/', '.test-reports/']),
  js.configs.recommended,
  { files: ['**/*.{js,mjs,cjs}'], languageOptions: { globals: globals.node } },
  { files: ['**/*.ts', '**/*.vue'], extends: [tseslint.configs.recommendedTypeChecked] },
  pluginVue.configs['flat/recommended'],
  {
    files: ['**/*.ts', '**/*.vue'],
    languageOptions: {
      parserOptions: {
        parser: tseslint.parser,
        projectService: { allowDefaultProject: [] },
        tsconfigRootDir: import.meta.dirname,
        extraFileExtensions: ['.vue'],
      },
    },
    rules: {
      'no-undef': 'off',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      'no-empty-pattern': ['error', { allowObjectPatternsAsParameters: true }],
      'vue/multi-word-component-names': 'off',
      // A form is one reactive object, handed to its sections to be filled in.
      'vue/no-mutating-props': ['error', { shallowOnly: true }],
    },
  },
  {
    files: ['**/*.vue'],
    languageOptions: { parserOptions: { parser: vueScripts(path.join(import.meta.dirname, 'packages/web/tsconfig.json')) } },
  },
  {
    // Time and chance are arguments there: the same input gives the same fold, today and in ten years.
    files: ['packages/core/src/**/*.ts', 'packages/simulators/src/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-properties': [
        'error',
        { object: 'Date', property: 'now', message: 'Time is an argument.' },
        { object: 'performance', property: 'now', message: 'Time is an argument.' },
        { object: 'Math', property: 'random', message: 'Chance is an argument: a seed.' },
      ],
      'no-restricted-syntax': [
        'error',
        { selector: "NewExpression[callee.name='Date'][arguments.length=0]", message: 'Time is an argument.' },
      ],
    },
  },
  {
    // A simulated set knows what is built how, and nothing of how likely anything is: the pack must not be its own oracle.
    files: ['packages/simulators/src/set/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-imports': 'off',
      '@typescript-eslint/no-restricted-imports': [
        'error',
        {
          paths: [
            { name: '@veglia/core', message: 'Only @veglia/core/knowledge, and of it what names how a set is built.' },
            {
              name: '@veglia/core/knowledge',
              allowImportNames: ['asksAt', 'forcingOf', 'Family', 'Layout', 'Repair', 'Seen', 'Step', 'TestDefinition'],
              message: 'A simulated set knows no likelihood.',
            },
          ],
        },
      ],
    },
  },
  prettier,
);
