import { existsSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import js from '@eslint/js';
import globals from 'globals';
import hooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

/** Things core must be given as arguments: no clock, chance, page or network of its own. */
const IMPURE = ['window', 'document', 'fetch', 'localStorage', 'process', 'setTimeout'].map((name) => ({
  name,
  message: 'core is pure: take it as an argument.',
}));

/** Kinds of work: the folders that have a twin in web/. */
const KINDS = readdirSync(join(import.meta.dirname, 'core/works')).filter((name) =>
  existsSync(join(import.meta.dirname, 'web/works', name)),
);

/** No kind of work is named outside its folders, the lists of techniques, demo and tests. */
const noKindNames = {
  meta: { type: 'problem', schema: [{ type: 'string' }] },
  create: (context) => {
    const [own] = context.options;
    const check = (node, text) => {
      if (KINDS.includes(text) && text !== own)
        context.report({ node, message: `"${text}" is a kind of work: ask for its traits, roles or refs instead.` });
    };
    const isImport = (node) => /^(Import|Export)/.test(node.parent?.type ?? '');
    return {
      Literal: (node) => {
        if (typeof node.value === 'string' && !isImport(node)) check(node, node.value);
      },
      TemplateElement: (node) => check(node, node.value.cooked),
    };
  },
};

export default tseslint.config(
  { ignores: ['dist/**', 'node_modules/**', 'e2e/out/**', 'web/public/**', 'native/**', '.stryker-tmp/**', 'reports/**'] },
  js.configs.recommended,
  // Rules that need types are kept by the linter of .oxlintrc.json, in a tenth of the time.
  ...tseslint.configs.recommended,
  {
    rules: {
      '@typescript-eslint/no-explicit-any': 'error',
      'max-params': ['error', 3],
      'max-lines': ['error', { max: 400 }],
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_' }],
    },
  },
  {
    files: ['core/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-globals': ['error', ...IMPURE, { name: 'Date', message: 'core has no clock: take the time as an argument.' }],
      'no-restricted-properties': ['error', { object: 'Math', property: 'random', message: 'core has no chance: take a seeded source.' }],
    },
  },
  {
    // Ground, levels and peaks that are not known stay unknown: a work is never judged on a borrowed zero.
    files: ['core/works/**/*.ts', 'core/checks/**/*.ts', 'core/terrain/sample.ts', 'core/survey/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-syntax': [
        'error',
        { selector: "LogicalExpression[operator='??'][right.value=0]", message: 'What is not known is null, never 0.' },
        { selector: "LogicalExpression[operator='||'][right.value=0]", message: 'What is not known is null, never 0.' },
      ],
    },
  },
  {
    // What differs between techniques is said by traits, roles and refs, never by asking which kind it is.
    files: ['core/**/*.ts', 'web/**/*.{ts,tsx}', 'cli/**/*.ts', 'server/**/*.ts'],
    ignores: [
      '**/*.test.{ts,tsx}',
      'core/testing/**',
      'core/works/*/**',
      'web/works/*/**',
      'core/works/index.ts',
      'core/works/techniques.ts',
      'core/works/descriptors.ts',
      'web/works/index.ts',
    ],
    plugins: { outlet: { rules: { 'no-kind-names': noKindNames } } },
    rules: { 'outlet/no-kind-names': 'error' },
  },
  ...KINDS.map((kind) => ({
    // A technique's folder knows itself, and what it begins with; no other.
    files: [`core/works/${kind}/**/*.ts`, `web/works/${kind}/**/*.{ts,tsx}`],
    ignores: ['**/*.test.{ts,tsx}'],
    plugins: { outlet: { rules: { 'no-kind-names': noKindNames } } },
    rules: { 'outlet/no-kind-names': ['error', kind] },
  })),
  { files: ['web/**/*.{ts,tsx}'], ...hooks.configs.flat.recommended },
  { files: ['**/*.cjs'], rules: { '@typescript-eslint/no-require-imports': 'off' } },
  { files: ['**/*.{mjs,cjs}'], languageOptions: { globals: globals.node } },
);
