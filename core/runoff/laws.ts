// Laws of runoff that take lists or words: mixed ground, regional storms, hydrographs, storage for a choked outlet.
import { defineFormula, defineLaw, together } from '../formula/index.ts';
import { weighed } from './catchment.ts';
import { retentionOf } from './curve-number.ts';
import { DETENTION, DETENTION_SHARE, REGIONS, unitPeakOf } from './graphical.ts';
import { greenAmptLaw } from './green-ampt.ts';
import { RATIONAL_PEAK } from './rational.ts';
import { convolve } from './unit-hydrograph.ts';
import { WETNESSES, curveNumberWhen } from './wetness.ts';

const number = { means: 'curve number', unit: '', domain: 'positive', range: [30, 100] } as const;

export const RETENTION = defineFormula(
  {
    id: 'runoff.retention',
    title: 'What the ground can keep back',
    statement: 'S = 25400/CN − 254',
    symbols: { CN: number },
    result: { symbol: 'S', means: 'retention', unit: 'mm' },
    source: { key: 'tr55', locator: 'eq. 2-4 in SI', fromMemory: true },
  },
  ({ CN }) => retentionOf(CN),
);

export const WEIGHED_NUMBER = defineLaw(
  {
    id: 'runoff.weighed-number',
    title: 'Curve number of several kinds of ground',
    statement: 'CN = Σ(A·CN) / ΣA',
    symbols: { A: { means: 'area of each', unit: 'any', domain: 'positive', many: true }, CN: { ...number, many: true } },
    result: { symbol: 'CN', means: 'curve number weighed by area', unit: '' },
    source: { key: 'tr55', locator: 'worksheet 2', fromMemory: true },
    limits: 'Understates runoff where the numbers differ much: Outlet adds what each kind of ground sheds instead.',
  },
  ({ A, CN }) => {
    together('runoff.weighed-number', A, CN);
    return weighed(
      A.map((areaM2, k) => ({ soil: CN[k], areaM2 })),
      (cn) => cn,
    );
  },
);

export const NUMBER_WHEN = defineLaw(
  {
    id: 'runoff.curve-number-when',
    title: 'Curve number on dry or wet ground by the table',
    statement: 'the published table, straight between its rows',
    symbols: { CN: number, wetness: { means: 'wetness of the ground', unit: '', domain: 'finite', words: WETNESSES } },
    result: { symbol: 'CN', means: 'curve number of that wetness', unit: '' },
    source: { key: 'neh630-10', locator: 'Table 10-1', fromMemory: true },
  },
  ({ CN, wetness }) => curveNumberWhen(wetness, Math.min(100, CN)),
);

export const DRY_NUMBER_1985 = defineFormula(
  {
    id: 'runoff.curve-number-dry-1985',
    title: 'Curve number on dry ground, nearer to the table',
    statement: 'CN_I = CN / (2.281 − 0.01281·CN)',
    symbols: { CN: number },
    result: { symbol: 'CN_I', means: 'curve number after a dry spell', unit: '' },
    source: { key: 'hawkins-1985', locator: 'dry condition', fromMemory: true },
  },
  ({ CN }) => CN / (2.281 - 0.01281 * CN),
);

export const WET_NUMBER_1985 = defineFormula(
  {
    id: 'runoff.curve-number-wet-1985',
    title: 'Curve number on wet ground, nearer to the table',
    statement: 'CN_III = CN / (0.427 + 0.00573·CN)',
    symbols: { CN: number },
    result: { symbol: 'CN_III', means: 'curve number after days of rain', unit: '' },
    source: { key: 'hawkins-1985', locator: 'wet condition', fromMemory: true },
  },
  ({ CN }) => CN / (0.427 + 0.00573 * CN),
);

export const TRAVEL_SUM = defineLaw(
  {
    id: 'runoff.travel-sum',
    title: 'Time of concentration by its stretches',
    statement: 'tc = Σt',
    symbols: { t: { means: 'time on each stretch', unit: 'h', domain: 'nonNegative', many: true } },
    result: { symbol: 'tc', means: 'time of concentration', unit: 'h' },
    source: { key: 'tr55', locator: 'eq. 3-2', fromMemory: true },
  },
  ({ t }) => t.reduce((a, v) => a + v, 0),
);

const region = { means: 'regional storm type', unit: '', domain: 'finite', words: REGIONS } as const;

export const UNIT_PEAK_OF_TYPE = defineLaw(
  {
    id: 'runoff.graphical-unit-peak-of',
    title: 'Unit peak of a regional storm',
    statement: 'log10 qu = C0 + C1·log10 tc + C2·(log10 tc)², by the table of coefficients, straight in log qu between its rows',
    symbols: {
      type: region,
      r: { means: 'first loss over rain: held to 0.10 to 0.50', unit: '', domain: 'nonNegative', range: [0.1, 0.5] },
      tc: { means: 'time of concentration', unit: 'h', domain: 'positive', range: [0.1, 10] },
    },
    result: { symbol: 'qu', means: 'unit peak', unit: 'csm/in' },
    source: { key: 'tr55', locator: 'appendix F', fromMemory: true },
  },
  ({ type, r, tc }) => unitPeakOf(type, r, tc),
);

