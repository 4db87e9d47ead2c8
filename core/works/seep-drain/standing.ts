// What a seepage drain takes: by what seeps in, by what its pipe and its gravel carry, and how long a yard would wait for it.
import type { Intake, Outlet, Store, StormFacts } from '../../contract/index.ts';
import { pointAlong } from '../../geometry/index.ts';
import { FULL_PIPE } from '../../hydraulics/index.ts';
import { yardStore } from '../yard.ts';
import { CLEARS_IN, GRAVEL_FLOW, SEEP_IN } from './formulas.ts';
import type { SeepGround } from './ground.ts';
import type { SeepDrain } from './model.ts';

export interface SeepFacts extends StormFacts {
  readonly work: SeepDrain;
  readonly ground: SeepGround;
}

/** Manning’s roughness of holed drain pipe by width (handbook 4.1; from memory). */
export const roughnessOf = (pipeM: number): number => (pipeM < 0.2 ? 0.015 : pipeM < 0.25 ? 0.016 : 0.0175);
/** Clean gravel of 10 to 20 mm [m/s]: common practice. */
const GRAVEL_MS = 0.01;
/** Of a slope water comes from one side alone. */
const ONE_SIDE = 0.5;

export const fallOf = ({ levels }: Pick<SeepDrain, 'levels'>, { lengthM }: Pick<SeepGround, 'lengthM'>): number =>
  (levels.upperM - levels.outletM) / lengthM;

/** Its invert at a distance from its upper end [m]. */
export const invertAt = (work: Pick<SeepDrain, 'levels'>, ground: Pick<SeepGround, 'lengthM'>, atM: number): number =>
  work.levels.upperM - fallOf(work, ground) * atM;

/** Mean and greatest depth of its invert under the ground, and least [m]. */
export function depthsOf(work: SeepDrain, ground: SeepGround): { readonly mean: number; readonly most: number; readonly least: number } {
  const depths = Array.from(ground.groundM, (level, k) => level - invertAt(work, ground, k * ground.stepM));
  return { mean: depths.reduce((a, v) => a + v, 0) / depths.length, most: Math.max(...depths), least: Math.min(...depths) };
}

/** Flow into a metre of it [m3/s]: as it was watched, else by the soil and how high ground water stands; null while neither is known. */
export function seepsIn(work: SeepDrain, ground: SeepGround): number | null {
  const { seepM3s, waterTableM, soilMmPerHour, purpose } = work;
  if (seepM3s !== undefined) return seepM3s;
  if (waterTableM === undefined || soilMmPerHour === undefined) return null;
  const s = depthsOf(work, ground).mean + work.dimensions.underM - waterTableM;
  if (s <= 0) return 0;
  const both = SEEP_IN.evaluate({ K: soilMmPerHour / 3_600_000, s });
  return purpose === 'slope' || purpose === 'wall' ? ONE_SIDE * both : both;
}

/** What its pipe carries, running just full [m3/s]. */
export function pipeCarries(work: SeepDrain, ground: SeepGround): number {
  const { pipeM: D } = work.dimensions;
  const S = fallOf(work, ground);
  return S > 0 ? FULL_PIPE.evaluate({ D, S, n: roughnessOf(D) }) : 0;
}

/** Gravel across it, less the pipe [m2]. */
export function gravelM2({ dimensions }: Pick<SeepDrain, 'dimensions'>): number {
  const { widthM, pipeM, overM, underM } = dimensions;
  return Math.max(0, widthM * (underM + pipeM + overM) - (Math.PI / 4) * pipeM ** 2);
}
export const gravelCarries = (work: SeepDrain, ground: SeepGround): number =>
  GRAVEL_FLOW.evaluate({ k: GRAVEL_MS, i: Math.max(0, fallOf(work, ground)), A: gravelM2(work) });

/** Hours until a full yard has seeped away through the ground over it; null where it lies in none, or nobody knows what the ground takes in. */
export function clearsIn({ work, ground, site }: SeepFacts): number | null {
  const { yard } = ground;
  if (!yard || yard.underM <= 0) return null;
  const soil = site.soilAt(work.line[0]);
  const f = work.top === 'open' ? OPEN_MM_H : (soil?.infiltrationMmPerHour ?? null);
  return f === null ? null : CLEARS_IN.evaluate({ V: yard.holdsM3, f, A: yard.underM * work.dimensions.widthM });
}
/** What runs into the yard it was laid to clear comes to it; on a slope or behind a wall water runs past. */
const clears = (work: SeepDrain, { yard }: SeepGround): SeepGround['yard'] => (work.purpose === 'yard' ? yard : null);

export const intakesOf = (work: SeepDrain, ground: SeepGround): readonly Intake[] =>
  clears(work, ground) ? [{ store: work.id, points: ground.taken }] : [];

/** What gravel open to the ground takes of a yard's water up to a level, no more than gravel and pipe carry away [m3/s]. */
export function takesOpen(work: SeepDrain, ground: SeepGround, levelM: number): number {
  const underM = ground.groundM.reduce((m, level) => (level < levelM ? m + ground.stepM : m), 0);
  const inM3s = (OPEN_MM_H / 3_600_000) * work.dimensions.widthM * underM;
  return Math.min(inM3s, pipeCarries(work, ground) + gravelCarries(work, ground));
}

/** The yard over it as a store. Under grass it takes what the ground there takes in anyway; open gravel takes more. */
export function storesOf(work: SeepDrain, ground: SeepGround): readonly Store[] {
  const yard = clears(work, ground);
  if (!yard) return [];
  const seeps: Outlet = {
    id: `${work.id}#through`,
    role: 'through',
    work: work.id,
    name: `${work.name}: through its gravel`,
    kind: 'rated',
    levelM: yard.pool.lowM,
    dischargeAt: pointAlong(work.line, ground.lengthM).point,
    flowAt: (level) => takesOpen(work, ground, level),
  };
  const name = `${work.name}, yard`;
  return [yardStore({ id: work.id, work: work.id, name, pool: yard.pool, grateM: null, ways: work.top === 'open' ? [seeps] : [] })];
}

/** Gravel open to the ground takes in this much until fines close it [mm/h]: common practice. */
const OPEN_MM_H = 500;
