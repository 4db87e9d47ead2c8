// Works put on their ground, each by itself: one that cannot be computed is named and left out, and the rest is computed.
import type { BoundWork, Check, Store } from '../contract/index.ts';
import { type Uncomputed, checkBridged, checkUncomputed } from '../checks/index.ts';
import type { Site } from '../contract/index.ts';
import { say } from '../units/index.ts';
import { UnknownGround, footingOf, unknownUnder } from '../works/index.ts';
import type { Conditions } from './conditions.ts';
import type { Memo } from './memo.ts';
import { type Placed, placeOne, storeFor } from './stores.ts';
import type { GroundModel } from './terrain-steps.ts';

/** What could not be computed, work by work. */
export class Failures {
  private readonly found = new Map<string, Uncomputed>();

  has(work: string): boolean {
    return this.found.has(work);
  }

  add(one: Uncomputed): void {
    if (!this.found.has(one.work)) this.found.set(one.work, one);
  }

  /** A part of one work's results: where it fails, the work is named and the part is left out. */
  attempt<T>(work: BoundWork['work'], run: () => T, otherwise: T): T {
    try {
      return run();
    } catch (error) {
      const said = error instanceof UnknownGround ? error.said : say`${work.name} could not be computed`;
      this.add({ work: work.id, why: error instanceof UnknownGround ? 'ground' : 'fault', said, offM: null });
      return otherwise;
    }
  }

  list(): readonly Uncomputed[] {
    return [...this.found.values()];
  }
}

export interface Standing {
  readonly works: readonly Placed[];
  readonly stores: readonly Store[];
  readonly failures: Failures;
  /** Checks that say what is not computed, and where a gap in the ground was bridged. */
  readonly bridged: readonly Check[];
}

interface On {
  readonly model: GroundModel;
  readonly site: Site;
  readonly memo: Memo;
  readonly conditions: Conditions;
}

/** What is known of the ground under a work; adds it to the failures where a part of it is not. */
function footed(work: BoundWork, { model, memo }: On, failures: Failures): Check[] {
  const key = `${model.ground}|${JSON.stringify(work.footprint)}`;
  const feet = memo.step(`footing:${work.work.id}`, key, () => work.footprint.map((line) => footingOf(line, model.grid)));
  const off = feet.find((f) => f.unknown.length > 0);
  const said = off && unknownUnder(off);
  if (off && said) failures.add({ work: work.work.id, why: 'ground', said, offM: off.offM > 0 ? off.offM : null });
  const bridgedM = feet.reduce((sum, f) => sum + f.bridgedM, 0);
  return off ? [] : checkBridged(work.work.id, bridgedM);
}

/** Works that hang on one that is not computed are not computed either. */
function withoutTheirNeeds(bound: readonly BoundWork[], failures: Failures): void {
  for (let found = true; found;) {
    found = false;
    for (const { work, hostId, refersTo } of bound) {
      const need = [...(hostId === null ? [] : [hostId]), ...refersTo].find((id) => failures.has(id));
      if (need === undefined || failures.has(work.id)) continue;
      const name = bound.find((b) => b.work.id === need)?.work.name ?? need;
      failures.add({ work: work.id, why: 'needs', said: `It hangs on “${name}”, which is not computed`, offM: null });
      found = true;
    }
  }
}

/** Places all works whose ground is known, with the stores they make. */
export function standingOf(bound: readonly BoundWork[], on: On): Standing {
  const failures = new Failures();
  const bridged = bound.flatMap((work) => failures.attempt(work.work, () => footed(work, on, failures), []));
  withoutTheirNeeds(bound, failures);
  const placed = new Map<string, Placed>();
  const hostsFirst = [...bound.filter((w) => w.hostId === null), ...bound.filter((w) => w.hostId !== null)];
  for (const work of hostsFirst) {
    if (failures.has(work.work.id)) continue;
    const host = work.hostId === null ? null : (placed.get(work.hostId) ?? null);
    const made = failures.attempt(work.work, () => placeOne(work, host, on), null);
    if (made) placed.set(work.work.id, { bound: work, placed: made });
    else withoutTheirNeeds(bound, failures);
  }
  const stores = new Map<string, Store[]>();
  for (const { bound: one } of placed.values()) {
    const all = (): Placed[] => [...placed.values()].filter((p) => !failures.has(p.bound.work.id));
    stores.set(
      one.work.id,
      failures.attempt(one.work, () => storeFor(one.work.id, all(), on), []),
    );
  }
  withoutTheirNeeds(bound, failures);
  const isStanding = (id: string): boolean => !failures.has(id);
  return {
    works: bound.flatMap((w) => (isStanding(w.work.id) ? [placed.get(w.work.id)].filter((p) => p !== undefined) : [])),
    stores: bound.flatMap((w) => (isStanding(w.work.id) ? (stores.get(w.work.id) ?? []) : [])),
    failures,
    bridged: bridged.filter((check) => isStanding(check.on)),
  };
}

/** Checks that name what was not computed; a retired work owes nothing. */
export function failureChecks(failures: Failures, bound: readonly BoundWork[]): Check[] {
  const retired = new Set(bound.filter((b) => b.work.status === 'retired').map((b) => b.work.id));
  return failures.list().flatMap((one) => (retired.has(one.work) ? [] : checkUncomputed(one)));
}
