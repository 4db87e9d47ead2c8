// Culverts by HDS-5: what the inlet lets in, and what the barrel and the water beyond let through.
import { defineFormula } from '../formula/index.ts';
import { type ChannelSection, circle, criticalDepth } from './channel.ts';
import { GRAVITY } from './orifice.ts';
import { upperDepth } from './profile.ts';
import { INLETS, type InletId, MITRED, USUAL } from './inlet-forms.ts';
import { Rating } from './rating.ts';

/** Wing walls of box culverts (HDS-5 chart 8): for the formulas; round pipes are what the works use. */
export const BOX_INLETS = {
  'wingwalls-30-75': { K: 0.026, M: 1, c: 0.0347, Y: 0.81 },
  'wingwalls-90-15': { K: 0.061, M: 0.75, c: 0.04, Y: 0.8 },
  'wingwalls-0': { K: 0.061, M: 0.75, c: 0.0423, Y: 0.82 },
} as const;

/** Q/(A·D^0.5) as the charts have it, in feet. */
const UNITS = 1.811;
const [UNSUBMERGED_TO, SUBMERGED_FROM] = [3.5, 4];

const INLET_SYMBOLS = {
  Q: { means: 'flow of one barrel', unit: 'm³/s', domain: 'nonNegative' },
  A: { means: 'area of the barrel', unit: 'm²', domain: 'positive' },
  D: { means: 'height of the barrel', unit: 'm', domain: 'positive' },
  S: { means: 'slope of the barrel', unit: 'm/m', domain: 'finite' },
} as const;

/** An inlet's kind: its slope term, how that is written, and what tells it from the usual one. */
const USUAL_KIND = { id: '', words: '', slope: USUAL, term: '− 0.5·S' } as const;
const MITRED_KIND = { id: '-mitred', words: ', cut to the slope,', slope: MITRED, term: '+ 0.7·S' } as const;
type InletKind = typeof USUAL_KIND | typeof MITRED_KIND;

const inletFree = ({ id, words, slope, term }: InletKind) =>
  defineFormula(
    {
      id: `hydraulics.culvert-inlet-free${id}`,
      title: `Water above a culvert whose inlet${words} stands open`,
      statement: `HW = Hc + D · (K · X^M ${term});  X = 1.811 · Q / (A · D^0.5)`,
      symbols: {
        ...INLET_SYMBOLS,
        Hc: { means: 'least energy of the flow in the barrel', unit: 'm', domain: 'nonNegative' },
        K: { means: 'constant of the inlet', unit: '', domain: 'positive' },
        M: { means: 'exponent of the inlet', unit: '', domain: 'positive' },
      },
      result: { symbol: 'HW', means: 'water above the inlet’s floor', unit: 'm' },
      source: { key: 'hds-5', locator: 'appendix A, form 1', fromMemory: true },
      limits: 'X up to 3.5.',
    },
    ({ Q, A, D, S, Hc, K, M }) => Hc + D * (K * ((UNITS * Q) / (A * Math.sqrt(D))) ** M + slope * S),
  );

const inletDrowned = ({ id, words, slope, term }: InletKind) =>
  defineFormula(
    {
      id: `hydraulics.culvert-inlet-drowned${id}`,
      title: `Water above a culvert whose inlet${words} is drowned`,
      statement: `HW = D · (c · X² + Y ${term});  X = 1.811 · Q / (A · D^0.5)`,
      symbols: {
        ...INLET_SYMBOLS,
        c: { means: 'constant of the inlet', unit: '', domain: 'positive' },
        Y: { means: 'constant of the inlet', unit: '', domain: 'positive' },
      },
      result: { symbol: 'HW', means: 'water above the inlet’s floor', unit: 'm' },
      source: { key: 'hds-5', locator: 'appendix A, submerged', fromMemory: true },
      limits: 'X from 4; between 3.5 and 4 a straight line joins both laws.',
    },
    ({ Q, A, D, S, c, Y }) => D * (c * ((UNITS * Q) / (A * Math.sqrt(D))) ** 2 + Y + slope * S),
  );

export const CULVERT_INLET_FREE = inletFree(USUAL_KIND);
export const CULVERT_INLET_DROWNED = inletDrowned(USUAL_KIND);
export const CULVERT_INLET_FREE_MITRED = inletFree(MITRED_KIND);
export const CULVERT_INLET_DROWNED_MITRED = inletDrowned(MITRED_KIND);

export const CULVERT_BARREL = defineFormula(
  {
    id: 'hydraulics.culvert-barrel',
    title: 'Head lost through a full barrel',
    statement: 'H = (1 + Ke + 19.63·n²·L / R^(4/3)) · V² / (2·g)',
    symbols: {
      V: { means: 'velocity in the full barrel', unit: 'm/s', domain: 'nonNegative' },
      Ke: { means: 'entrance loss', unit: '', domain: 'nonNegative', range: [0, 1] },
      n: { means: 'Manning roughness', unit: 's/m^(1/3)', domain: 'positive', range: [0.008, 0.035] },
      L: { means: 'length of the barrel', unit: 'm', domain: 'positive' },
      R: { means: 'hydraulic radius, full', unit: 'm', domain: 'positive' },
    },
    result: { symbol: 'H', means: 'head lost', unit: 'm' },
    source: { key: 'hds-5', locator: 'chapter 3, full flow', fromMemory: true },
  },
  ({ V, Ke, n, L, R }) => ((1 + Ke + (19.63 * n * n * L) / Math.cbrt(R) ** 4) * V * V) / (2 * GRAVITY),
);

/** One round barrel. */
export interface Barrel {
  readonly diameterM: number;
  readonly lengthM: number;
  /** Fall of the barrel along the flow [m/m]; it may rise. */
  readonly slope: number;
  readonly n: number;
  readonly inlet: InletId;
}

