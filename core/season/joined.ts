// Vessels joined at their feet stand at one level: they are followed as one, and told apart again each evening.
import {
  type DayBalance,
  type DayLift,
  type DayRun,
  type DayStore,
  type DayWay,
  type DayWeather,
  type UseOrder,
  balanceDays,
} from './balance.ts';

/** A table read both ways, straight between rows; under its first row nothing, over its last as its last goes on. */
function readAt(xs: Float64Array, ys: Float64Array, x: number): number {
  const last = xs.length - 1;
  if (x <= xs[0]) return ys[0];
  let k = 1;
  while (k < last && xs[k] < x) k++;
  const wide = xs[k] - xs[k - 1];
  return wide > 0 ? ys[k - 1] + ((ys[k] - ys[k - 1]) * (x - xs[k - 1])) / wide : ys[k];
}

const levelsOf = ({ levelM = new Float64Array(0) }: DayStore): Float64Array => levelM;
const volumeOf = (store: DayStore, levelM: number): number => readAt(levelsOf(store), store.volumeM3, levelM);
const levelOf = (store: DayStore, holdsM3: number): number => readAt(store.volumeM3, levelsOf(store), holdsM3);
const openOf = (store: DayStore, levelM: number): number => (store.isCovered || levelM <= levelsOf(store)[0] ? 0 : readAt(levelsOf(store), store.areaM2, levelM)); // prettier-ignore

interface Group {
  /** Places of its members in the list. */
  readonly at: readonly number[];
  readonly members: readonly DayStore[];
  /** The member that runs over first, out of them all: what one spills into another of them comes back. */
  readonly over: number;
}

/** Sets of stores that hang together by what each is joined with. */
function groupsOf(stores: readonly DayStore[]): Group[] {
  const top = stores.map((_, k) => k);
  const root = (k: number): number => (top[k] === k ? k : root(top[k]));
  stores.forEach(({ joins = [] }, k) => joins.forEach((to) => (top[root(to)] = root(k))));
  const held = new Map<number, number[]>();
  stores.forEach((_, k) => held.set(root(k), [...(held.get(root(k)) ?? []), k]));
  return [...held.values()].map((at) => {
    const members = at.map((k) => stores[k]);
    if (at.length === 1) return { at, members, over: 0 };
    const leaves = members.map((m) => m.spills.some((w) => !at.includes(w.to)));
    const overs = members.map((m, k) => (leaves[k] || !leaves.includes(true) ? levelOf(m, m.roomM3) : Infinity));
    return { at, members, over: overs.indexOf(Math.min(...overs)) };
  });
}

const added = (lists: readonly Float64Array[]): Float64Array => lists[0].map((_, i) => lists.reduce((a, l) => a + l[i], 0));

/** Several as one vessel: what stands in all of them at each level of any. */
function merged({ members, over }: Group): DayStore {
  const levelM = Float64Array.from([...new Set(members.flatMap((m) => [...levelsOf(m)]))].sort((a, b) => a - b));
  const all = (h: number): number => members.reduce((a, m) => a + volumeOf(m, h), 0);
  const first = members[over];
  const asked = members.filter((m) => m.asksM3.some((v) => v > 0));
  const taps = (asked.length > 0 ? asked : members).map((m) => levelOf(m, m.deadM3));
  const topped = members.find((m) => m.topUp);
  const lifts = members.flatMap((m) => (m.lifts ?? []).map((lift): DayLift => ({ ...lift, downToM3: all(levelOf(m, lift.downToM3)) })));
  return {
    id: first.id,
    roomM3: all(levelOf(first, first.roomM3)),
    // Nobody draws lower than the highest tap that is asked of.
    deadM3: all(asked.length > 0 ? Math.max(...taps) : Math.min(...taps)),
    startM3: members.reduce((a, m) => a + m.startM3, 0),
    levelM,
    volumeM3: levelM.map(all),
    areaM2: levelM.map((h) => members.reduce((a, m) => a + openOf(m, h), 0)),
    isCovered: members.every((m) => m.isCovered),
    rainedM2: members.reduce((a, m) => a + m.rainedM2, 0),
    soaksMmPerDay: 0,
    comesM3: added(members.map((m) => m.comesM3)),
    asksM3: added(members.map((m) => m.asksM3)),
    topUp: topped?.topUp ? { ...topped.topUp, toM3: all(levelOf(topped, topped.topUp.toM3)) } : null,
    spills: first.spills,
    returns: null,
    ...(lifts.length > 0 ? { lifts } : {}),
  };
}

const share = (part: number, whole: number, count: number): number => (whole > 0 ? part / whole : 1 / count);

