// Uniform and critical flow in trapezoidal channels and round pipes.
import { defineFormula } from '../formula/index.ts';
import { GRAVITY } from './orifice.ts';
import { rootOf } from './root.ts';

/** A section that holds water: everything about it at a depth. */
export interface ChannelSection {
  readonly area: (depthM: number) => number;
  readonly perimeter: (depthM: number) => number;
  readonly topWidth: (depthM: number) => number;
}

/** Bottom of one width, both sides of one slope (out per 1 up). */
export function trapezoid(widthM: number, sideHV: number): ChannelSection {
  const slant = 2 * Math.hypot(1, sideHV);
  return { area: (y) => (widthM + sideHV * y) * y, perimeter: (y) => widthM + slant * y, topWidth: (y) => widthM + 2 * sideHV * y };
}

/** Width left open at the crown, so that a full pipe keeps a water level that can rise: its pressure [share of diameter]. */
const SLOT = 1e-4;

/** A round pipe; above its crown the "depth" is that of its pressure line. */
export function circle(diameterM: number): ChannelSection {
  const r = diameterM / 2;
  const full = Math.PI * r * r;
  // The sector to the water's edge less the triangle over it, both by the same cosine: near nothing they are all but one.
  const segment = (cos: number): number => (cos >= 1 ? 0 : r * r * (Math.acos(cos) - cos * Math.sqrt((1 - cos) * (1 + cos))));
  const angle = (y: number): number => 2 * Math.acos(Math.max(-1, Math.min(1, 1 - y / r)));
  return {
    area: (y) => (y >= diameterM ? full : segment(1 - y / r)),
    perimeter: (y) => (y >= diameterM ? 2 * Math.PI * r : r * angle(y)),
    topWidth: (y) => Math.max(SLOT * diameterM, y >= diameterM ? 0 : 2 * Math.sqrt(Math.max(0, y * (diameterM - y)))),
  };
}

export interface Uniform {
  readonly slope: number;
  readonly n: number;
}

/** Flow by Manning's law at a depth [m3/s]. */
export function uniformFlow(section: ChannelSection, { slope, n }: Uniform, depthM: number): number {
  if (depthM <= 0) return 0;
  const area = section.area(depthM);
  return (area * Math.cbrt(area / section.perimeter(depthM)) ** 2 * Math.sqrt(Math.max(0, slope))) / n;
}

/** Depth at which a flow runs evenly down a slope [m]. */
export const normalDepth = (section: ChannelSection, on: Uniform, flowM3s: number): number =>
  flowM3s <= 0 ? 0 : rootOf((y) => uniformFlow(section, on, y) - flowM3s);

/** Depth of least energy for a flow [m]: Q²·T = g·A³. */
export const criticalDepth = (section: ChannelSection, flowM3s: number, alpha = 1): number =>
  flowM3s <= 0 ? 0 : rootOf((y) => Math.sqrt((GRAVITY * section.area(y) ** 3) / (alpha * Math.max(1e-12, section.topWidth(y)))) - flowM3s);

export const froude = (section: ChannelSection, flowM3s: number, depthM: number): number => {
  const area = section.area(depthM);
  return flowM3s / area / Math.sqrt((GRAVITY * area) / section.topWidth(depthM));
};

const CHANNEL_SYMBOLS = {
  Q: { means: 'flow', unit: 'm³/s', domain: 'nonNegative' },
  b: { means: 'bottom width', unit: 'm', domain: 'nonNegative' },
  z: { means: 'sides, out per 1 up', unit: '', domain: 'nonNegative' },
} as const;

export const NORMAL_DEPTH = defineFormula(
  {
    id: 'hydraulics.normal-depth',
    title: 'Depth of even flow in a channel',
    statement: 'Q = A · R^(2/3) · S^(1/2) / n, solved for the depth y;  A = (b + z·y)·y, R = A/(b + 2·y·(1+z²)^0.5)',
    symbols: {
      ...CHANNEL_SYMBOLS,
      S: { means: 'slope of the channel', unit: 'm/m', domain: 'positive' },
      n: { means: 'Manning roughness', unit: 's/m^(1/3)', domain: 'positive', range: [0.008, 0.4] },
    },
    result: { symbol: 'y', means: 'depth', unit: 'm' },
    source: { key: 'chow1959', locator: 'section 6-5', fromMemory: true },
  },
  ({ Q, b, z, S, n }) => normalDepth(trapezoid(b, z), { slope: S, n }, Q),
);

export const CRITICAL_DEPTH = defineFormula(
  {
    id: 'hydraulics.critical-depth',
    title: 'Critical depth in a channel',
    statement: 'alpha · Q² · T / (g · A³) = 1, solved for the depth y',
    symbols: { ...CHANNEL_SYMBOLS, alpha: { means: 'coefficient of kinetic energy', unit: '', domain: 'positive', range: [1, 1.4] } },
    result: { symbol: 'y', means: 'depth', unit: 'm' },
    source: { key: 'chow1959', locator: 'section 4-3', fromMemory: true },
  },
  ({ Q, b, z, alpha }) => criticalDepth(trapezoid(b, z), Q, alpha),
);

export const FULL_PIPE = defineFormula(
  {
    id: 'hydraulics.full-pipe',
    title: 'Flow of a pipe running just full',
    statement: 'Q = (π/4)·D² · (D/4)^(2/3) · S^(1/2) / n',
    symbols: {
      D: { means: 'inner diameter', unit: 'm', domain: 'positive' },
      n: { means: 'Manning roughness', unit: 's/m^(1/3)', domain: 'positive', range: [0.008, 0.03] },
      S: { means: 'slope of the pipe', unit: 'm/m', domain: 'positive' },
    },
    result: { symbol: 'Q', means: 'flow', unit: 'm³/s' },
    source: { key: 'chow1959', locator: 'eq. 5-6 for a round section', fromMemory: true },
  },
  ({ D, n, S }) => (((Math.PI / 4) * D * D * Math.cbrt(D / 4) ** 2) / n) * Math.sqrt(S),
);
