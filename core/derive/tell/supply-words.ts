// What is said of water through the year before it was followed day by day.
import { type Project, optionOf } from '../../project/index.ts';
import { type Piece, plain, strong } from './pieces.ts';

/** What is asked of stores, while their days are not worked out. */
export function tellSupply({ supply }: Pick<Project, 'supply'>, stores: number): Piece[] {
  if (stores === 0) return [plain('Water is followed through the year once something stores it: draw a roof and a tank, a pond or a swale.')];
  const needs = supply?.needs ?? [];
  if (needs.length === 0) return [plain('Say who needs water, and how much a day: what your stores give is then followed day by day.')];
  const from = new Set(needs.map((n) => n.store)).size;
  return [
    strong(`${needs.length} ${needs.length === 1 ? 'need draws' : 'needs draw'}`),
    plain(` on ${from} ${from === 1 ? 'store' : 'stores'}, day by day.`),
  ];
} // prettier-ignore

/** What is said of works while no ground is known: nothing of storms, all of it day by day where they stand without. */
export const tellApart = (project: Project): Piece[] => [
  plain(
    optionOf(project).works.length === 0
      ? 'Works need land to stand on: bring in terrain first.'
      : 'What a storm does to them hangs on the ground: bring in terrain. What they give through the year is told under Supply.',
  ),
];
