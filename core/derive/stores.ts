// Works put on their ground, the stores they make, and the ways water takes between them.
import type { BoundWork, Link, PlacedWork, Site, Store } from '../contract/index.ts';
import { type Line, middleOf } from '../geometry/index.ts';
import { type Plan, linkOf } from '../network/index.ts';
import { ENDS, type Option, type Project } from '../project/index.ts';
import type { Interception } from './catchments.ts';
import { type Conditions, outletsUnder, storeUnder } from './conditions.ts';
import type { Memo } from './memo.ts';
import type { GroundModel } from './terrain-steps.ts';

export interface Placed {
  readonly bound: BoundWork;
  readonly placed: PlacedWork;
}

/** One work with its ground measured, on the host it hangs on. */
export function placeOne(
  work: BoundWork,
  host: Placed | null,
  { model, site, memo }: { readonly model: GroundModel; readonly site: Site; readonly memo: Memo },
): PlacedWork {
  const { id } = work.work;
  const onto = host?.placed.host ?? null;
  const key = `${model.key}|${JSON.stringify([work.groundKey, host ? host.bound.groundKey : null])}`;
  const ground = memo.step(`measure:${id}`, key, () => work.measure(site, onto));
  const on = `${memo.stamp(`measure:${id}`)}|${work.hostId === null ? '' : memo.stamp(`place:${work.hostId}`)}`;
  return memo.step(`place:${id}`, `${on}|${JSON.stringify(work.work)}`, () => work.place(ground, onto));
}

/** The store a work makes with the outlets of its guests, as a case has it; none where it makes none. */
export function storeFor(
  id: string,
  works: readonly Placed[],
  { conditions, memo }: { readonly conditions: Conditions; readonly memo: Memo },
): Store[] {
  const own = works.find((w) => w.bound.work.id === id);
  if (!own) return [];
  const hosted = works.filter((w) => w.bound.hostId === id);
  const key = `${[id, ...hosted.map((w) => w.bound.work.id)].map((w) => memo.stamp(`place:${w}`)).join()}|${conditions.key}`;
  return memo.step(`store:${id}`, key, () => storeOf(own, hosted, conditions));
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
  return { from: store.work, outlet: outlet.id, work: outlet.work, role: outlet.role, to, path, lengthM: 0, lagS: 0 };
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
      const isKnown = given !== undefined && (ids.has(given) || ENDS.some((end) => end === given));
      if (isKnown) return givenLink(store, outlet, { to: given, line: lineOf(given) });
      return memo.step(`link:${outlet.id}`, `${met.key}|${outlineKey}|${outlet.dischargeAt.join()}`, () =>
        linkOf(plan, store.work, outlet),
      );
    }),
  );
}