const leastEnergy = (section: ChannelSection, flowM3s: number): number => {
  const y = criticalDepth(section, flowM3s);
  return y + (flowM3s / section.area(y)) ** 2 / (2 * GRAVITY);
};

/** Water above the inlet's floor that its shape asks for [m]. */
export function inletHead({ diameterM: D, slope, inlet }: Pick<Barrel, 'diameterM' | 'slope' | 'inlet'>, flowM3s: number): number {
  if (flowM3s <= 0) return 0;
  const { K, M, c, Y, slopeFactor } = INLETS[inlet];
  const A = (Math.PI / 4) * D * D;
  const perX = (A * Math.sqrt(D)) / UNITS;
  const X = flowM3s / perX;
  const free = (x: number): number => leastEnergy(circle(D), x * perX) + D * (K * x ** M + slopeFactor * slope);
  const drowned = (x: number): number => D * (c * x * x + Y + slopeFactor * slope);
  if (X <= UNSUBMERGED_TO) return Math.max(0, free(X));
  if (X >= SUBMERGED_FROM) return drowned(X);
  const share = (X - UNSUBMERGED_TO) / (SUBMERGED_FROM - UNSUBMERGED_TO);
  return (1 - share) * free(UNSUBMERGED_TO) + share * drowned(SUBMERGED_FROM);
}

/** Sum of losses of the full barrel in velocity heads. */
function lossesOf({ diameterM, lengthM, n, inlet }: Barrel): number {
  return 1 + INLETS[inlet].Ke + (19.63 * n * n * lengthM) / Math.cbrt(diameterM / 4) ** 4;
}

/** Headwater over diameter up to which the barrel's own water line is followed, and from which the full barrel is taken. */
const [BY_PROFILE, BY_FULL] = [0.75, 1.2];

/** Water above the inlet's floor that the barrel asks for with a free outfall [m]. */
export function barrelHead(barrel: Barrel, flowM3s: number): number {
  if (flowM3s <= 0) return 0;
  const { diameterM: D, lengthM, slope, n, inlet } = barrel;
  const section = circle(D);
  const fall = slope * lengthM;
  const critical = Math.min(D, criticalDepth(section, flowM3s));
  const full = (flowM3s / section.area(D)) ** 2 / (2 * GRAVITY);
  const shortcut = lossesOf(barrel) * full + (critical + D) / 2 - fall;
  if (shortcut >= BY_FULL * D) return shortcut;
  const inside = upperDepth({ section, lengthM, slope, n }, flowM3s, critical);
  const velocity = flowM3s / section.area(inside);
  const followed = inside + ((1 + INLETS[inlet].Ke) * velocity * velocity) / (2 * GRAVITY);
  const share = Math.max(0, (shortcut / D - BY_PROFILE) / (BY_FULL - BY_PROFILE));
  return (1 - share) * followed + share * shortcut;
}

/** Water above the inlet's floor for a flow with a free outfall: the larger of what inlet and barrel ask for [m]. */
export const culvertHead = (barrel: Barrel, flowM3s: number): number => Math.max(inletHead(barrel, flowM3s), barrelHead(barrel, flowM3s));

const TABLE = 32;
/** Headwater to which the table reaches, in diameters. */
const HIGHEST = 8;

export interface Culvert extends Barrel {
  readonly barrels: number;
  readonly inletM: number;
  readonly outletM: number;
  /** Share of the opening that debris or silt has closed, 0 to 1. */
  readonly blocked?: number;
}

/**
 * Flow through a culvert by the levels on both sides [m3/s], positive from inlet to outlet: with the outfall free by inlet
 * or barrel, whichever lets less through; drowned by the full barrel over the difference of levels; backwards likewise.
 */
export function culvertLaw(culvert: Culvert): (upM: number, downM?: number) => number {
  const { barrels, inletM, outletM, lengthM, diameterM: D, blocked = 0 } = culvert;
  const open = barrels * (1 - Math.min(1, Math.max(0, blocked)));
  if (open === 0) return () => 0;
  const slope = (inletM - outletM) / lengthM;
  const most = (Math.PI / 4) * D * D * Math.sqrt(2 * GRAVITY * HIGHEST * D);
  const { area } = circle(D);
  const full = area(D);
  const lawOf = (barrel: Barrel, floorM: number): ((upM: number, downM: number) => number) => {
    // A barrel that rises lets nothing through below its far end.
    const fromM = Math.max(0, -barrel.slope * lengthM);
    const rating = Rating.by(
      TABLE,
      (share) => {
        const q = most * share * share;
        return [culvertHead(barrel, q) - fromM, q];
      },
      0.5,
    );
    const perRoot = Math.sqrt((2 * GRAVITY) / lossesOf(barrel));
    // Solvers ask the same headwater again with other water beyond: what it lets through freely, and its arc, are not worked out twice.
    const asked = Float64Array.of(NaN, 0, 0);
    return (upM, downM) => {
      if (upM !== asked[0]) {
        asked[0] = upM;
        asked[1] = rating.flowAt(upM - floorM - fromM);
        asked[2] = upM - floorM >= D ? full : area(upM - floorM);
      }
      const free = asked[1];
      if (free === 0 || upM <= downM) return 0;
      return Math.min(free, perRoot * asked[2] * Math.sqrt(upM - downM));
    };
  };
  const forward = lawOf({ ...culvert, slope }, inletM);
  // Water seldom runs back: its law is worked out when it first does.
  let backward: ((upM: number, downM: number) => number) | null = null;
  return (upM, downM = -Infinity) => {
    if (upM >= downM) return open * forward(upM, downM);
    backward ??= lawOf({ ...culvert, slope: -slope }, outletM);
    return -open * backward(downM, upM);
  };
}
