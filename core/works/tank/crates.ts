// Crates in a lined pit: what is dug, lined and laid over them, and what may go wrong.
import type { BuildStep, QuantityLine, Rule } from '../../contract/index.ts';
import { amount, say } from '../../units/index.ts';
import { BEFORE_DIGGING, inOrder, line, standingIn } from '../making.ts';
import { COMMON_PRACTICE, gradeMin, metres } from '../rules.ts';
import { FINE, saidRule } from '../said-rule.ts';
import { nearestFeature } from '../setbacks.ts';
import { type Tank, rimHeight } from './model.ts';
import { type TankFacts, type TankGround, baseM, floorOf, footM2, oneM3 } from './standing.ts';

export const isCrates = ({ tank }: Pick<TankFacts, 'tank'>): boolean => tank.made === 'crates';

/** Room to work beside crates [m], and soil and crates by weight [kg/m3]: common practice. */
const [WORK_M, SOIL_KG, CRATE_KG] = [0.3, 1600, 45];
/** Liner goes to waste at corners, and pipes through it. */
const WASTE = 1.1;

/** Length and width of the pit at its foot: of a measured one, of a square as large. */
const sidesOf = (tank: Tank): readonly [number, number] => {
  const { lengthM, widthM } = tank.dimensions;
  if (tank.form === 'box') return [lengthM, widthM];
  const side = Math.sqrt(footM2(tank));
  return [side, side];
};

export interface CrateParts {
  readonly dugM3: number;
  readonly cratesM3: number;
  readonly linerM2: number;
  readonly underlayM2: number;
  readonly sandM3: number;
  readonly coverM3: number;
}

/** What all of them take. An old pool is there already: only what is over its rim is dug. */
export function crateParts(tank: Tank): CrateParts {
  const { crates, count } = tank;
  const [l, w] = sidesOf(tank);
  const h = rimHeight(tank);
  const foot = footM2(tank);
  const box = (l + 2 * WORK_M) * (w + 2 * WORK_M) * (h + crates.coverM + crates.sandM);
  // Floor, walls and over the top, as a parcel is wrapped; each sheet two metres wide laps once.
  const wrap = 2 * foot + 2 * (l + w) * h;
  const liner = wrap * (1 + crates.lapM / 2) * WASTE;
  return {
    dugM3: count * (crates.pit === 'old-pool' ? 0 : box),
    cratesM3: count * oneM3(tank, h),
    linerM2: count * liner,
    underlayM2: count * (crates.underlay === 'cloth' ? 2 * liner : 0),
    sandM3: count * foot * crates.sandM,
    coverM3: count * foot * crates.coverM,
  };
}

/** What holds one of them down when it is empty: crates, and the soil over them [kg]. */
export const crateKg = (tank: Tank): number => CRATE_KG * oneM3(tank, rimHeight(tank)) + SOIL_KG * footM2(tank) * tank.crates.coverM;

export function crateLines(tank: Tank): QuantityLine[] {
  const p = crateParts(tank);
  return [
    ...(p.dugM3 > 0 ? [line({ item: 'cut', label: 'To dig', kind: 'volume', from: 'crates, 0.3 m to work beside them, cover and sand' }, p.dugM3, 'earth')] : []),
    line({ item: 'crates', label: 'Crates', kind: 'volume', from: 'the inside of the pit' }, p.cratesM3, 'made'),
    line({ item: 'liner', label: 'Liner', kind: 'area', from: 'floor, walls and top, lapped, a tenth for corners' }, p.linerM2, 'surface'),
    ...(p.underlayM2 > 0 ? [line({ item: 'underlay', label: 'Felt', kind: 'area', from: 'on both sides of the liner' }, p.underlayM2, 'surface')] : []),
    ...(p.sandM3 > 0 ? [line({ item: 'sand-bed', label: 'Sand under it', kind: 'volume', from: 'its foot by its thickness, settled' }, p.sandM3, 'stone')] : []),
    line({ item: 'backfill', label: 'Soil over it', kind: 'volume', from: 'its foot by its cover' }, p.coverM3, 'earth'),
  ]; // prettier-ignore
}

export function crateSteps(tank: Tank, ground: TankGround): BuildStep[] {
  const { crates, dimensions } = tank;
  const floorM = floorOf(tank, ground);
  const deep = -dimensions.standM;
  const isPool = crates.pit === 'old-pool';
  return inOrder(
    { id: 'way', does: 'Lay the way of its overflow first: to a basin, a swale or a drain.', cautions: [BEFORE_DIGGING] },
    {
      id: 'pit',
      does: isPool ? 'Empty the pool, drill its floor through in four places, and take off what is loose, sharp or over the crates.' : say`Dig to ${amount(deep, 'length')}, its walls battered or shored, and take out every stone and root.`,
      cautions: standingIn(deep),
      hold: isPool ? 'Water poured on its floor drains away: nothing will lift the liner.' : 'No water stands in the pit a day later.',
    },
    { id: 'sand', does: say`Spread ${amount(crates.sandM, 'difference')} of sand, wet it, and screed it level.`, levels: [{ name: 'floor', levelM: floorM }], hold: 'A foot leaves no print.' },
    { id: 'liner', does: say`Lay felt, liner and felt, ${amount(crates.lapM, 'difference')} lapped and welded, the pipes clamped through it.`, hold: 'Fill a hand deep and wait a day: nothing is lost.' },
    { id: 'crates', does: 'Set the crates close, the inspection shaft over the pump, and fold the liner over as a parcel.' },
    {
      id: 'cover',
      does: say`Fill round it in lifts of a hand, both sides alike, then ${amount(crates.coverM, 'length')} over it, no stone larger than a fist.`,
      levels: [{ name: 'overflow', levelM: floorM + dimensions.overflowM }],
      cautions: ['No machine stands or drives over it before its cover is whole, and then only where it is made for that.'],
    },
    { id: 'after', does: 'Look into the shaft each season, and draw the silt off before it reaches the pump.', cautions: ['Nobody climbs into the shaft alone: its air may kill.'] },
  ); // prettier-ignore
}

