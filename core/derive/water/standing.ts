// Works put on their ground, each by itself: one that cannot be computed is named and left out, and the rest is computed.
import type { BoundWork, Check, Site, Store } from '../../contract/index.ts';
import { type Uncomputed, checkBridged, checkUncomputed } from '../../checks/index.ts';
import { say } from '../../units/index.ts';
import { UnknownGround, footingOf, unknownUnder } from '../../works/index.ts';
import type { Graph } from '../graph/graph.ts';
import type { Conditions } from '../scenario/conditions.ts';
import { shareHollows } from './hollows.ts';
import { dependencyOrder, needsOf } from './order.ts';
import { type Placed, placeOne, storesFor } from './stores.ts';

/** A part of one work's results; where it fails, what there is to say of it, and what stands in its stead. */
export interface Attempt<T> {
  readonly value: T;
  readonly failed: Uncomputed | null;
}

export function attempt<T>({ id, name }: BoundWork['work'], run: () => T, otherwise: T): Attempt<T> {
  try {
    return { value: run(), failed: null };
  } catch (error) {
    const isGround = error instanceof UnknownGround;
    const said = isGround ? error.said : say`${name} could not be computed`;
    return { value: otherwise, failed: { work: id, why: isGround ? 'ground' : 'fault', said, offM: null } };
  }
}

/** What could not be computed, work by work: the first that was found of each. */
export class Failures {
  private readonly found = new Map<string, Uncomputed>();

  has(work: string): boolean {
    return this.found.has(work);
  }

  add(one: Uncomputed | null): void {
    if (one && !this.found.has(one.work)) this.found.set(one.work, one);
  }

  /** The value of an attempt, its failure noted. */
  of<T>({ value, failed }: Attempt<T>): T {
    this.add(failed);
    return value;
  }

  list(): readonly Uncomputed[] {
    return [...this.found.values()];
  }
}

export interface Standing {
  readonly works: readonly Placed[];
  readonly stores: readonly Store[];
  /** Ids of the stores each work makes, in its order; and of those that share another's hollow the store that stands in for them. */
  readonly made: ReadonlyMap<string, readonly string[]>;
  readonly instead: ReadonlyMap<string, string>;
  readonly failures: Failures;
  /** Checks that say where a gap in the ground was bridged. */
  readonly bridged: readonly Check[];
}

interface On {
  readonly site: Site;
  readonly graph: Graph;
  readonly conditions: Conditions;
  /** Every work of the option, those of the past too. */
  readonly all: readonly BoundWork[];
}

interface Footed {
  readonly failed: Uncomputed | null;
  readonly checks: readonly Check[];
}

/** What is known of the ground under a work. */
function footed(grid: Site['grid'], { work, footprint }: BoundWork): Footed {
  const feet = footprint.map((line) => footingOf(line, grid));
  const off = feet.find((f) => f.unknown.length > 0);
  const said = off && unknownUnder(off);
  const bridgedM = feet.reduce((sum, f) => sum + f.bridgedM, 0);
  return {
    failed: off && said ? { work: work.id, why: 'ground', said, offM: off.offM > 0 ? off.offM : null } : null,
    checks: off ? [] : checkBridged(work.id, bridgedM),
  };
}

/** Works that hang on one that is not computed are not computed either. */
function withoutTheirNeeds(bound: readonly BoundWork[], failures: Failures, { all }: On): void {
  for (const one of bound) {
    const need = needsOf(one).find((id) => failures.has(id));
    if (need === undefined || failures.has(one.work.id)) continue;
    const name = all.find((b) => b.work.id === need)?.work.name ?? need;
    failures.add({ work: one.work.id, why: 'needs', said: `It hangs on “${name}”, which is not computed`, offM: null });
  }
}

/** A guest whose host was taken out of use has nothing to let out. */
function withoutHost(bound: readonly BoundWork[], failures: Failures, { all }: On): void {
  const live = new Set(bound.map((b) => b.work.id));
  for (const { work, hostId } of bound) {
    const host = hostId === null || live.has(hostId) ? undefined : all.find((b) => b.work.id === hostId);
    if (host) failures.add({ work: work.id, why: 'needs', said: `It hangs on “${host.work.name}”, which is retired`, offM: null });
  }
}

/** Places all works whose ground is known, each after those it needs, with the stores they make. */
export function standingOf(bound: readonly BoundWork[], on: On): Standing {
  const { graph, site } = on;
  const failures = new Failures();
  const bridged: Check[] = [];
  for (const one of bound) {
    const feet = failures.of(
      attempt(one.work, () => graph.step(`footing:${one.work.id}`, [site.grid, one], footed), { failed: null, checks: [] }),
    );
    failures.add(feet.failed);
    bridged.push(...feet.checks);
  }
  withoutHost(bound, failures, on);
  const { order, ringed } = dependencyOrder(bound);
  for (const { work } of ringed)
    failures.add({ work: work.id, why: 'needs', said: 'It hangs on a work that hangs on it: let one of them go', offM: null });
  withoutTheirNeeds(order, failures, on);
  const placed = new Map<string, Placed>();
  for (const one of order) {
    if (failures.has(one.work.id) || needsOf(one).some((id) => failures.has(id))) continue;
    const made = failures.of(attempt<Placed | null>(one.work, () => placeOne(one, placed, on), null));
    if (made) placed.set(one.work.id, made);
  }
  withoutTheirNeeds(order, failures, on);
  const stores = new Map<string, readonly Store[]>();
  const guests = guestsBy([...placed.values()].filter((p) => !failures.has(p.bound.work.id)));
  for (const one of placed.values()) {
    const { work } = one.bound;
    if (failures.has(work.id)) continue;
    const made = attempt(work, () => storesFor(one, guests.get(work.id) ?? [], on), []);
    stores.set(work.id, failures.of(made));
  }
  withoutTheirNeeds(order, failures, on);
  const isStanding = (id: string): boolean => !failures.has(id);
  const own = bound.flatMap((w) => (isStanding(w.work.id) ? (stores.get(w.work.id) ?? []) : []));
  return {
    works: bound.flatMap((w) => (isStanding(w.work.id) ? [placed.get(w.work.id)].filter((p) => p !== undefined) : [])),
    ...shareHollows(own, graph),
    made: new Map([...stores].map(([work, list]) => [work, list.map((s) => s.id)])),
    failures,
    bridged: bridged.filter((check) => isStanding(check.on)),
  };
}

/** Works by the one they let out. */
function guestsBy(works: readonly Placed[]): ReadonlyMap<string, readonly Placed[]> {
  const by = new Map<string, Placed[]>();
  for (const one of works) {
    const { hostId } = one.bound;
    if (hostId !== null) by.set(hostId, [...(by.get(hostId) ?? []), one]);
  }
  return by;
}

/** Checks that name what was not computed. */
export const failureChecks = (failures: Failures): Check[] => failures.list().flatMap(checkUncomputed);
