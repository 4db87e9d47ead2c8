// The water of stores day by day, each after those that spill into it: mass-exact, plain loops on typed arrays.

/** Where a share of what is spilled, or of what soaked in, comes to. */
export interface DayWay {
  /** Place of a store in the list; under nothing: it has left, -1 by no place that is told apart, -2 by the first of those, and on. */
  readonly to: number;
  readonly share: number;
  readonly lagDays: number;
}

/** Water led or lifted to another store each evening, as long as that one has room: it is there the next day. */
export interface DayLift {
  readonly to: number;
  readonly mostM3PerDay: number;
  /** It stops when so much is left [m3]. */
  readonly downToM3: number;
}

/** A store as it is followed day by day. Tables rise from empty; above their last row water stands straight up. */
export interface DayStore {
  readonly id: string;
  /** Volume at its lowest way out, and what of it cannot be drawn [m3]. */
  readonly roomM3: number;
  readonly deadM3: number;
  /** Water at first [m3]. */
  readonly startM3: number;
  readonly volumeM3: Float64Array;
  /** Its surface at each [m2]: what dries and soaks. */
  readonly areaM2: Float64Array;
  /** A lid keeps what would dry off. */
  readonly isCovered: boolean;
  /** Rain falls on so much open water [m2]. */
  readonly rainedM2: number;
  readonly soaksMmPerDay: number;
  /** What comes by itself on each day [m3]: off ground and roofs, from springs. */
  readonly comesM3: Float64Array;
  /** What is asked of it on each day [m3]. */
  readonly asksM3: Float64Array;
  /** Brought in when it stands lower than this in the morning [m3], so much a day at most. */
  readonly topUp: { readonly toM3: number; readonly mostM3PerDay: number } | null;
  readonly spills: readonly DayWay[];
  readonly returns: DayWay | null;
  /** What leads on from it; left out, nothing does. */
  readonly lifts?: readonly DayLift[];
  /** Of a vessel joined to others at its foot: levels of its rows, and places of those in the list (`balanceJoined`). */
  readonly levelM?: Float64Array;
  readonly joins?: readonly number[];
}

/** after: what stood there in the morning is used, and what comes spills first (the safe reading) · before: what comes is used first. */
export const USE_ORDERS = ['after', 'before'] as const;
export type UseOrder = (typeof USE_ORDERS)[number];

/** What happened to a store on each day [m3]; `volumeM3` is in the evening. */
export interface DayRun {
  readonly id: string;
  readonly startM3: number;
  readonly volumeM3: Float64Array;
  /** All that came: its own, rain on it, from other stores; what was brought in is beside it. */
  readonly inM3: Float64Array;
  readonly usedM3: Float64Array;
  readonly spilledM3: Float64Array;
  readonly soakedM3: Float64Array;
  readonly driedM3: Float64Array;
  readonly toppedM3: Float64Array;
  /** Led or lifted to other stores. */
  readonly liftedM3: Float64Array;
}

export interface DayBalance {
  readonly runs: readonly DayRun[];
  /** On its way under the ground or to a store passed already, when the days end [m3]. */
  readonly onTheWayM3: number;
  /** What has left on each day [m3], by no place told apart first. */
  readonly leftM3: readonly Float64Array[];
}

/** Surface at a volume, straight between rows. */
function areaAt(volume: Float64Array, area: Float64Array, v: number): number {
  const last = volume.length - 1;
  if (v >= volume[last]) return area[last];
  let low = 0;
  let high = last;
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (volume[middle] <= v) low = middle;
    else high = middle;
  }
  const wide = volume[high] - volume[low];
  return wide > 0 ? area[low] + ((area[high] - area[low]) * (v - volume[low])) / wide : area[high];
}

