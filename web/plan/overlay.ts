// How the layers of the land are coloured, and the legend that explains them.
import type { LayerName } from '#core/derive';
import { SLOPE_CLASSES } from '#core/terrain';
import { type UnitSystem, formatQuantity } from '#core/units';
import type { Palette } from '../app/theme.ts';
import type { PaintCell } from './paint.ts';

type Rgba = readonly [r: number, g: number, b: number, a: number];

export interface LegendLine {
  readonly colour: string;
  readonly label: string;
  readonly says?: string;
}

export interface OverlayStyle {
  readonly title: string;
  readonly says: string;
  readonly legend: readonly LegendLine[];
  /** Colour of a value; null leaves the ground as it is. */
  readonly colour: (value: number) => Rgba | null;
}

const rgb = (hex: string, alpha: number): Rgba => {
  const [r, g, b] = [1, 3, 5].map((i) => Number.parseInt(hex.slice(i, i + 2), 16));
  return [r, g, b, Math.round(255 * alpha)];
};
const css = ([r, g, b, a]: Rgba): string => `rgba(${r},${g},${b},${(a / 255).toFixed(2)})`;
const mix = (a: Rgba, b: Rgba, t: number): Rgba => {
  const at = (k: 0 | 1 | 2 | 3): number => Math.round(a[k] + (b[k] - a[k]) * t);
  return [at(0), at(1), at(2), at(3)];
};

/** Steps between two colours at rising limits: below the first nothing is painted. */
function ramp(limits: readonly number[], [from, to]: readonly [Rgba, Rgba]): (value: number) => Rgba | null {
  const colours = limits.map((_, k) => mix(from, to, limits.length < 2 ? 1 : k / (limits.length - 1)));
  return (value) => {
    let k = -1;
    while (k + 1 < limits.length && value >= limits[k + 1]) k++;
    return k < 0 ? null : colours[k];
  };
}

function stepped(
  limits: readonly number[],
  ends: readonly [Rgba, Rgba],
  label: (limit: number) => string,
): Pick<OverlayStyle, 'colour' | 'legend'> {
  const colour = ramp(limits, ends);
  return { colour, legend: limits.map((limit) => ({ colour: css(colour(limit) ?? ends[0]), label: label(limit) })) };
}

const AREAS_M2 = [500, 2000, 10_000, 50_000, 200_000];
const DEPTHS_M = [0.02, 0.1, 0.3, 1];
const WETNESS = [6, 8, 10, 12];
const SHED_MM = [1, 5, 10, 20, 40, 80];
/** About 10 t/(ha yr) is what many soils are held to bear (common practice). */
const LOSS_T = [0.5, 2, 5, 10, 20, 50];
const KNOWN_M = [0, 0.05, 0.1, 0.25, 0.5, 1];
const CURVES = [-0.02, -0.005, 0.005, 0.02];
const SLOPE_COLOURS = (p: Palette): Rgba[] => [
  rgb(p.water, 0.5),
  rgb(p.moss, 0.42),
  rgb(p.straw, 0.32),
  rgb(p.straw, 0.62),
  rgb(p.clay, 0.6),
  rgb(p.alarm, 0.62),
];

/** Diverging: clay where water parts, water where it gathers, the ground itself between. */
function curvature(p: Palette, words: { gathers: string; parts: string }): Pick<OverlayStyle, 'colour' | 'legend'> {
  const colours = [rgb(p.clay, 0.65), rgb(p.clay, 0.35), null, rgb(p.water, 0.35), rgb(p.water, 0.65)];
  const of = (k: number): string => css(colours[k] ?? rgb(p.paper, 0));
  return {
    colour: (value) => {
      let k = 0;
      for (const limit of CURVES) if (value >= limit) k++;
      return colours[k];
    },
    legend: [
      { colour: of(4), label: `strongly ${words.gathers}` },
      { colour: of(3), label: words.gathers },
      { colour: of(1), label: words.parts },
      { colour: of(0), label: `strongly ${words.parts}` },
    ],
  };
}

const BEARINGS: readonly (readonly [string, keyof Palette])[] = [
  ['north', 'water'],
  ['east', 'straw'],
  ['south', 'clay'],
  ['west', 'moss'],
];

type StyleOf = (p: Palette, system: UnitSystem) => OverlayStyle;

