// Rules of our own: techniques are told apart by what they say of themselves, and what is not known stays unknown.
import { existsSync, readdirSync } from 'node:fs';
import { join } from 'node:path';

const root = join(import.meta.dirname, '..');

/** Kinds of work: the folders that have a twin in web/. */
const KINDS = new Set(readdirSync(join(root, 'core/works')).filter((name) => existsSync(join(root, 'web/works', name))));

/** A technique's folder knows itself, and what it begins with; no other. */
const ownOf = (file) => /[\\/](?:core|web)[\\/]works[\\/]([^\\/]+)[\\/]/.exec(file)?.[1];

/** No kind of work is named outside its folders, the lists of techniques, demo and tests. */
const noKindNames = {
  meta: { type: 'problem' },
  create: (context) => {
    const own = ownOf(context.filename);
    const check = (node, text) => {
      if (KINDS.has(text) && text !== own)
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

/** Ground, levels and peaks that are not known stay unknown: a work is never judged on a borrowed zero. */
const noBorrowedZero = {
  meta: { type: 'problem' },
  create: (context) => ({
    LogicalExpression: (node) => {
      if ((node.operator === '??' || node.operator === '||') && node.right.type === 'Literal' && node.right.value === 0)
        context.report({ node, message: 'What is not known is null, never 0.' });
    },
  }),
};

export default { meta: { name: 'outlet' }, rules: { 'no-kind-names': noKindNames, 'no-borrowed-zero': noBorrowedZero } };
