// Works put on their ground, the stores they make, and the ways water takes between them.
import type { BoundWork, Host, Link, PlacedWork, Site, Store } from '../contract/index.ts';
import { type Line, middleOf } from '../geometry/index.ts';
import { type Plan, linkOf } from '../network/index.ts';
import type { Option, Project } from '../project/index.ts';
import type { Interception } from './catchments.ts';
import { type Conditions, outletsUnder, storeUnder } from './conditions.ts';
import type { Memo } from './memo.ts';
import type { GroundModel } from './terrain-steps.ts';

export interface Placed {
  readonly bound: BoundWork;
  readonly placed: PlacedWork;
}

/** Works with their ground measured, hosts before guests. */
export function placeAll(
  model: GroundModel,
  site: Site,
  { bound, memo }: { readonly bound: readonly BoundWork[]; readonly memo: Memo },
): Placed[] {
  const hosts = new Map<string, Host>();
  const hostKeys = new Map<string, unknown>();
  const out = new Map<string, Placed>();
  const place = (work: BoundWork): void => {
    const host = work.hostId === null ? null : (hosts.get(work.hostId) ?? null);
    const key = `${model.key}|${JSON.stringify([work.groundKey, work.hostId === null ? null : hostKeys.get(work.hostId)])}`;
    const { id } = work.work;
    const ground = memo.step(`measure:${id}`, key, () => work.measure(site, host));
    const on = `${memo.stamp(`measure:${id}`)}|${work.hostId === null ? '' : memo.stamp(`place:${work.hostId}`)}`;
    const placed = memo.step(`place:${id}`, `${on}|${JSON.stringify(work.work)}`, () => work.place(ground, host));
    if (placed.host) hosts.set(work.work.id, placed.host);
    hostKeys.set(work.work.id, work.groundKey);
    out.set(work.work.id, { bound: work, placed });
  };
  bound.filter((w) => w.hostId === null).forEach(place);
  bound.filter((w) => w.hostId !== null).forEach(place);
  return bound.map((w) => out.get(w.work.id)).filter((p): p is Placed => p !== undefined);
}

/** The stores of all works with the outlets of their guests, as a case has them. */
export function storesOf(works: readonly Placed[], conditions: Conditions, memo: Memo): Store[] {
  return works.flatMap(({ bound, placed }) => {
    const { id } = bound.work;
    const hosted = works.filter((w) => w.bound.hostId === id);
    const key = `${[id, ...hosted.map((w) => w.bound.work.id)].map((w) => memo.stamp(`place:${w}`)).join()}|${conditions.key}`;
    return memo.step(`store:${id}`, key, () => storeOf({ bound, placed }, hosted, conditions));
  });
}

function storeOf({ bound, placed }: Placed, hosted: readonly Placed[], conditions: Conditions): Store[] {
  const guests = hosted.flatMap((w) => w.placed.outlets);
  const store = bound.work.status === 'retired' ? null : placed.store(outletsUnder(guests, conditions));
  if (!store) return [];
  // Its own outlets are not among the guests: they are judged by the case with the store.
  return [
    storeUnder(store, {
      ...conditions,
      blocked: ownOnly(
        conditions.blocked,
        guests.map((g) => g.work),
      ),
    }),
  ];
}

/** Shares of works that are not guests: a guest's outlet was closed already. */
function ownOnly(blocked: Conditions['blocked'], guests: readonly string[]): Map<string, number> {
  return new Map([...blocked].filter(([id]) => !guests.includes(id)));
}

interface Traced {
  readonly option: Option;
  readonly stores: readonly Store[];
  readonly works: readonly Placed[];
  readonly met: Interception;
  readonly memo: Memo;
}

/** A way laid down by the user or by a work's making: straight to the other work, or none. */
function givenLink(store: Store, outlet: Store['outlets'][number], on: { readonly to: string; readonly line: Line | undefined }): Link {
  const { to, line } = on;
  const [x, y] = outlet.dischargeAt;
  const start = [x, y, outlet.levelM] as const;
  const end = line && line.length > 0 ? middleOf(line) : null;
  const path = end && outlet.kind !== 'joint' ? [start, [end[0], end[1], outlet.levelM] as const] : [start];
  return { from: store.work, outlet: outlet.id, to, path, lengthM: 0, lagS: 0 };
}

/** Where every outlet leads: by the user's word, by its making, else downhill. */
export function tracedLinks(project: Project, model: GroundModel, { option, stores, works, met, memo }: Traced): Link[] {
  const { outline } = project.site;
  const plan: Plan = { grid: model.grid, flow: model.flow, owner: met.owner, works: met.works, outline };
  const outlineKey = JSON.stringify(outline);
  const ids = new Set(stores.map((s) => s.work));
  const lineOf = (id: string): Line | undefined => works.find((w) => w.bound.work.id === id)?.placed.host?.line;
  const said = option.links ?? {};
  return stores.flatMap((store) =>
    store.outlets.map((outlet) => {
      const given = said[outlet.id] ?? outlet.to;
      // A word about a work that is gone is passed over.
      const isKnown =
        given !== undefined && (ids.has(given) || given === 'property-edge' || given === 'terrain-edge' || given === 'ground');
      if (isKnown) return givenLink(store, outlet, { to: given, line: lineOf(given) });
      return memo.step(`link:${outlet.id}`, `${met.key}|${outlineKey}|${outlet.dischargeAt.join()}`, () =>
        linkOf(plan, store.work, outlet),
      );
    }),
  );
}
