// Room and time of ground that takes water in through a hole.
import { defineFormula } from '../../formula/index.ts';

const N = { means: 'share of it that water fills', unit: '', domain: 'positive', range: [0.1, 1] } as const;
const F = { means: 'rate, its safety taken off', unit: 'mm/h', domain: 'nonNegative' } as const;

export const TRENCH_AREA = defineFormula(
  {
    id: 'soakaway.area',
    title: 'Floor of a trench that takes in a storm',
    statement: 'A = V / (n·d + f·T)',
    symbols: {
      V: { means: 'water that comes', unit: 'm³', domain: 'nonNegative' },
      n: N,
      d: { means: 'depth', unit: 'm', domain: 'positive' },
      f: F,
      T: { means: 'while it fills', unit: 'h', domain: 'nonNegative' },
    },
    result: { symbol: 'A', means: 'area of its floor', unit: 'm²' },
    source: { key: 'mde-2000', locator: 'infiltration trench, filling in about 2 h', fromMemory: true },
  },
  ({ V, n, d, f, T }) => V / (n * d + (f * T) / 1000),
);

export const TRENCH_DEPTH = defineFormula(
  {
    id: 'soakaway.depth',
    title: 'Deepest that is empty again in time, through its base',
    statement: 'd = f·t / n',
    symbols: { f: F, t: { means: 'time to be empty in', unit: 'h', domain: 'nonNegative' }, n: N },
    result: { symbol: 'd', means: 'depth', unit: 'm' },
    source: { key: 'mde-2000', locator: 'infiltration trench, 48 to 72 h', fromMemory: true },
  },
  ({ f, t, n }) => (f * t) / 1000 / n,
);

export const SOAK_SIDES = defineFormula(
  {
    id: 'soakaway.sides',
    title: 'Half of the sides of what is full',
    statement: 'a = P·d / 2',
    symbols: { P: { means: 'round it', unit: 'm', domain: 'nonNegative' }, d: { means: 'depth', unit: 'm', domain: 'nonNegative' } },
    result: { symbol: 'a', means: 'what lets water through', unit: 'm²' },
    source: { key: 'bre-365', locator: 'the base left out: silt closes it', fromMemory: true },
  },
  ({ P, d }) => (P * d) / 2,
);

export const SOAK_HALF = defineFormula(
  {
    id: 'soakaway.half',
    title: 'Time until it is half empty, what lets water through the same all the while',
    statement: 't = 0.5·S / (a·f)',
    symbols: {
      S: { means: 'room', unit: 'm³', domain: 'nonNegative' },
      a: { means: 'what lets water through', unit: 'm²', domain: 'positive' },
      f: { ...F, domain: 'positive' },
    },
    result: { symbol: 't', means: 'time', unit: 'h' },
    source: { key: 'bre-365', locator: 'half empty within 24 h', fromMemory: true },
  },
  ({ S, a, f }) => (500 * S) / (a * f),
);

export const SOAK_FALL = defineFormula(
  {
    id: 'soakaway.fall',
    title: 'Time in which it falls, by what is wet as it falls',
    statement: 't = n·A·ln((b + p·d) / (b + p·h)) / (p·f); n·A·(d − h) / (b·f) where p is 0',
    symbols: {
      n: N,
      A: { means: 'area from above', unit: 'm²', domain: 'positive' },
      b: { means: 'of its base, what lets water through', unit: 'm²', domain: 'nonNegative' },
      p: { means: 'of its sides, what lets water through for each metre of water', unit: 'm', domain: 'nonNegative' },
      d: { means: 'depth it falls from', unit: 'm', domain: 'positive' },
      h: { means: 'depth it falls to; over 0 where b is 0', unit: 'm', domain: 'nonNegative' },
      f: { ...F, domain: 'positive' },
    },
    result: { symbol: 't', means: 'time', unit: 'h' },
    source: { key: 'geometry', locator: 'n·A·dy = −f·(b + p·y)·dt from d down to h' },
  },
  ({ n, A, b, p, d, h, f }) => (1000 * n * A * (p > 0 ? Math.log((b + p * d) / (b + p * h)) / p : (d - h) / b)) / f,
);

export const RING_VOIDS = defineFormula(
  {
    id: 'soakaway.rings',
    title: 'Share that water fills inside rings and in the stone round them',
    statement: 'n = (D² + v·((D + 2t)² − D²)) / (D + 2t)²',
    symbols: {
      D: { means: 'inside the rings', unit: 'm', domain: 'positive' },
      t: { means: 'stone round them', unit: 'm', domain: 'nonNegative' },
      v: { means: 'share of the stone that water fills', unit: '', domain: 'nonNegative', range: [0.1, 0.6] },
    },
    result: { symbol: 'n', means: 'share of what is dug', unit: '' },
    source: { key: 'geometry', locator: 'the rings themselves left out' },
  },
  ({ D, t, v }) => (D * D + v * ((D + 2 * t) ** 2 - D * D)) / (D + 2 * t) ** 2,
);
