// Works put on their ground, each by itself: one that cannot be computed is named and left out, and the rest is computed.
import type { BoundWork, Check, Site, Store } from '../../contract/index.ts';
import { type Uncomputed, checkBridged, checkUncomputed } from '../../checks/index.ts';
import { say } from '../../units/index.ts';
import { UnknownGround, footingOf, unknownUnder } from '../../works/index.ts';
import { type Graph, columnOf, forAll, idsOf } from '../graph/graph.ts';
import type { Conditions } from '../scenario/conditions.ts';
import { shareHollows } from './hollows.ts';
import { dependencyOrder, needsOf } from './order.ts';
import { type Grass, type Placed, grassOf, placeOne, storesFor } from './stores.ts';

/** A part of one work's results; where it fails, what there is to say of it, and what stands in its stead. */
export interface Attempt<T> {
  readonly value: T;
  readonly failed: Uncomputed | null;
}

export function attempt<T>({ id, name }: Pick<BoundWork['work'], 'id' | 'name'>, run: () => T, otherwise: T): Attempt<T> {
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

  get isNone(): boolean {
    return this.found.size === 0;
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

/** What is known of the ground under a work, as far as that can be told: by where it stands, whatever its levels are. */
const footedSafely = (...[grid, footprint, id, name]: [Site['grid'], BoundWork['footprint'], string, string]): Attempt<Footed> =>
  attempt({ id, name }, () => footed(grid, footprint, id), NOT_FOOTED);
const NOT_FOOTED: Footed = { failed: null, checks: [] };

/** What is known of the ground under a work. */
function footed(grid: Site['grid'], footprint: BoundWork['footprint'], work: string): Footed {
  const feet = footprint.map((line) => footingOf(line, grid));
  const off = feet.find((f) => f.unknown.length > 0);
  const said = off && unknownUnder(off);
  const bridgedM = feet.reduce((sum, f) => sum + f.bridgedM, 0);
  return {
    failed: off && said ? { work, why: 'ground', said, offM: off.offM > 0 ? off.offM : null } : null,
    checks: off ? [] : checkBridged(work, bridgedM),
  };
}

/** Works that hang on one that is not computed are not computed either. */
function withoutTheirNeeds(bound: readonly BoundWork[], failures: Failures, { all }: On): void {
  if (failures.isNone) return;
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

/** A work under its id. */
interface Named {
  readonly id: string;
  readonly one: BoundWork;
}

/** Works in the order they are placed in; those that need one another in a ring are failures. It is found anew only when a need is another. */
function placingOrder(named: readonly Named[], failures: Failures, { graph }: On): readonly Named[] {
  const needs = graph.each('needs', { ids: idsOf(named), columns: [named.map((n) => n.one)], isSettled: true }, needsOf);
  const { order, ringed } = graph.step('placing-order', [needs.ids, needs.all], (ids, all) =>
    dependencyOrder(ids.map((id, k) => ({ id, needs: all[k], k }))),
  );
  for (const { id } of ringed)
    failures.add({ work: id, why: 'needs', said: 'It hangs on a work that hangs on it: let one of them go', offM: null });
  return order.map(({ k }) => named[k]);
}

/** Works on their ground, each after those it needs; of those that cannot be placed there is none. */
function placedIn(order: readonly Named[], failures: Failures, { site, graph }: On): ReadonlyMap<string, Placed> {
  const placed = new Map<string, Placed>();
  const note = ({ id }: Named, made: Attempt<Placed | null>): void => {
    const one = failures.of(made);
    if (one) placed.set(id, one);
  };
  const readsOf = ({ id, one }: Named, k: number, before: readonly Attempt<Placed | null>[]): PlaceReads => {
    if (k > 0) note(order[k - 1], before[k - 1]);
    const isLost = !failures.isNone && (failures.has(id) || needsOf(one).some((need) => failures.has(need)));
    const host = one.hostId === null ? null : (placed.get(one.hostId) ?? null);
    return [site.grid, one, host, one.refersTo.length === 0 ? NOBODY : one.refersTo.flatMap((ref) => placed.get(ref) ?? []), isLost];
  };
  const place = (...[, one, host, near, isLost]: PlaceReads): Attempt<Placed | null> =>
    isLost ? NOWHERE : attempt<Placed | null>(one.work, () => placeOne(one, { host, near, site, graph }), null);
  const made = graph.inTurn('place', { items: order, readsOf }, place).all;
  if (order.length > 0) note(order[order.length - 1], made[order.length - 1]);
  return placed;
}
type PlaceReads = [grid: Site['grid'], one: BoundWork, host: Placed | null, near: readonly Placed[], isLost: boolean];
const NOBODY: readonly Placed[] = [];
const NOWHERE: Attempt<Placed | null> = { value: null, failed: null };

/** Places all works whose ground is known, each after those it needs, with the stores they make. */
export function standingOf(bound: readonly BoundWork[], on: On): Standing {
  const { graph, site } = on;
  const failures = new Failures();
  const named = bound.map((one): Named => ({ id: one.work.id, one }));
  const feet = graph
    .each(
      'footing',
      {
        ids: idsOf(named),
        columns: [forAll(site.grid), bound.map((one) => one.footprint), idsOf(named), bound.map((one) => one.work.name)],
      },
      footedSafely,
    )
    .all.map((made) => failures.of(made));
  for (const { failed } of feet) failures.add(failed);
  withoutHost(bound, failures, on);
  const ordered = placingOrder(named, failures, on);
  const order = ordered.map(({ one }) => one);
  withoutTheirNeeds(order, failures, on);
  const placed = placedIn(ordered, failures, on);
  withoutTheirNeeds(order, failures, on);
  const standing = [...placed.values()].filter((p) => !failures.has(p.bound.work.id));
  const stores = storesBy(standing, failures, on);
  withoutTheirNeeds(order, failures, on);
  const isStanding = ({ id }: Named): boolean => !failures.has(id);
  const still = failures.isNone ? named : named.filter(isStanding);
  return {
    works: still.flatMap(({ id }) => placed.get(id) ?? []),
    ...shareHollows(
      still.flatMap(({ id }) => stores.get(id) ?? []),
      graph,
    ),
    made: new Map([...stores].map(([work, list]) => [work, list.map((s) => s.id)])),
    failures,
    bridged: feet.flatMap(({ checks }) => checks).filter((check) => !failures.has(check.on)),
  };
}

/** The stores of works that stand, by work. */
function storesBy(standing: readonly Placed[], failures: Failures, { site, graph, conditions }: On): ReadonlyMap<string, readonly Store[]> {
  const guests = guestsBy(standing);
  const ids = standing.map((one) => one.bound.work.id);
  const hosted = columnOf(ids, guests, NOBODY);
  const grass = graph.each('grass', { ids, columns: [hosted, forAll(site)], isSettled: true }, grassOf).all;
  // The conditions of one key are the same.
  const made = (...[one, own, grown]: StoreReads): Attempt<readonly Store[]> =>
    attempt<readonly Store[]>(one.bound.work, () => storesFor(one, own, { grass: grown, conditions }), []);
  const { all } = graph.each('store', { ids, columns: [standing, hosted, grass, forAll(conditions.key)] }, made);
  return new Map(all.map((stores, k) => [ids[k], failures.of(stores)]));
}

type StoreReads = [one: Placed, guests: readonly Placed[], grass: Grass, key: string];

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
