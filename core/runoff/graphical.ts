// TR-55 graphical peak: the peak of a day-long regional storm read from curves.
import { defineFormula } from '../formula/index.ts';

export const GRAPHICAL_UNIT_PEAK = defineFormula(
  {
    id: 'runoff.graphical-unit-peak',
    title: 'Unit peak of the graphical method',
    statement: 'log10 qu = C0 + C1·log10 tc + C2·(log10 tc)²',
    symbols: {
      C0: { means: 'coefficient of storm type and Ia/P', unit: '', domain: 'finite' },
      C1: { means: 'coefficient of storm type and Ia/P', unit: '', domain: 'finite' },
      C2: { means: 'coefficient of storm type and Ia/P', unit: '', domain: 'finite' },
      tc: { means: 'time of concentration', unit: 'h', domain: 'positive', range: [0.1, 10] },
    },
    result: { symbol: 'qu', means: 'unit peak', unit: 'csm/in' },
    source: { key: 'tr55', locator: 'appendix F', fromMemory: true },
  },
  ({ C0, C1, C2, tc }) => {
    const x = Math.log10(tc);
    return 10 ** (C0 + C1 * x + C2 * x * x);
  },
);

export const GRAPHICAL_PEAK = defineFormula(
  {
    id: 'runoff.graphical-peak',
    title: 'Graphical peak',
    statement: 'q = 4.304e-4 · qu · A · Q · Fp',
    symbols: {
      qu: { means: 'unit peak', unit: 'csm/in', domain: 'positive' },
      A: { means: 'area', unit: 'km²', domain: 'nonNegative' },
      Q: { means: 'runoff of the day', unit: 'mm', domain: 'nonNegative' },
      Fp: { means: 'factor for ponds: 1 without', unit: '', domain: 'positive', range: [0.72, 1] },
    },
    result: { symbol: 'q', means: 'peak flow', unit: 'm³/s' },
    source: { key: 'tr55', locator: 'eq. 4-1 in SI', fromMemory: true },
    limits: 'One even catchment, curve number of at least 40, one main stream.',
  },
  ({ qu, A, Q, Fp }) => 4.304e-4 * qu * A * Q * Fp,
);

export const REGIONS = ['I', 'IA', 'II', 'III'] as const;
export type Region = (typeof REGIONS)[number];

type Row = readonly [iaOverP: number, c0: number, c1: number, c2: number];

/** Coefficients by storm type and Ia/P (TR-55 appendix F; P). */
const ROWS: Readonly<Record<Region, readonly Row[]>> = {
  I: [
    [0.1, 2.3055, -0.51429, -0.1175],
    [0.2, 2.23537, -0.50387, -0.08929],
    [0.25, 2.18219, -0.48488, -0.06589],
    [0.3, 2.10624, -0.45695, -0.02835],
    [0.35, 2.00303, -0.40769, 0.01983],
    [0.4, 1.87733, -0.32274, 0.05754],
    [0.45, 1.76312, -0.15644, 0.00453],
    [0.5, 1.67889, -0.0693, 0],
  ],
  IA: [
    [0.1, 2.0325, -0.31583, -0.13748],
    [0.2, 1.91978, -0.28215, -0.0702],
    [0.25, 1.83842, -0.25543, -0.02597],
    [0.3, 1.72657, -0.19826, 0.02633],
    [0.5, 1.63417, -0.091, 0],
  ],
  II: [
    [0.1, 2.55323, -0.61512, -0.16403],
    [0.3, 2.46532, -0.62257, -0.11657],
    [0.35, 2.41896, -0.61594, -0.0882],
    [0.4, 2.36409, -0.59857, -0.05621],
    [0.45, 2.29238, -0.57005, -0.02281],
    [0.5, 2.20282, -0.51599, -0.01259],
  ],
  III: [
    [0.1, 2.47317, -0.51848, -0.17083],
    [0.3, 2.39628, -0.51202, -0.13245],
    [0.35, 2.35477, -0.49735, -0.11985],
    [0.4, 2.30726, -0.46541, -0.11094],
    [0.45, 2.24876, -0.41314, -0.11508],
    [0.5, 2.17772, -0.36803, -0.09525],
  ],
};

/** Unit peak [csm/in] of a storm type: Ia/P is held to 0.10 to 0.50 as the source says, and log qu goes straight between rows. */
export function unitPeakOf(region: Region, iaOverP: number, tcH: number): number {
  const rows = ROWS[region];
  const held = Math.min(0.5, Math.max(0.1, iaOverP));
  const k = Math.max(
    1,
    rows.findIndex((r) => held <= r[0]),
  );
  const log = ([, C0, C1, C2]: Row): number => Math.log10(GRAPHICAL_UNIT_PEAK.evaluate({ C0, C1, C2, tc: tcH }));
  const [a, b] = [rows[k - 1], rows[k]];
  return 10 ** (log(a) + ((held - a[0]) / (b[0] - a[0])) * (log(b) - log(a)));
}

export const DETENTION_SHARE = defineFormula(
  {
    id: 'runoff.detention-share',
    title: 'Storage that lowers a peak',
    statement: 'Vs/Vr = c0 + c1·r + c2·r² + c3·r³',
    symbols: {
      r: { means: 'peak out over peak in', unit: '', domain: 'positive', range: [0.1, 0.8] },
      c0: { means: 'coefficient of storm type', unit: '', domain: 'finite' },
      c1: { means: 'coefficient of storm type', unit: '', domain: 'finite' },
      c2: { means: 'coefficient of storm type', unit: '', domain: 'finite' },
      c3: { means: 'coefficient of storm type', unit: '', domain: 'finite' },
    },
    result: { symbol: 'Vs/Vr', means: 'storage over runoff volume', unit: '' },
    source: { key: 'tr55', locator: 'Figure 6-1', fromMemory: true },
    limits: 'Within a quarter; a first estimate, not for final design.',
  },
  ({ r, c0, c1, c2, c3 }) => c0 + c1 * r + c2 * r * r + c3 * r ** 3,
);

/** Coefficients of the detention estimate (TR-55 Figure 6-1). */
export const DETENTION: Readonly<Record<Region, { readonly c0: number; readonly c1: number; readonly c2: number; readonly c3: number }>> = {
  I: { c0: 0.66, c1: -1.76, c2: 1.96, c3: -0.73 },
  IA: { c0: 0.66, c1: -1.76, c2: 1.96, c3: -0.73 },
  II: { c0: 0.682, c1: -1.43, c2: 1.64, c3: -0.804 },
  III: { c0: 0.682, c1: -1.43, c2: 1.64, c3: -0.804 },
};
