// Ways to tell what a storm leaves over when the ground has had its share, one object each.
import { SOIL_ROOM, type SoilFacts } from '../ground/index.ts';
import { INITIAL_ABSTRACTION, SMALL_ABSTRACTION, curveNumberLaw, retentionOf } from './curve-number.ts';
import { greenAmptLaw } from './green-ampt.ts';
import { constantLaw, hortonLaw } from './horton.ts';
import { type StepLaw, excessOf, total } from './step-law.ts';
import { SMALL_ABSTRACTION_NUMBER, type Wetness, curveNumberWhen } from './wetness.ts';

export const LOSS_METHODS = ['curve-number', 'green-ampt', 'horton', 'constant'] as const;
export type LossMethod = (typeof LOSS_METHODS)[number];

export const ABSTRACTIONS = ['0.2', '0.05'] as const;
export type Abstraction = (typeof ABSTRACTIONS)[number];

/** How runoff is worked out for the whole property. */
export interface LossChoice {
  readonly loss: LossMethod;
  readonly wetness: Wetness;
  readonly abstraction: Abstraction;
  /** Of Horton: first rate over the last, and how fast it slackens [1/h]; left out, the usual. */
  readonly hortonTimes?: number;
  readonly hortonDecay?: number;
}

export const USUAL_LOSS: LossChoice = { loss: 'curve-number', wetness: 'average', abstraction: '0.2' };

/** Water in the soil before the storm as a share of what it can hold: common practice. */
export const SATURATION: Readonly<Record<Wetness, number>> = { dry: 0.3, average: 0.5, wet: 0.8 };

/** First rate of Horton over the last, and its slackening an hour: usual starting values (from memory); the last is what was measured. */
export const [HORTON_TIMES, HORTON_DECAY] = [4, 4.14];
/** Where the ground is wet, suction and cracks are spent: the first rate comes down with them. */
const HORTON_WET: Readonly<Record<Wetness, number>> = { dry: 1, average: 0.75, wet: 0.25 };

/** A soil as the losses see it. */
export type LossSoil = Pick<SoilFacts, 'curveNumber' | 'infiltrationMmPerHour' | 'texture' | 'cover' | 'soilDepthM'>;

/** The curve number a storm meets: for its wetness, and for its first loss. */
export function stormCurveNumber(soil: Pick<LossSoil, 'curveNumber' | 'cover'>, { wetness, abstraction }: LossChoice): number {
  const CN = soil.cover.isSealed ? soil.curveNumber : curveNumberWhen(wetness, soil.curveNumber);
  return abstraction === '0.05' ? SMALL_ABSTRACTION_NUMBER.evaluate({ CN }) : CN;
}

export const abstractionOf = ({ abstraction }: LossChoice): number => (abstraction === '0.05' ? SMALL_ABSTRACTION : INITIAL_ABSTRACTION);

/** Air a soil drained for some days has left, against one as wet as `SATURATION` has it. */
const airLeft = (wetness: Wetness): number => (1 - SATURATION[wetness]) / (1 - SATURATION.average);

/** Depth of water the soil above rock, a tight layer or water has room for when the storm begins [mm]. */
export const soilRoomMm = (soil: Pick<LossSoil, 'texture' | 'soilDepthM'>, { wetness }: Pick<LossChoice, 'wetness'>): number =>
  SOIL_ROOM.evaluate({ p: soil.texture.drainable, D: soil.soilDepthM, c: 0 }) * airLeft(wetness);

/** A law until the soil is full: what comes after that runs off, whatever the rate. */
function untilFull(law: StepLaw, roomMm: number): StepLaw {
  let room = roomMm;
  return (rain, hours) => {
    const soaks = Math.min(room, rain - law(rain, hours));
    room -= soaks;
    return rain - soaks;
  };
}

interface Loss {
  readonly title: string;
  readonly says: string;
  /** What does not soak in, asked step after step. */
  readonly law: (soil: LossSoil, choice: LossChoice) => StepLaw;
  /** Whether small hollows fill from what does not soak in; the curve number has them in itself. */
  readonly fillsHollows: boolean;
  /** Whether it knows no end of soaking but the soil's own; the curve number has the soil's depth in its group. */
  readonly endsFull: boolean;
}

