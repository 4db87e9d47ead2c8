// A case worked out: the project as the case has it, and what it does to stores and outlets.
import type { Outlet, OutletRole, Stage, Store } from '../../contract/index.ts';
import { coverOf } from '../../ground/index.ts';
import { grassedSillLaw } from '../../hydraulics/index.ts';
import { volumeAt } from '../../network/index.ts';
import { type Case, type Ground, type Project, UserError } from '../../project/index.ts';

/** What a case changes beside the document itself. */
export interface Conditions {
  /** Names them, for what is kept of them. */
  readonly key: string;
  /** Share of an outlet's opening that is closed, by the work that makes it. */
  readonly blocked: ReadonlyMap<string, number>;
  readonly uncut: ReadonlySet<string>;
  readonly low: readonly { readonly work: string; readonly lengthM: number; readonly byM: number }[];
  readonly silted: ReadonlyMap<string, number>;
  readonly startsFull: boolean;
  /** Factor on what a store's own catchment sends. */
  readonly sent: ReadonlyMap<string, number>;
}

export const AS_DESIGNED: Conditions = {
  key: '',
  blocked: new Map(),
  uncut: new Set(),
  low: [],
  silted: new Map(),
  startsFull: false,
  sent: new Map(),
};

/** Ground stripped of what grows: what it sheds before anything heals, or after a fire or a drought. */
export function bared(ground: Ground): Ground {
  const bare = { cover: 'bare', curveNumber: null, runoffC: null } as const;
  const zones = ground.zones?.map((z) => (coverOf(z.cover).isSealed ? z : { ...z, ...bare }));
  return { ...ground, ...bare, as: 'now', ...(zones ? { zones } : {}) };
}

const shares = (percent: Readonly<Record<string, number>> = {}): Map<string, number> =>
  new Map(Object.entries(percent).map(([id, p]) => [id, p / 100]));

/** The case of an id. @throws UserError naming those there are. */
export function caseOf({ cases = [] }: Project, id: string): Case {
  const found = cases.find((c) => c.id === id);
  if (found) return found;
  throw new UserError([
    {
      code: 'case.missing',
      what: `there is no case "${id}"`,
      where: { field: 'case' },
      do: cases.length > 0 ? `Choose one of ${cases.map((c) => c.id).join(', ')}.` : 'Add one to the project first.',
    },
  ]);
}

/** The project and its stores as a case has them. */
export function underCase(project: Project, one: Case): { readonly project: Project; readonly conditions: Conditions } {
  const { rain, ground } = project;
  const storm = rain?.storm;
  const uplift = (1 + (storm?.upliftPercent ?? 0) / 100) * (1 + (one.stormPercent ?? 0) / 100);
  const again = one.againAfterH ?? storm?.againAfterH;
  const changed: Project = {
    ...project,
    rain:
      rain && storm
        ? {
            ...rain,
            storm: {
              ...storm,
              ...(one.stormPercent === undefined ? {} : { upliftPercent: 100 * (uplift - 1) }),
              ...(again === undefined ? {} : { againAfterH: again }),
            },
          }
        : rain,
    ground: !ground || one.ground === undefined ? ground : one.ground === 'bare' ? bared(ground) : { ...ground, as: one.ground },
  };
  return {
    project: changed,
    conditions: {
      key: JSON.stringify(one),
      blocked: shares(one.blockedPercent),
      uncut: new Set(one.uncut ?? []),
      low: one.lowBanks ?? [],
      silted: shares(one.siltedPercent),
      startsFull: one.startsFull === true,
      sent: new Map([...shares(one.morePercent)].map(([id, share]) => [id, 1 + share])),
    },
  };
}

/** What water passes when it stands too high: debris closes an opening, never a crest; and it is there before anything is cut. */
const CRESTS: ReadonlySet<OutletRole> = new Set(['road', 'crest', 'rim', 'bank', 'round', 'low', 'fuse', 'on']);
const isOpening = ({ role }: Outlet): boolean => !CRESTS.has(role);

/** An outlet with a share of its opening closed. */
function partly(outlet: Outlet, closed: number | undefined): Outlet {
  if (closed === undefined || closed === 0) return outlet;
  const open = Math.max(0, 1 - closed);
  return { ...outlet, flowAt: (levelM, beyondM) => open * outlet.flowAt(levelM, beyondM) };
}

/** The ways out of a case among those made: not cut yet or blocked. */
export const outletsUnder = (outlets: readonly Outlet[], { blocked, uncut }: Conditions): Outlet[] =>
  outlets.filter((o) => !(isOpening(o) && uncut.has(o.work))).map((o) => (isOpening(o) ? partly(o, blocked.get(o.work)) : o));

/** What silt can take: what is held, or what stands up to the sill where that leaks away. */
const roomOf = ({ heldM3, outlets, sillM, stage }: Store): number =>
  sillM !== null && outlets.some((o) => o.role === 'through') ? volumeAt(stage, sillM) : heldM3;

/** A store with silt lying in it: what it holds is less by that, from its floor up. */
function silted(store: Store, share: number): Store {
  const lost = share * roomOf(store);
  const { levelM, volumeM3, wettedM2 } = store.stage;
  if (lost <= 0) return store;
  const from = volumeM3.findIndex((v) => v > lost);
  if (from < 1) return store;
  const part = (lost - volumeM3[from - 1]) / (volumeM3[from] - volumeM3[from - 1]);
  const floorM = levelM[from - 1] + part * (levelM[from] - levelM[from - 1]);
  const stage: Stage = {
    levelM: Float64Array.of(floorM, ...levelM.subarray(from)),
    volumeM3: Float64Array.of(0, ...volumeM3.subarray(from).map((v) => v - lost)),
    wettedM2: Float64Array.of(wettedM2[from - 1] + part * (wettedM2[from] - wettedM2[from - 1]), ...wettedM2.subarray(from)),
  };
  return { ...store, floorM: Math.max(store.floorM, floorM), heldM3: Math.max(0, store.heldM3 - lost), stage };
}

/** A store with a stretch of its bank lower than designed. */
function lowered(store: Store, low: Conditions['low'][number], k: number): Store {
  const brim = store.outlets.find((o) => o.kind === 'bank');
  if (!brim || low.byM <= 0 || low.lengthM <= 0) return store;
  const levelM = store.crestM - low.byM;
  const outlet: Outlet = {
    id: `${store.id}#case-low${k + 1}`,
    role: 'low',
    work: store.work,
    name: 'low bank of the case',
    kind: 'bank',
    levelM,
    dischargeAt: brim.dischargeAt,
    flowAt: grassedSillLaw({ lengthM: low.lengthM, levelM }),
  };
  const wayOutM = Math.min(store.wayOutM, Math.max(store.floorM, levelM));
  return {
    ...store,
    wayOutM,
    crestM: levelM,
    heldM3: wayOutM < store.wayOutM ? volumeAt(store.stage, wayOutM) : store.heldM3,
    outlets: [...store.outlets, outlet].sort((a, b) => a.levelM - b.levelM),
  };
}

/** A store as the case has it. */
export function storeUnder(store: Store, conditions: Conditions): Store {
  const lows = conditions.low.filter((l) => l.work === store.id);
  const outlets = outletsUnder(store.outlets, conditions);
  const isSame = outlets.length === store.outlets.length && outlets.every((o, k) => o === store.outlets[k]);
  // What the case leaves alone stays the same thing: nothing that reads it is worked out anew.
  const own = lows.reduce<Store>((at, low, k) => lowered(at, low, k), isSame ? store : { ...store, outlets });
  return silted(own, conditions.silted.get(store.work) ?? 0);
}
