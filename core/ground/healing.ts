// How ground changes with years of rest or after the ripper: what it takes in, and what covers it.
import { defineFormula } from '../formula/index.ts';
import { type Cover, coverOf } from './cover.ts';

export const TREATMENTS = ['rest', 'rip', 'rip-and-rest'] as const;
export type Treatment = (typeof TREATMENTS)[number];

export const COMPACTIONS = ['none', 'some', 'severe'] as const;
export type Compaction = (typeof COMPACTIONS)[number];

export interface Healing {
  readonly treatment: Treatment;
  /** What it will be covered with; left out, as now. */
  readonly cover?: string;
  /** How many times more it takes in once healed; left out, by how compacted it is. */
  readonly factor?: number;
}

/** How many times the present rate rested ground comes to, by compaction now: common practice, the ground itself decides. */
export const REST_FACTOR: Readonly<Record<Compaction, number>> = { none: 1.2, some: 2, severe: 4 };
/** What the ripper gives at once, times the present rate: common practice. */
export const RIP_FACTOR: Readonly<Record<Compaction, number>> = { none: 1.1, some: 2, severe: 3 };
/** Years in which two thirds of the healing is done, and of the ripping is lost where nothing grows into it: common practice. */
export const [REST_YEARS, RIP_YEARS] = [4, 2];

export const HEALED_SHARE = defineFormula(
  {
    id: 'ground.healed-share',
    title: 'Share of the healing done',
    statement: 's = 1 − exp(−t / 4)',
    symbols: { t: { means: 'years of rest', unit: 'years', domain: 'nonNegative', range: [0, 30] } },
    result: { symbol: 's', means: 'share of the way to healed ground', unit: '' },
    source: { key: 'common-practice', locator: 'most of the change within ten years of rest' },
  },
  ({ t }) => 1 - Math.exp(-t / REST_YEARS),
);

export const RESTED_RATE = defineFormula(
  {
    id: 'ground.rested-rate',
    title: 'What rested ground takes in',
    statement: 'f = f0 · (1 + (F − 1) · s)',
    symbols: {
      f0: { means: 'rate now', unit: 'mm/h', domain: 'nonNegative' },
      F: { means: 'times the present rate once healed', unit: '', domain: 'positive', range: [1, 10] },
      s: { means: 'share of the healing done', unit: '', domain: 'nonNegative', range: [0, 1] },
    },
    result: { symbol: 'f', means: 'rate after these years', unit: 'mm/h' },
    source: { key: 'common-practice', locator: 'bare compacted ground sheds several times what healthy grass does' },
  },
  ({ f0, F, s }) => f0 * (1 + (F - 1) * s),
);

export const RIPPED_RATE = defineFormula(
  {
    id: 'ground.ripped-rate',
    title: 'What ripped ground takes in',
    statement: 'f = f0 · (1 + (F − 1) · exp(−t / 2))',
    symbols: {
      f0: { means: 'rate before ripping', unit: 'mm/h', domain: 'nonNegative' },
      F: { means: 'times that rate just after ripping', unit: '', domain: 'positive', range: [1, 10] },
      t: { means: 'years since', unit: 'years', domain: 'nonNegative', range: [0, 10] },
    },
    result: { symbol: 'f', means: 'rate after these years', unit: 'mm/h' },
    source: { key: 'common-practice', locator: 'ripping closes again within a few years unless roots follow it' },
  },
  ({ f0, F, t }) => f0 * (1 + (F - 1) * Math.exp(-t / RIP_YEARS)),
);

export interface Healed {
  /** Times the present rate. */
  readonly rateFactor: number;
  /** Share of the way from the cover now to the cover meant. */
  readonly coverShare: number;
  readonly cover: Cover;
}

/** What ground with a plan for its healing is like after some years. It never takes in less, nor sheds more, than now. */
export function healedAfter(
  years: number,
  of: { readonly healing: Healing; readonly compaction: Compaction; readonly cover: Cover },
): Healed {
  const { healing, compaction } = of;
  const F = Math.max(1, healing.factor ?? REST_FACTOR[compaction]);
  const share = HEALED_SHARE.evaluate({ t: years });
  const rested = RESTED_RATE.evaluate({ f0: 1, F, s: share });
  const ripped = RIPPED_RATE.evaluate({ f0: 1, F: RIP_FACTOR[compaction], t: years });
  const byTreatment: Record<Treatment, number> = { rest: rested, rip: ripped, 'rip-and-rest': Math.max(rested, ripped) };
  const cover = healing.cover === undefined ? of.cover : coverOf(healing.cover);
  // Where the land is ripped and nothing rests, the cover stays as it is.
  return { rateFactor: byTreatment[healing.treatment], coverShare: healing.treatment === 'rip' ? 0 : share, cover };
}
