// The answer for a work that stores nothing and lets nothing out: what its own checks come to.
import type { Check, WorkBase } from '../../contract/index.ts';
import { type UnitSystem, lowered, spoken } from '../../units/index.ts';
import { type Piece, alarm, plain, strong } from './pieces.ts';

const GRAVE = [
  ['mend', 'to mend'],
  ['weigh', 'to weigh'],
  ['unknown', 'not known yet'],
] as const;

/** How many of its checks ask for something, the gravest of them by name; that all are fine where they are. */
export function aloneTold({ name }: Pick<WorkBase, 'name'>, checks: readonly Check[], system: UnitSystem): Piece[] {
  const graver = GRAVE.flatMap(([severity, words]) => {
    const own = checks.filter((c) => c.severity === severity);
    return own.length > 0 ? [{ own, words: `${own.length} ${words}` }] : [];
  });
  if (graver.length === 0) return [plain(`${name}: `), strong(`all ${checks.length} checks`), plain(' are fine.')];
  const [{ own }] = graver;
  const tone = own[0].severity === 'mend' ? alarm : strong;
  return [
    plain(`${name}: of ${checks.length} checks `),
    tone(graver.map((g) => g.words).join(', ')),
    plain('. First: '),
    tone(lowered(spoken(own[0].said.title, system))),
    plain('.'),
  ];
}
