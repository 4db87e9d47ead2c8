// What the works take to make, and how they are made.
import type { EachTable, PlacedWork, QuantityLine, SheetPart, StormFacts, WorkBase } from '../../contract/index.ts';
import type { DerivedQuantity, View } from '../types.ts';
import { type Attempt, attempt } from '../water/standing.ts';
import type { Placed } from '../water/stores.ts';
import { type Graph, asItself, idsOf } from '../graph/graph.ts';
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
export function makingOf({ works, facts, graph }: Told): readonly (readonly [id: string, made: Attempt<Making | null>])[] {
  const toMake = works.filter(({ id, one }) => facts.has(id) && isToMake(one.bound.work));
  const { ids, all } = graph.each(
    'making',
    { ids: idsOf(toMake), columns: [toMake.map((t) => t.one), toMake.map((t) => facts.get(t.id) ?? null)] },
    madeOf,
  );
  return all.map((made, k) => [ids[k], made] as const);
}

const madeOf = ({ bound: { work }, placed }: Placed, facts: StormFacts | null): Attempt<Making | null> =>
  attempt<Making | null>(work, () => facts && { quantities: asItself(placed.quantities(facts)), steps: placed.buildSteps() }, null);

/** What each of several things takes and holds, by work, of those made of several. */
export function eachOf({ works, facts, graph, water: { failures } }: Told): View['each'] {
  const several = works.filter(({ id, one }) => facts.has(id) && one.placed.each);
  const columns = [several.map(({ one }) => one), several.map(({ id }) => facts.get(id) ?? null)] as const;
  const { ids, all } = graph.each('each-of', { ids: idsOf(several), columns }, tablesOf);
  return Object.fromEntries(
    all.flatMap((tables, k) => {
      const told = failures.of(tables);
      return told && told.length > 0 ? [[ids[k], told]] : [];
    }),
  );
}

const tablesOf = ({ bound: { work }, placed }: Placed, facts: StormFacts | null): Attempt<readonly EachTable[]> =>
  attempt<readonly EachTable[]>(work, () => (facts && placed.each?.(facts)) ?? [], []);

type Sheets = View['handOvers'];

/** Sheets by work, of those that have one. */
function sheetsOf({ works, graph }: Told, name: string, of: (placed: PlacedWork) => (() => readonly SheetPart[]) | undefined): Sheets {
  const having = works.filter(({ one }) => of(one.placed));
  const placed = having.map(({ one }) => one);
  const { ids, all } = graph.each(name, { ids: idsOf(having), columns: [placed] }, (one) => of(one.placed)?.() ?? []);
  return Object.fromEntries(all.map((sheet, k) => [ids[k], sheet]));
}

/** Sheets for whoever lives with what is there or will be, by work. */
export const handOversOf = (told: Told): Sheets => sheetsOf(told, 'hand-over', (placed) => placed.handOver);

/** Why what is there does not work, by work. */
export const diagnosesOf = (told: Told): Sheets => sheetsOf(told, 'diagnosis', (placed) => placed.diagnosis);

/** The same as rows of the JSON. */
export function quantityRows(made: readonly (readonly [id: string, making: Making])[], graph: Graph): DerivedQuantity[] {
  const ids = made.map(([id]) => id);
  const lists = graph.each('quantities', { ids, columns: [ids, made.map(([, { quantities }]) => quantities)] }, rowsOf).all;
  const rows: DerivedQuantity[] = [];
  for (const list of lists) for (const row of list) rows.push(row);
  return rows;
}

const rowsOf = (work: string, quantities: Making['quantities']): DerivedQuantity[] =>
  quantities.map(({ item, likely, kind, low, high, from }) => ({ work, item, quantity: likely, unit: UNITS[kind] ?? '', low, high, from }));
