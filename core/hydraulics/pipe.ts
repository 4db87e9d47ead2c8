// Pipes that run full: through a wall, down a standing pipe, and under pressure.
import { defineFormula } from '../formula/index.ts';
import { GRAVITY, ORIFICE_C, RISER_C } from './orifice.ts';

export const DROP_INLET = defineFormula(
  {
    id: 'hydraulics.drop-inlet',
    title: 'Flow of a pipe from a standing inlet, full',
    statement: 'Q = A · (2·g·h / (1 + Ke + Kb + 19.63·n²·L / R^(4/3)))^0.5',
    symbols: {
      D: { means: 'inner diameter', unit: 'm', domain: 'positive' },
      h: { means: 'water above the middle of the outlet, or above the water beyond', unit: 'm', domain: 'nonNegative' },
      Ke: { means: 'entrance loss', unit: '', domain: 'nonNegative' },
      Kb: { means: 'loss of the bend', unit: '', domain: 'nonNegative' },
      n: { means: 'Manning roughness', unit: 's/m^(1/3)', domain: 'positive', range: [0.008, 0.03] },
      L: { means: 'length of the pipe', unit: 'm', domain: 'positive' },
    },
    result: { symbol: 'Q', means: 'flow', unit: 'm³/s' },
    source: { key: 'ah590', locator: 'drop-inlet pipe spillways; losses by Manning', fromMemory: true },
  },
  ({ D, h, Ke, Kb, n, L }) =>
    ((Math.PI / 4) * D * D * Math.sqrt(2 * GRAVITY * h)) / Math.sqrt(1 + Ke + Kb + (19.63 * n * n * L) / Math.cbrt(D / 4) ** 4),
);

/** A standing pipe with a way out at its foot. */
export interface Riser {
  readonly crestM: number;
  /** Edge that water falls over, and the opening it encloses. */
  readonly mouth: { readonly perimeterM: number; readonly areaM2: number };
  readonly pipe: { readonly diameterM: number; readonly lengthM: number; readonly n: number; readonly outletM: number };
  readonly blocked?: number;
}

const [ENTRANCE, BEND] = [0.5, 0.5];

/** Mouth of a standing pipe, and of a square box. */
export const roundMouth = (diameterM: number): Riser['mouth'] => ({
  perimeterM: Math.PI * diameterM,
  areaM2: (Math.PI / 4) * diameterM ** 2,
});
export const squareMouth = (sideM: number): Riser['mouth'] => ({ perimeterM: 4 * sideM, areaM2: sideM ** 2 });

/** Flow of a standing pipe: the least of what its crest, its mouth and the full pipe let through; `downM` drowns the pipe. */
export function riserLaw({ crestM, mouth, pipe, blocked = 0 }: Riser): (upM: number, downM?: number) => number {
  const open = 1 - Math.min(1, Math.max(0, blocked));
  const weir = RISER_C * mouth.perimeterM;
  const hole = ORIFICE_C * mouth.areaM2 * Math.sqrt(2 * GRAVITY);
  const full = (h: number): number => DROP_INLET.evaluate({ D: pipe.diameterM, h, Ke: ENTRANCE, Kb: BEND, n: pipe.n, L: pipe.lengthM });
  const perRoot = full(1);
  const middle = pipe.outletM + pipe.diameterM / 2;
  return (upM, downM = -Infinity) => {
    const head = upM - crestM;
    if (head <= 0 || upM <= downM) return 0;
    const root = Math.sqrt(head);
    return open * Math.min(weir * head * root, hole * root, perRoot * Math.sqrt(Math.max(0, upM - Math.max(middle, downM))));
  };
}

const WATER_VISCOSITY = 1.14e-6; // m2/s at 15 degrees

/** Roughness of the wall of pipes that run full under pressure [m] (handbook 4.5). */
export const PIPE_WALLS = { plastic: 0.00001, steel: 0.000045, galvanised: 0.00015, concrete: 0.001 } as const;
export type PipeWall = keyof typeof PIPE_WALLS;

export const DARCY_LOSS = defineFormula(
  {
    id: 'hydraulics.darcy-loss',
    title: 'Head lost along a pipe',
    statement: 'hf = f · (L/D) · V² / (2·g);  f = 0.25 / log10(e/(3.7·D) + 5.74/Re^0.9)²',
    symbols: {
      Q: { means: 'flow', unit: 'm³/s', domain: 'nonNegative' },
      D: { means: 'inner diameter', unit: 'm', domain: 'positive' },
      L: { means: 'length', unit: 'm', domain: 'nonNegative' },
      e: { means: 'roughness of the wall', unit: 'm', domain: 'nonNegative' },
    },
    result: { symbol: 'hf', means: 'head lost', unit: 'm' },
    source: { key: 'swamee-jain-1976', locator: 'explicit friction factor; 64/Re where the flow is smooth', fromMemory: true },
    limits: 'Reynolds number 5 000 to 100 million; under 2 000 the flow is smooth. Water at 15 °C.',
  },
  ({ Q, D, L, e }) => {
    if (Q === 0) return 0;
    const V = Q / ((Math.PI / 4) * D * D);
    const Re = (V * D) / WATER_VISCOSITY;
    const f = Re < 2000 ? 64 / Re : 0.25 / Math.log10(e / (3.7 * D) + 5.74 / Re ** 0.9) ** 2;
    return (f * L * V * V) / (D * 2 * GRAVITY);
  },
);

const WATER_WEIGHT = 1000 * GRAVITY; // N/m3

export const PUMP_POWER = defineFormula(
  {
    id: 'hydraulics.pump-power',
    title: 'Power a pump takes',
    statement: 'P = 9810 · Q · H / eta',
    symbols: {
      Q: { means: 'flow', unit: 'm³/s', domain: 'nonNegative' },
      H: { means: 'whole head: lift and losses', unit: 'm', domain: 'nonNegative' },
      eta: { means: 'efficiency of pump and motor', unit: '', domain: 'positive', range: [0.1, 0.9] },
    },
    result: { symbol: 'P', means: 'power', unit: 'W' },
    source: { key: 'geometry', locator: 'weight of water times height' },
  },
  ({ Q, H, eta }) => (WATER_WEIGHT * Q * H) / eta,
);

export const SOLAR_ARRAY = defineFormula(
  {
    id: 'hydraulics.solar-array',
    title: 'Solar panels for a daily volume',
    statement: 'W = 2.725 · V · H / (eta · h · PR)',
    symbols: {
      V: { means: 'water a day', unit: 'm³', domain: 'nonNegative' },
      H: { means: 'whole head', unit: 'm', domain: 'nonNegative' },
      eta: { means: 'efficiency of pump and motor', unit: '', domain: 'positive', range: [0.35, 0.5] },
      h: { means: 'hours of full sun a day', unit: 'h', domain: 'positive' },
      PR: { means: 'what panels give in use', unit: '', domain: 'positive', range: [0.6, 0.9] },
    },
    result: { symbol: 'W', means: 'panels, peak', unit: 'W' },
    source: { key: 'common-practice', locator: 'efficiency 0.35 to 0.5, panels 0.75 to 0.8' },
  },
  ({ V, H, eta, h, PR }) => ((WATER_WEIGHT / 3600) * V * H) / (eta * h * PR),
);
