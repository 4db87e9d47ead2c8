import type { Registry } from './registry.ts';

/** Every kind as it is listed: what it is for, how it is drawn, its fields, what it is to others, its formulas and rules, and one of it. */
export const kindsOf = ({ kinds, card, bind }: Registry): unknown[] =>
  kinds.map((kind) => {
    const { title, family, fields, choices, draws, formulas, rules, sample } = card(kind);
    const { traits, refs } = bind(sample);
    return {
      kind,
      title,
      family,
      draws,
      fields,
      choices,
      traits,
      refs: refs.map(({ role, path, whenGone }) => ({ role, path, whenGone })),
      formulas: formulas.map((f) => f.id),
      rules: rules.map(({ id, title: name, needs = [] }) => ({ id, title: name, needs })),
      sample,
    };
  });
