// Works that let a host out, placed on a host whose line lies level along y = 101 on a plane that falls a tenth to the south.
import { expect } from '@jest/globals';
import type {
  Company,
  Drawn,
  Host,
  Land,
  PlacedWork,
  Problem,
  StormFacts,
  StoreSeen,
  Technique,
  Traits,
  WorkBase,
} from '../contract/index.ts';
import { Worksheet } from '../formula/index.ts';
import { gridOf } from './grids.ts';
import { SWALE } from './projects.ts';
import { factsOf, siteOf, withAt } from './rules.ts';

/** Level 0 on the host's line: differences of levels are exact. */
export const SITE = siteOf(gridOf((_x, y) => 0.1 * (y - 101), { cells: 101, cellM: 2 }));

export const HOST: Host = {
  work: SWALE,
  line: SWALE.line,
  floorM: -0.35,
  crestM: 0.35,
  downhillAt: () => [0, -1],
  groundAt: () => 0,
  crossSlope: 0.1,
};

export const COMPANY: Company = { host: HOST, guests: [], siblings: [], hostFacts: null };

export interface Guest {
  readonly placed: PlacedWork;
  readonly facts: StormFacts;
  /** A figure by its id. */
  readonly figure: (id: string, facts?: Partial<StormFacts>) => number | null | undefined;
  readonly formulas: (facts?: Partial<StormFacts>) => string[];
}

/** A work on the host, or on none. */
export function onHost<W extends WorkBase, G>(technique: Technique<W, G>, work: W, host: Host | null = HOST): Guest {
  const placed = technique.place(work, technique.measure(work, SITE, host), host);
  const facts = factsOf(SITE);
  return {
    placed,
    facts,
    figure: (id, change = {}) => placed.figures({ ...facts, ...change }, new Worksheet(work.id)).find((f) => f.id === id)?.value,
    formulas: (change = {}) => {
      const sheet = new Worksheet(work.id);
      placed.figures({ ...facts, ...change }, sheet);
      return sheet.lines.map((l) => l.formula);
    },
  };
}

const codes = (problems: readonly Problem[]): string[] => problems.map((p) => p.code);

/** Every number of a work at both ends of its range and just beyond, and words where numbers belong. */
export function expectFields<W extends WorkBase, G>(technique: Technique<W, G>, sound: W): void {
  expect(technique.validate(sound)).toEqual([]);
  for (const { path, min, max, optional } of technique.fields) {
    const at = (value: unknown): string[] => codes(technique.validate(withAt(sound, path, value)));
    const range = (value: number): boolean => at(value).includes('work.field-range');
    expect([path, range(min), range(max)]).toEqual([path, false, false]);
    expect([path, range(min - 1e-6), range(max + 1e-3)]).toEqual([path, true, true]);
    if (optional) expect([path, at(undefined)]).toEqual([path, []]);
    for (const none of [...(optional ? [] : [undefined]), null, 'x', NaN, Infinity])
      expect([path, at(none)]).toEqual([path, expect.arrayContaining(['work.field-missing'])]);
  }
}

/** What is wrong with a work that has one member otherwise: codes and fields. */
export const wrong = <W extends WorkBase, G>(technique: Technique<W, G>, work: W): string[] =>
  technique.validate(work).map((p) => `${p.code}@${p.field ?? ''}`);

/** The work it lets out, and others it needs, by their ids. */
export const hostOf = <W extends WorkBase, G>(technique: Technique<W, G>, work: W): string | null =>
  technique.refs(work).find((r) => r.role === 'host')?.id ?? null;
export const othersOf = <W extends WorkBase, G>(technique: Technique<W, G>, work: W): string[] =>
  technique.refs(work).flatMap((r) => (r.role === 'host' ? [] : [r.id]));

/** A store that works begin on: the host, with the ways out it has. */
export const storeSeen = (change: Partial<StoreSeen> = {}): StoreSeen => ({
  id: 'store',
  name: 'Store',
  line: HOST.line,
  rings: [],
  floorM: HOST.floorM,
  crestM: HOST.crestM,
  peakLevelM: null,
  sillsM: [],
  guests: [],
  groundAt: HOST.groundAt,
  ...change,
});

/** The plane, named and numbered as the first of everything. */
export const landOf = (change: Partial<Land> = {}): Land => ({
  grid: SITE.grid,
  stores: [storeSeen()],
  nameFor: (title) => `${title} 1`,
  idFor: (what) => `${what}-1`,
  ...change,
});

/** The works a technique begins with, or the code of why it does not. */
export function begunBy<W extends WorkBase, G>(
  technique: Technique<W, G>,
  drawn: Partial<Drawn>,
  land: Land = landOf(),
): readonly WorkBase[] | string {
  const made = technique.begin({ how: technique.draws[0].id, points: [], host: null, ...drawn }, land);
  return made.ok ? made.works : made.problem.code;
}

/** Nothing to others: what a work's traits are beside. */
export const NO_TRAITS: Traits = {
  retains: 'none',
  canBlock: false,
  isConduit: false,
  canSilt: false,
  isCut: false,
  joinable: false,
  wayOut: null,
};
