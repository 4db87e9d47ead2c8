// What it takes to rip, and what it leaves of the rate.
import { defineFormula } from '../../formula/index.ts';

export const RIP_DRAFT = defineFormula(
  {
    id: 'ripping.draft',
    title: 'Pull of a subsoiler',
    statement: 'F = f·(226 + 1.8·v²)·n·d',
    symbols: {
      f: { means: 'by the soil: clay 1, loam 0.7, sand 0.45', unit: '', domain: 'positive', range: [0.4, 1] },
      v: { means: 'speed', unit: 'km/h', domain: 'positive' },
      n: { means: 'shanks', unit: '', domain: 'positive' },
      d: { means: 'depth', unit: 'cm', domain: 'nonNegative' },
    },
    result: { symbol: 'F', means: 'pull', unit: 'N' },
    source: { key: 'asae-d497', locator: 'subsoiler, narrow point: A 226, B 0, C 1.8', fromMemory: true },
    limits: 'Half as much and twice as much are found on real ground.',
  },
  ({ f, v, n, d }) => f * (226 + 1.8 * v * v) * n * d,
);

export const RIP_POWER = defineFormula(
  {
    id: 'ripping.power',
    title: 'Power of an engine that pulls so',
    statement: 'P = F·v / (3600·e)',
    symbols: {
      F: { means: 'pull', unit: 'N', domain: 'nonNegative' },
      v: { means: 'speed', unit: 'km/h', domain: 'positive' },
      e: { means: 'what of it reaches the ground', unit: '', domain: 'positive', range: [0.3, 0.9] },
    },
    result: { symbol: 'P', means: 'power', unit: 'kW' },
    source: { key: 'asae-d497', locator: 'wheels on firm soil, about 0.6 of the engine', fromMemory: true },
  },
  ({ F, v, e }) => (F * v) / (3600 * e),
);

export const RIP_HOURS = defineFormula(
  {
    id: 'ripping.hours',
    title: 'Hours of driving',
    statement: 't = L / (1000·v·n·e)',
    symbols: {
      L: { means: 'all slots, end to end', unit: 'm', domain: 'nonNegative' },
      v: { means: 'speed', unit: 'km/h', domain: 'positive' },
      n: { means: 'shanks', unit: '', domain: 'positive' },
      e: { means: 'share of the time that is not turning', unit: '', domain: 'positive', range: [0.4, 1] },
    },
    result: { symbol: 't', means: 'time', unit: 'h' },
    source: { key: 'common-practice', locator: 'about 0.75 of the time is spent in the ground' },
  },
  ({ L, v, n, e }) => L / (1000 * v * n * e),
);

export const RIP_LEFT = defineFormula(
  {
    id: 'ripping.left',
    title: 'Times the rate of the ground beside it, after some years',
    statement: 'k(t) = 1 + (k − 1)·0.5^((t − t0)/h)',
    symbols: {
      k: { means: 'times the rate, as tested', unit: '', domain: 'positive' },
      t: { means: 'years since it was ripped', unit: 'years', domain: 'nonNegative' },
      t0: { means: 'years when it was tested', unit: 'years', domain: 'nonNegative' },
      h: { means: 'years in which half of the gain goes', unit: 'years', domain: 'positive' },
    },
    result: { symbol: 'k(t)', means: 'times the rate', unit: '' },
    source: { key: 'common-practice', locator: 'a gain that halves; the years are the owner’s guess' },
  },
  ({ k, t, t0, h }) => 1 + (k - 1) * 0.5 ** ((t - t0) / h),
);