export const OVERLAYS: Readonly<Record<LayerName, { readonly name: string; readonly style: StyleOf }>> = {
  slope: {
    name: 'Slope, by what may be built',
    style: (p) => {
      const colours = SLOPE_COLOURS(p);
      return {
        title: 'Slope',
        says: 'What each slope allows. Methods: common practice; machines: the manual decides.',
        colour: (v) => colours[SLOPE_CLASSES.findIndex((c) => v <= c.toSlope)],
        legend: SLOPE_CLASSES.map((c, k) => {
          const from = k === 0 ? 0 : SLOPE_CLASSES[k - 1].toSlope;
          const range = Number.isFinite(c.toSlope)
            ? `${Math.round(100 * from)} to ${Math.round(100 * c.toSlope)} %`
            : `over ${Math.round(100 * from)} %`;
          return { colour: css(colours[k]), label: range, says: c.says };
        }),
      };
    },
  },
  area: {
    name: 'Area above',
    style: (p, system) => ({
      title: 'Area above each place',
      says: 'How much ground sheds through here, its water shared among all lower neighbours.',
      ...stepped(AREAS_M2, [rgb(p.water, 0.18), rgb(p.deepWater, 0.9)], (v) => `from ${formatQuantity(v, 'land', system)}`),
    }),
  },
  wetness: {
    name: 'Where it stays wet',
    style: (p) => ({
      title: 'Wetness index',
      says: 'Area above over slope, in logarithm: where soil is wet first and dries last.',
      ...stepped(WETNESS, [rgb(p.water, 0.12), rgb(p.deepWater, 0.85)], (v) =>
        v === 6 ? 'moist' : v === 8 ? 'wet after rain' : v === 10 ? 'wet for long' : 'standing or running',
      ),
    }),
  },
  hollows: {
    name: 'Hollows that must fill',
    style: (p, system) => ({
      title: 'Hollows',
      says: 'Ground that fills before its water goes on. Under 0.1 m or four cells it may be the survey’s noise.',
      ...stepped(DEPTHS_M, [rgb(p.water, 0.35), rgb(p.deepWater, 0.95)], (v) => `deeper than ${formatQuantity(v, 'difference', system)}`),
    }),
  },
  sheds: {
    name: 'What runs off in the storm',
    style: (p, system) => ({
      title: 'Runs off in the storm',
      says: 'By kind of ground, as it is now or healed: what the storm leaves over.',
      ...stepped(SHED_MM, [rgb(p.water, 0.12), rgb(p.deepWater, 0.85)], (v) => `from ${formatQuantity(v, 'rain', system)}`),
    }),
  },
  'soil-loss': {
    name: 'Soil worn off in a year',
    style: (p, system) => ({
      title: 'Soil loss of a mean year',
      says: 'Sheet and rill wash, by the revised universal equation. Compare places; trust no last digit.',
      ...stepped(LOSS_T, [rgb(p.straw, 0.3), rgb(p.alarm, 0.85)], (v) => `from ${formatQuantity(v, 'soilLoss', system)}`),
    }),
  },
  known: {
    name: 'How near it is known',
    style: (p, system) => ({
      title: 'How near the ground is known',
      says: 'By how near each survey is known and how far its nearest reading lies. Bare where nobody has said.',
      ...stepped(KNOWN_M, [rgb(p.moss, 0.3), rgb(p.alarm, 0.75)], (v) =>
        v === 0
          ? `to ${formatQuantity(KNOWN_M[1], 'difference', system)} or nearer`
          : `worse than ${formatQuantity(v, 'difference', system)}`,
      ),
    }),
  },
  plan: {
    name: 'Gathers or parts',
    style: (p) => ({
      title: 'Curvature across the slope',
      says: 'Where contours bend uphill water gathers; where they bend downhill it parts.',
      ...curvature(p, { gathers: 'gathers', parts: 'parts' }),
    }),
  },
  profile: {
    name: 'Slows or quickens',
    style: (p) => ({
      title: 'Curvature down the slope',
      says: 'Where a slope grows gentler water slows and drops its silt; where it steepens it quickens and cuts.',
      ...curvature(p, { gathers: 'slows', parts: 'quickens' }),
    }),
  },
  aspect: {
    name: 'Which way it faces',
    style: (p) => ({
      title: 'Aspect',
      says: 'Which way the ground falls: sun, frost and drying wind follow it.',
      colour: (v) => {
        const k = Math.floor(v / 90) % 4;
        const [a, b] = [BEARINGS[k][1], BEARINGS[(k + 1) % 4][1]];
        return mix(rgb(p[a] as string, 0.5), rgb(p[b] as string, 0.5), (v % 90) / 90);
      },
      legend: BEARINGS.map(([name, key]) => ({ colour: css(rgb(p[key] as string, 0.5)), label: `faces ${name}` })),
    }),
  },
};

/** A layer in its colours; no data is left clear. */
export const overlayCell =
  (values: Float32Array, style: OverlayStyle): PaintCell =>
  (cell, into, at) => {
    const v = values[cell];
    const colour = v === v ? style.colour(v) : null;
    if (colour) into.set(colour, at);
  };