/** What happened to the whole, told of each member: by where water comes in, is asked of and runs over; the rest went between them. */
function parted(
  { members, over }: Group,
  run: DayRun,
  on: { readonly whole: DayStore; readonly rainMm: Float64Array; readonly isFed: readonly boolean[] },
): DayRun[] {
  const { whole, rainMm, isFed } = on;
  const days = rainMm.length;
  const fed = isFed.filter(Boolean).length;
  const leads = Math.max(0, members.findIndex((m) => m.lifts)); // prettier-ignore
  const tops = Math.max(0, members.findIndex((m) => m.topUp)); // prettier-ignore
  const runs = members.map(({ id, startM3 }): DayRun => {
    const zeros = (): Float64Array => new Float64Array(days);
    return { id, startM3, volumeM3: zeros(), inM3: zeros(), usedM3: zeros(), spilledM3: zeros(), soakedM3: zeros(), driedM3: zeros(), toppedM3: zeros(), liftedM3: zeros() }; // prettier-ignore
  });
  for (let i = 0; i < days; i++) {
    const levelM = levelOf(whole, run.volumeM3[i]);
    const own = members.map((m) => m.comesM3[i] + (rainMm[i] / 1000) * m.rainedM2);
    const others = run.inM3[i] - own.reduce((a, v) => a + v, 0);
    const stands = members.map((m) => volumeOf(m, levelM));
    const stood = stands.reduce((a, v) => a + v, 0);
    const open = members.map((m) => openOf(m, levelM));
    const openAll = open.reduce((a, v) => a + v, 0);
    members.forEach((m, k) => {
      const to = runs[k];
      to.volumeM3[i] = stood > 0 ? (stands[k] * run.volumeM3[i]) / stood : 0;
      to.inM3[i] = own[k] + (fed > 0 ? (isFed[k] ? others / fed : 0) : others / members.length);
      to.usedM3[i] = run.usedM3[i] * share(m.asksM3[i], whole.asksM3[i], members.length);
      to.driedM3[i] = run.driedM3[i] * share(open[k], openAll, members.length);
      if (k === over) to.spilledM3[i] = run.spilledM3[i];
      if (k === tops) to.toppedM3[i] = run.toppedM3[i];
      if (k === leads) to.liftedM3[i] = run.liftedM3[i];
      const before = i === 0 ? m.startM3 : to.volumeM3[i - 1];
      const went = before + to.inM3[i] + to.toppedM3[i] - to.usedM3[i] - to.spilledM3[i] - to.driedM3[i] - to.liftedM3[i] - to.volumeM3[i];
      if (went > 0) to.liftedM3[i] += went;
      else to.inM3[i] -= went;
    });
  }
  return runs;
}

/** Follows all stores through all days, those that are joined as one. Mass is kept as in `balanceDays`. */
export function balanceJoined(stores: readonly DayStore[], weather: DayWeather, order: UseOrder = 'after'): DayBalance {
  const groups = groupsOf(stores);
  if (groups.length === stores.length) return balanceDays(stores, weather, order);
  const placeOf = new Int32Array(stores.length);
  groups.forEach((group, g) => group.at.forEach((k) => (placeOf[k] = g)));
  const placed = <W extends { readonly to: number }>(way: W): W => (way.to < 0 ? way : { ...way, to: placeOf[way.to] });
  const asOne = groups.map((group, g): DayStore => {
    const one = group.members.length === 1 ? group.members[0] : merged(group);
    const within = ({ to }: { readonly to: number }): boolean => to >= 0 && placeOf[to] === g;
    // Where each would spill into another of them, what is too much is gone.
    const spills = one.spills.map((w): DayWay => (within(w) ? { ...w, to: -1 } : placed(w)));
    return { ...one, spills, returns: one.returns && placed(one.returns), ...(one.lifts ? { lifts: one.lifts.filter((l) => !within(l)).map(placed) } : {}) };
  }); // prettier-ignore
  const { runs, ...rest } = balanceDays(asOne, weather, order);
  const told: DayRun[] = [];
  const fedBy = (k: number, g: number): boolean =>
    stores.some(
      (s, from) => placeOf[from] !== g && [...s.spills, ...(s.lifts ?? []), ...(s.returns ? [s.returns] : [])].some((w) => w.to === k),
    );
  groups.forEach((group, g) => {
    if (group.members.length === 1) {
      told[group.at[0]] = runs[g];
      return;
    }
    const isFed = group.at.map((k) => fedBy(k, g));
    parted(group, runs[g], { whole: asOne[g], rainMm: weather.rainMm, isFed }).forEach((run, m) => (told[group.at[m]] = run));
  });
  return { ...rest, runs: told };
}