export const DETENTION_OF_TYPE = defineLaw(
  {
    id: 'runoff.detention-share-of',
    title: 'Storage that lowers the peak of a regional storm',
    statement: 'Vs/Vr = c0 + c1·r + c2·r² + c3·r³, by the coefficients of its type',
    symbols: { type: region, r: { means: 'peak out over peak in', unit: '', domain: 'positive', range: [0.1, 0.8] } },
    result: { symbol: 'Vs/Vr', means: 'storage over runoff volume', unit: '' },
    source: { key: 'tr55', locator: 'Figure 6-1', fromMemory: true },
    limits: 'Within a quarter; a first estimate, not for final design.',
  },
  ({ type, r }) => DETENTION_SHARE.evaluate({ r, ...DETENTION[type] }),
);

export const CONVOLUTION = defineLaw(
  {
    id: 'runoff.convolution',
    title: 'Hydrograph of a storm by a unit hydrograph',
    statement: 'Q(n) = Σ P(m) · U(n − m + 1)',
    symbols: {
      P: { means: 'runoff of each step', unit: 'mm', domain: 'nonNegative', many: true },
      U: {
        means: 'flow at the end of each step for one unit of runoff in the first',
        unit: 'm³/s per mm',
        domain: 'nonNegative',
        many: true,
      },
    },
    result: { symbol: 'Q', means: 'flow at the end of each step', unit: 'm³/s' },
    source: { key: 'chow-1988', locator: 'eq. 7.4.1', fromMemory: true },
  },
  ({ P, U }) => [...convolve(Float64Array.from(P), Float64Array.from(U))],
);

/** Peak rate factor of a hydrograph whose dimensionless area is one: 484 stands for an area of 4/3, in US units. */
const FACTOR_OF_ONE = 645.33;

export const PEAK_FACTOR_OF = defineLaw(
  {
    id: 'runoff.peak-factor-of',
    title: 'Peak rate factor of a dimensionless hydrograph',
    statement: 'F = 645.33 / ∫(q/qp)·d(t/Tp), by trapezia',
    symbols: {
      t: { means: 'time over time to peak, rising', unit: '', domain: 'nonNegative', many: true },
      q: { means: 'flow over peak flow', unit: '', domain: 'nonNegative', many: true },
    },
    result: { symbol: 'F', means: 'peak rate factor', unit: '' },
    source: { key: 'neh630-16', locator: 'peak rate factors', fromMemory: true },
  },
  ({ t, q }) => {
    together('runoff.peak-factor-of', t, q);
    return FACTOR_OF_ONE / t.reduce((a, v, k) => (k === 0 ? 0 : a + ((q[k] + q[k - 1]) / 2) * (v - t[k - 1])), 0);
  },
);

export const GREEN_AMPT_STORM = defineLaw(
  {
    id: 'runoff.green-ampt-storm',
    title: 'Water soaked in over a storm behind a wetting front',
    statement: 'all of it until water stands, F = K·s/(i − K); then F2 − F1 − s·ln((F2 + s)/(F1 + s)) = K·Δt',
    symbols: {
      K: { means: 'effective conductivity', unit: 'mm/h', domain: 'nonNegative' },
      s: { means: 'suction at the wetting front times the share of soil it fills', unit: 'mm', domain: 'nonNegative' },
      dt: { means: 'length of a step', unit: 'h', domain: 'positive' },
      P: { means: 'rain in each step', unit: 'mm', domain: 'nonNegative', many: true },
    },
    result: { symbol: 'F', means: 'depth soaked in by the end of each step', unit: 'mm' },
    source: { key: 'chow-1988', locator: 'section 4.4', fromMemory: true },
  },
  ({ K, s, dt, P }) => {
    const law = greenAmptLaw({ conductivityMmPerHour: K, suctionMm: s });
    let F = 0;
    return P.map((rain) => (F += rain > 0 ? rain - law(rain, dt) : 0));
  },
);

export const MODIFIED_RATIONAL = defineLaw(
  {
    id: 'runoff.modified-rational',
    title: 'Storage behind an outlet by the rational method',
    statement: 'V = max over t of (C·i(t)·A/360 − Q)·60·t',
    symbols: {
      C: { means: 'runoff coefficient', unit: '', domain: 'positive', range: [0.05, 1] },
      A: { means: 'area', unit: 'ha', domain: 'positive', range: [0, 12] },
      Q: { means: 'flow the outlet lets go', unit: 'm³/s', domain: 'nonNegative' },
      t: { means: 'durations', unit: 'min', domain: 'positive', many: true },
      i: { means: 'intensity of each', unit: 'mm/h', domain: 'nonNegative', many: true },
    },
    result: { symbol: 'V', means: 'storage', unit: 'm³' },
    source: { key: 'common-practice', locator: 'modified rational method: every duration, not the time of concentration alone' },
  },
  ({ C, A, Q, t, i }) => {
    together('runoff.modified-rational', t, i);
    return Math.max(0, ...t.map((minutes, k) => (RATIONAL_PEAK.evaluate({ C, i: i[k], A }) - Q) * 60 * minutes));
  },
);