/** Stores so that each comes after those that spill into it, as far as their ways do not go round. */
export function orderOf(stores: readonly Pick<DayStore, 'spills'>[]): number[] {
  const feeders = stores.map(() => 0);
  for (const { spills } of stores) for (const { to, lagDays } of spills) if (to >= 0 && lagDays === 0) feeders[to]++;
  const order: number[] = [];
  const isIn = new Set<number>();
  while (order.length < stores.length) {
    let next = stores.findIndex((_, k) => !isIn.has(k) && feeders[k] === 0);
    // A ring: the first that is left begins, and what comes round reaches it the next day.
    if (next < 0) next = stores.findIndex((_, k) => !isIn.has(k));
    order.push(next);
    isIn.add(next);
    for (const { to, lagDays } of stores[next].spills) if (to >= 0 && lagDays === 0) feeders[to]--;
  }
  return order;
}

/** Room for what happens to a store on so many days. */
const emptyRun = (store: Pick<DayStore, 'id' | 'startM3'>, days: number): DayRun => ({
  id: store.id,
  startM3: store.startM3,
  volumeM3: new Float64Array(days),
  inM3: new Float64Array(days),
  usedM3: new Float64Array(days),
  spilledM3: new Float64Array(days),
  soakedM3: new Float64Array(days),
  driedM3: new Float64Array(days),
  toppedM3: new Float64Array(days),
  liftedM3: new Float64Array(days),
});

/** A day of a store; one is written again for the next, since there are many. */
interface Day {
  i: number;
  before: number;
  comes: number;
  driesMm: number;
  readonly isAfter: boolean;
}

/** One day of one store: what stands there in the evening. All of that day in `run` is written. */
function passDay(store: DayStore, run: DayRun, { i, before, comes, driesMm, isAfter }: Day): number {
  let v = before;
  let soaked = 0;
  let dried = 0;
  let topped = 0;
  if (v > 0 && (store.soaksMmPerDay > 0 || (driesMm > 0 && !store.isCovered))) {
    const area = areaAt(store.volumeM3, store.areaM2, v);
    const soaks = (store.soaksMmPerDay / 1000) * area;
    const dries = store.isCovered ? 0 : (driesMm / 1000) * area;
    // What is left of it is shared where both would take more.
    const part = Math.min(1, v / (soaks + dries));
    soaked = soaks * part;
    dried = dries * part;
    v = part < 1 ? 0 : v - soaks - dries;
  }
  if (store.topUp && v < store.topUp.toM3) {
    topped = Math.min(store.topUp.mostM3PerDay, store.topUp.toM3 - v);
    v += topped;
  }
  const drawable = (isAfter ? v : v + comes) - store.deadM3;
  const used = drawable <= 0 ? 0 : Math.min(store.asksM3[i], drawable);
  v += comes;
  if (!isAfter) v -= used;
  const over = v > store.roomM3 ? v - store.roomM3 : 0;
  v -= isAfter ? over + used : over;
  const stands = v > 0 ? v : 0;
  run.inM3[i] = comes;
  run.usedM3[i] = used;
  run.spilledM3[i] = over;
  run.soakedM3[i] = soaked;
  run.driedM3[i] = dried;
  run.toppedM3[i] = topped;
  run.volumeM3[i] = stands;
  return stands;
}

export interface DayWeather {
  readonly rainMm: Float64Array;
  readonly evaporationMm: Float64Array | null;
}

/**
 * Follows one store that nothing leads to or from: as `balanceDays` does one whose spill leaves. `into` is a run of as many days
 * to be written over, for those who try many sizes; what it told before is gone.
 */
export function balanceOne(
  store: DayStore,
  { rainMm, evaporationMm }: DayWeather,
  on: { readonly order: UseOrder; readonly into?: DayRun },
): DayRun {
  const days = rainMm.length;
  const run: DayRun = on.into ? { ...on.into, id: store.id, startM3: store.startM3 } : emptyRun(store, days);
  const day: Day = { i: 0, before: store.startM3, comes: 0, driesMm: 0, isAfter: on.order === 'after' };
  for (let i = 0; i < days; i++) {
    day.i = i;
    day.comes = store.comesM3[i] + (rainMm[i] / 1000) * store.rainedM2;
    day.driesMm = evaporationMm ? evaporationMm[i] : 0;
    day.before = passDay(store, run, day);
  }
  return run;
}

