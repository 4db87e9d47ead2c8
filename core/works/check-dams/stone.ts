// What a dam is made of: its body across the channel as it is there, its keys and its apron.
import { defineFormula } from '../../formula/index.ts';
import { FORMS, bodyOf } from './forms.ts';
import { STONE_T_M3 } from '../making.ts';
import type { CheckDams } from './model.ts';
import type { Standing } from './store.ts';

/** Depth of an apron [m]: two stones of a hand's size; common practice. */
const APRON_DEEP_M = 0.3;

export const WEDGE_VOLUME = defineFormula(
  {
    id: 'check-dams.wedge',
    title: 'Room behind a dam on an even bed',
    statement: 'V = (b·H²/2 + z·H³/3) / S',
    symbols: {
      b: { means: 'width of the bed', unit: 'm', domain: 'nonNegative' },
      z: { means: 'sides of the channel, out per 1 up', unit: '', domain: 'nonNegative' },
      H: { means: 'height of the dam, from the bed to its notch', unit: 'm', domain: 'nonNegative' },
      S: { means: 'slope of the bed', unit: 'm/m', domain: 'positive' },
    },
    result: { symbol: 'V', means: 'room for water and silt', unit: 'm³' },
    source: { key: 'geometry', locator: 'a trapezoid that narrows to nothing along the bed' },
    limits: 'Outlet adds up the wedge on the bed as it is; this is for one even slope.',
  },
  ({ b, z, H, S }) => ((b * H * H) / 2 + (z * H ** 3) / 3) / S,
);

/** Body of a dam so wide at its crest, with both faces, summed over the bed and up both sides: heights fall from the bed to nothing. */
export const DAM_BODY = defineFormula(
  {
    id: 'check-dams.body',
    title: 'Body of a dam across its channel',
    statement: 'V = n·(w·H + m·H²/2) + (b − n)·(w·E + m·E²/2) + 2·z·(w·E²/2 + m·E³/6)',
    symbols: {
      w: { means: 'width of the crest along the flow', unit: 'm', domain: 'nonNegative' },
      m: { means: 'both faces together, out per 1 up', unit: '', domain: 'nonNegative' },
      n: { means: 'width of the notch', unit: 'm', domain: 'nonNegative' },
      b: { means: 'width of the bed', unit: 'm', domain: 'nonNegative' },
      z: { means: 'sides of the channel, out per 1 up', unit: '', domain: 'nonNegative' },
      H: { means: 'height in the notch', unit: 'm', domain: 'nonNegative' },
      E: { means: 'height of the ends', unit: 'm', domain: 'nonNegative' },
    },
    result: { symbol: 'V', means: 'volume of the body', unit: 'm³' },
    source: { key: 'geometry' },
  },
  ({ w, m, n, b, z, H, E }) => {
    const slice = (h: number): number => w * h + (m * h * h) / 2;
    return Math.min(n, b) * slice(H) + Math.max(0, b - n) * slice(E) + 2 * z * ((w * E * E) / 2 + (m * E ** 3) / 6);
  },
);

export interface DamStone {
  readonly bodyM3: number;
  /** What lies in its keys, and what is dug for them. */
  readonly keysM3: number;
  readonly dugM3: number;
  readonly apronM3: number;
  readonly allM3: number;
  /** Length of its crest from bank to bank [m]. */
  readonly crestM: number;
}

/** Logs of a wall of them, end to end: layer by layer as wide as the channel is there, less the notch, and those in the bed key [m]. */
export function logsOf({ dimensions }: CheckDams, { dam, section }: Standing): number {
  const { pieceM, notchWidthM, notchDepthM, sideKeyM, bedKeyM } = dimensions;
  const [H, E] = [dam.heightM, dam.heightM + notchDepthM];
  const keyed = (depthM: number): number => section.topWidth(depthM) + 2 * sideKeyM;
  const inBed = Math.ceil(bedKeyM / pieceM - 1e-9) * keyed(0);
  const layers = Math.ceil(E / pieceM - 1e-9);
  const open = (k: number): number => (k * pieceM > H - 1e-9 ? notchWidthM : 0);
  return Array.from({ length: layers }, (_, k) => keyed(Math.min(E, (k + 1) * pieceM)) - open(k)).reduce((a, m) => a + m, inBed);
}

/** What one dam takes, as it was built: what has gone since is laid again. */
export function stoneOf(work: CheckDams, one: Standing): DamStone {
  const { dam, section, sideHV } = one;
  const { notchWidthM: n, notchDepthM, sideKeyM, bedKeyM, apronM, pieceM } = work.dimensions;
  const { crestWidthM: w, upSlopeHV, downSlopeHV } = bodyOf(work);
  const [b, H] = [dam.bedWidthM, dam.heightM];
  const E = H + notchDepthM;
  const bodyM3 =
    work.form === 'log'
      ? (Math.PI / 4) * pieceM * pieceM * logsOf(work, one)
      : DAM_BODY.evaluate({ w, m: upSlopeHV + downSlopeHV, n, b, z: sideHV, H, E });
  const dugM3 = 2 * sideKeyM * w * E + bedKeyM * w * b;
  const apronM3 = apronM * b * APRON_DEEP_M;
  // Logs in their keys are counted with the others.
  const keysM3 = work.form === 'log' ? 0 : dugM3;
  return { bodyM3, keysM3, dugM3, apronM3, allM3: bodyM3 + keysM3 + apronM3, crestM: section.topWidth(E) + 2 * sideKeyM };
}

/** What all of it weighs [t]: aprons of logs and bags are of stone. */
export function weightOf({ form }: CheckDams, { bodyM3, keysM3, apronM3 }: DamStone): number {
  const own = FORMS[form].weighsT;
  return (bodyM3 + keysM3) * own + apronM3 * (form === 'brush' ? own : STONE_T_M3);
}
