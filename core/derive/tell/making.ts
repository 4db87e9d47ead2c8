// What the works take to make, and how they are made.
import type { PlacedWork, QuantityLine, SheetPart, WorkBase } from '../../contract/index.ts';
import type { DerivedQuantity, View } from '../types.ts';
import { type Attempt, attempt } from '../water/standing.ts';
import type { Told } from './facts.ts';

/** Units of SI by what is told. */
const UNITS: Readonly<Partial<Record<QuantityLine['kind'], string>>> = {
  volume: 'm3',
  area: 'm2',
  length: 'm',
  power: 'W',
  mass: 't',
  hours: 'h',
  liquid: 'm3',
  count: '1',
};

type Making = View['making'][string];

/** Whether anything is still to be made of a work: what is there already, or built, takes nothing any more. */
const isToMake = ({ status }: WorkBase): boolean => status === 'planned' || status === 'pegged';

/** What each work takes and how it is made, each attempted by itself. */
export const makingOf = ({ water, facts, graph }: Told): readonly (readonly [id: string, made: Attempt<Making | null>])[] =>
  water.works.flatMap(({ bound: { work }, placed }) => {
    const known = facts.get(work.id);
    if (!known || !isToMake(work)) return [];
    const made = graph.step(`making:${work.id}`, [placed, known], (one, of) =>
      attempt<Making | null>(work, () => ({ quantities: one.quantities(of), steps: one.buildSteps() }), null),
    );
    return [[work.id, made] as const];
  });

type Sheets = View['handOvers'];

/** Sheets by work, of those that have one. */
const sheetsOf = ({ water, graph }: Told, name: string, of: (placed: PlacedWork) => (() => readonly SheetPart[]) | undefined): Sheets =>
  Object.fromEntries(
    water.works.flatMap(({ bound: { work }, placed }) => {
      const sheet = of(placed);
      return sheet ? [[work.id, graph.step(`${name}:${work.id}`, [placed], () => sheet())] as const] : [];
    }),
  );

/** Sheets for whoever lives with what is there or will be, by work. */
export const handOversOf = (told: Told): Sheets => sheetsOf(told, 'hand-over', (placed) => placed.handOver);

/** Why what is there does not work, by work. */
export const diagnosesOf = (told: Told): Sheets => sheetsOf(told, 'diagnosis', (placed) => placed.diagnosis);

/** The same as rows of the JSON. */
export const quantityRows = (making: View['making']): DerivedQuantity[] =>
  Object.entries(making).flatMap(([work, { quantities }]) =>
    quantities.map(({ item, likely, kind, low, high, from }) => ({
      work,
      item,
      quantity: likely,
      unit: UNITS[kind] ?? '',
      low,
      high,
      from,
    })),
  );