const COVERS: Readonly<Record<Tank['crates']['over'], readonly [weighM: number, mendM: number]>> = {
  lawn: [0.5, 0.3],
  patio: [0.5, 0.4],
  vehicle: [0.8, 0.6],
};

const cover: Rule<TankFacts> = {
  id: 'tank.crate-cover',
  title: 'Soil over the crates',
  why: 'Soil spreads a load: under too little of it a wheel or a spade goes through.',
  unit: 'm',
  kind: 'length',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: '0.5 m under feet, 0.8 m under wheels, crates made for it' },
  applies: isCrates,
  find: ({ tank }) => {
    const value = tank.crates.coverM;
    const [weighM, mendM] = COVERS[tank.crates.over];
    return {
      value,
      limit: weighM,
      severity: gradeMin(value, mendM, weighM),
      do: value < weighM ? say`Lay it ${metres(weighM - value)} deeper, or keep wheels and posts off it.` : 'Nothing.',
    };
  },
};
const deep: Rule<TankFacts> = {
  id: 'tank.crate-depth',
  title: 'Its rim under the ground',
  why: 'Crates that do not lie under their cover stand out of the ground.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: { key: 'geometry', locator: 'depth of its floor less its height' },
  // The ground in an old pool is its floor: how deep it lies is what was measured.
  applies: (facts) => isCrates(facts) && facts.tank.crates.pit === 'dug',
  find: ({ tank }) => {
    const value = -tank.dimensions.standM - rimHeight(tank);
    const limit = tank.crates.coverM;
    return {
      value,
      limit,
      severity: value < limit - 0.005 ? 'mend' : 'fine',
      do: value < limit - 0.005 ? say`Set its floor ${metres(limit - value)} deeper, or cover it less.` : 'Nothing.',
    };
  },
};
const underlay = saidRule<TankFacts>(
  { id: 'tank.underlay', title: 'Felt on both sides of the liner', why: 'One sharp stone or the edge of an old shell empties it for good.', source: COMMON_PRACTICE, applies: isCrates },
  ({ tank }) => (tank.crates.underlay === 'none' ? { severity: 'mend', do: 'Lay felt under the liner and over it.' } : FINE),
); // prettier-ignore
const trap = saidRule<TankFacts>(
  { id: 'tank.crate-trap', title: 'Silt kept out of the crates', why: 'Crates cannot be cleaned: what settles in them stays.', source: COMMON_PRACTICE, applies: isCrates },
  ({ tank }) => (tank.crates.trap === 'none' ? { severity: 'mend', do: 'Set a filter or a sump that somebody empties before it.' } : FINE),
); // prettier-ignore
const lap: Rule<TankFacts> = {
  id: 'tank.lap',
  title: 'Laps of the liner',
  why: 'A lap too narrow cannot be welded sound, and opens as the ground settles.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: '150 mm, welded or taped' },
  applies: isCrates,
  find: ({ tank }) => {
    const value = tank.crates.lapM;
    return { value, limit: 0.15, severity: gradeMin(value, 0.1, 0.15), do: value < 0.15 ? 'Lap the sheets 150 mm.' : 'Nothing.' };
  },
};
const footings: Rule<TankFacts> = {
  id: 'tank.crate-footing',
  title: 'Its pit and the nearest footing',
  why: 'A pit dug below a footing takes the ground from under the house.',
  unit: 'ratio',
  kind: 'number',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: 'as far away as it is deep; half again in soft ground' },
  applies: isCrates,
  find: ({ tank, site }) => {
    const near = nearestFeature([tank.at, tank.at], site.features.filter((f) => f.kind === 'building')); // prettier-ignore
    if (!near) return null;
    const pit = -tank.dimensions.standM + tank.crates.sandM;
    const value = Math.max(0, near.distanceM - baseM(tank) / 2) / pit;
    return {
      value,
      limit: 1.5,
      at: near.at,
      severity: gradeMin(value, 1, 1.5),
      do: value < 1.5 ? 'Move it away from the house by half its depth and more, or ask an engineer how the pit is shored.' : 'Nothing.',
    };
  },
};

export const CRATE_RULES: readonly Rule<TankFacts>[] = [cover, deep, underlay, trap, lap, footings];