/** Follows all stores through all days. Longest dimension first: days by stores; nothing is made within a day. */
export function balanceDays(stores: readonly DayStore[], weather: DayWeather, order: UseOrder = 'after'): DayBalance {
  const { rainMm, evaporationMm } = weather;
  const days = rainMm.length;
  const runs = stores.map((s) => emptyRun(s, days));
  const arrives = stores.map(() => new Float64Array(days));
  const stands = stores.map((s) => s.startM3);
  const last = Math.min(-1, ...stores.flatMap((s) => [...s.spills, ...(s.returns ? [s.returns] : [])].map((w) => w.to)));
  const leftM3 = Array.from({ length: -last }, () => new Float64Array(days));
  const places = orderOf(stores);
  const placeOf = new Int32Array(stores.length);
  places.forEach((k, at) => (placeOf[k] = at));
  let onTheWayM3 = 0;
  const send = (amount: number, { to, share, lagDays }: DayWay, from: { readonly k: number; readonly i: number }): void => {
    const part = amount * share;
    if (part === 0) return;
    const { i, k } = from;
    if (to < 0) {
      leftM3[-1 - to][i] += part;
      return;
    }
    const late = lagDays === 0 && placeOf[to] <= placeOf[k] ? 1 : lagDays;
    if (i + late < days) arrives[to][i + late] += part;
    else onTheWayM3 += part;
  };
  /** What leads on from a store in the evening of a day. */
  const lift = (k: number, i: number): void => {
    for (const { to, mostM3PerDay, downToM3 } of stores[k].lifts ?? []) {
      // What is on its way there already takes its room too.
      const room = stores[to].roomM3 - stands[to] - (i + 1 < days ? arrives[to][i + 1] : 0);
      const moved = Math.max(0, Math.min(mostM3PerDay, stands[k] - downToM3, room));
      if (moved === 0) continue;
      stands[k] -= moved;
      runs[k].liftedM3[i] += moved;
      runs[k].volumeM3[i] = stands[k];
      if (i + 1 < days) arrives[to][i + 1] += moved;
      else onTheWayM3 += moved;
    }
  };
  const day: Day = { i: 0, before: 0, comes: 0, driesMm: 0, isAfter: order === 'after' };
  for (let i = 0; i < days; i++) {
    day.i = i;
    day.driesMm = evaporationMm ? evaporationMm[i] : 0;
    for (const k of places) {
      const store = stores[k];
      const run = runs[k];
      day.before = stands[k];
      day.comes = store.comesM3[i] + arrives[k][i] + (rainMm[i] / 1000) * store.rainedM2;
      stands[k] = passDay(store, run, day);
      if (run.spilledM3[i] > 0) for (const way of store.spills) send(run.spilledM3[i], way, { k, i });
      if (store.returns && run.soakedM3[i] > 0) send(run.soakedM3[i], store.returns, { k, i });
    }
    for (const k of places) if (stores[k].lifts) lift(k, i);
  }
  return { runs, onTheWayM3, leftM3 };
}

const sum = (list: Float64Array): number => {
  let total = 0;
  for (let i = 0; i < list.length; i++) total += list[i];
  return total;
};

/** What a run came to over all its days [m3]. */
export interface DaySums {
  readonly inM3: number;
  readonly usedM3: number;
  readonly spilledM3: number;
  readonly soakedM3: number;
  readonly driedM3: number;
  readonly toppedM3: number;
  readonly liftedM3: number;
  readonly startM3: number;
  readonly endM3: number;
}

export const sumsOf = (run: DayRun): DaySums => ({
  inM3: sum(run.inM3),
  usedM3: sum(run.usedM3),
  spilledM3: sum(run.spilledM3),
  soakedM3: sum(run.soakedM3),
  driedM3: sum(run.driedM3),
  toppedM3: sum(run.toppedM3),
  liftedM3: sum(run.liftedM3),
  startM3: run.startM3,
  endM3: run.volumeM3.length > 0 ? run.volumeM3[run.volumeM3.length - 1] : run.startM3,
});

/** What is not accounted for [m3]: nothing, but for rounding. */
export const errorOf = (s: DaySums): number =>
  s.startM3 + s.inM3 + s.toppedM3 - s.usedM3 - s.spilledM3 - s.soakedM3 - s.driedM3 - s.liftedM3 - s.endM3;