export const LOSSES: Readonly<Record<LossMethod, Loss>> = {
  'curve-number': {
    title: 'Curve number',
    says: 'By cover and soil group, for whole storms over fields. Says little for small storms or for minutes.',
    fillsHollows: false,
    endsFull: false,
    law: (soil, choice) => curveNumberLaw(stormCurveNumber(soil, choice), abstractionOf(choice)),
  },
  'green-ampt': {
    title: 'Green-Ampt',
    says: 'A wetting front sinks into your texture, at the rate you measured. Follows the storm minute by minute.',
    fillsHollows: true,
    endsFull: true,
    law: (soil, choice) =>
      greenAmptLaw({
        conductivityMmPerHour: soil.infiltrationMmPerHour,
        suctionMm: soil.texture.suctionMm * soil.texture.effectivePorosity * (1 - SATURATION[choice.wetness]),
      }),
  },
  horton: {
    title: 'Horton',
    says: 'Takes in several times your rate at first and slackens to it within the hour.',
    fillsHollows: true,
    endsFull: true,
    law: (soil, choice) => {
      const last = soil.infiltrationMmPerHour;
      const first = last * Math.max(1, (choice.hortonTimes ?? HORTON_TIMES) * HORTON_WET[choice.wetness]);
      return hortonLaw({ firstMmPerHour: first, lastMmPerHour: last, decayPerHour: choice.hortonDecay ?? HORTON_DECAY });
    },
  },
  constant: {
    title: 'Constant rate',
    says: 'What lies in small hollows, then your rate throughout: plain, and on the safe side early in a storm.',
    fillsHollows: true,
    endsFull: true,
    law: (soil) => constantLaw({ firstMm: 0, rateMmPerHour: soil.infiltrationMmPerHour }),
  },
};

/** The loss a soil goes by: sealed ground by its curve number, whatever is chosen for soil. */
export const lossOf = (soil: Pick<LossSoil, 'cover'>, { loss }: LossChoice): Loss => LOSSES[soil.cover.isSealed ? 'curve-number' : loss];

/** What a storm does on one kind of ground, step by step [mm]; together they are the rain. */
export interface Parted {
  readonly runsMm: Float64Array;
  readonly runoffMm: number;
  readonly standsMm: number;
  readonly soaksMm: number;
  readonly rainMm: number;
}

/** Rain parted into what soaks in, what stands in small hollows and on leaves, and what runs off. Sealed ground goes by its curve number. */
export function partRain(stepsMm: Float64Array, stepH: number, on: { readonly soil: LossSoil; readonly choice: LossChoice }): Parted {
  const { soil, choice } = on;
  const rainMm = total(stepsMm);
  const loss = lossOf(soil, choice);
  const law = loss.law(soil, choice);
  const runsMm = excessOf(loss.endsFull ? untilFull(law, soilRoomMm(soil, choice)) : law, stepsMm, stepH);
  const hollows = loss.fillsHollows ? soil.cover.surface.standsMm : abstractionOf(choice) * retentionOf(stormCurveNumber(soil, choice));
  // Nothing soaks into what is sealed: what it does not shed wets it and dries away.
  const stays = soil.cover.isSealed ? rainMm - total(runsMm) : Math.min(hollows, rainMm);
  const standsMm = loss.fillsHollows ? holdBack(runsMm, hollows) : stays;
  const runoffMm = total(runsMm);
  return { runsMm, runoffMm, standsMm, soaksMm: Math.max(0, rainMm - standsMm - runoffMm), rainMm };
}

/** Keeps the first of what would run in small hollows; returns how much they took [mm]. */
function holdBack(runsMm: Float64Array, hollowsMm: number): number {
  let room = hollowsMm;
  for (let i = 0; i < runsMm.length && room > 0; i++) {
    const held = Math.min(room, runsMm[i]);
    room -= held;
    runsMm[i] -= held;
  }
  return hollowsMm - room;
}
