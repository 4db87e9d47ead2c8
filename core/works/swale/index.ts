import { swaleDescriptor } from './descriptor.ts';
import type { Figure, Host, PegDraft, PlacedWork, StormFacts, Technique } from '../../contract/index.ts';
import type { Worksheet } from '../../formula/index.ts';
import { lineLength, pointAlong } from '../../geometry/index.ts';
import { runRules } from '../rules.ts';
import { SWALE_RULES } from './checks.ts';
import { troughBuilt } from '../built.ts';
import { type LipGround, downhillAt, groundAlong, measureLip } from '../lip.ts';
import { type Swale } from './model.ts';
import { quantitiesOf, stepsOf } from './making.ts';
import { balancedCrest, earthOf } from './quantities.ts';
import { SWALE_BANK, SWALE_CUT, SWALE_WATER } from '../trough.ts';
import { crestAlong, lowPlacesOf, meanSection, storeOf } from './store.ts';

import { beginSwale } from './begin.ts';

export * from './model.ts';
export * from '../trough.ts';
export { measureLip, downhillAt, type LipGround } from '../lip.ts';
export { contentAt, meanSection, storeOf } from './store.ts';
export { balancedCrest, earthOf } from './quantities.ts';
export { newSwale } from './create.ts';
export { SWALE_RULES } from './checks.ts';
export { JOIN_RULES } from './join-checks.ts';
export { mouthFlow, tiltOf } from './joint.ts';

function hostOf(swale: Swale, ground: LipGround): Host {
  return {
    work: swale,
    line: swale.line,
    floorM: swale.levels.floorM,
    crestM: swale.levels.bankCrestM,
    downhillAt: (atM) => downhillAt(swale.line, ground, atM),
    groundAt: (atM) => groundAlong(ground, atM),
    dugAt: (atM) => Math.max(0, groundAlong(ground, atM) - swale.levels.floorM),
    crossSlope: ground.meanSlope,
  };
}

function figuresOf(swale: Swale, ground: LipGround, sheet: Worksheet): Figure[] {
  const section = meanSection(swale, ground);
  const { floorWidthM: b, sideSlopeHV: z, bankSlopeHV: zb, bankTopM: w, lipDepthM, crossSlope: s } = section;
  const h = Math.max(0, lipDepthM);
  const B = Math.max(0, swale.levels.bankCrestM - ground.meanGroundM);
  if (s * z < 1) sheet.use(SWALE_CUT, { b, z, h, s });
  if (s * zb < 1) sheet.use(SWALE_BANK, { B, w, zb, s });
  sheet.use(SWALE_WATER, { b, z, h, s, zb, Hw: Math.max(0, ground.meanGroundM - swale.levels.floorM) });
  const earth = earthOf(swale, ground);
  return [
    { id: 'lengthM', label: 'Length', value: ground.lengthM, kind: 'length' },
    { id: 'groundM', label: 'Ground along the lip', value: ground.meanGroundM, kind: 'level' },
    { id: 'slope', label: 'Ground slope across', value: ground.meanSlope, kind: 'slope' },
    { id: 'cutM3', label: 'Cut', value: earth.cutM3, kind: 'volume' },
    { id: 'bankM3', label: 'Bank', value: earth.bankM3, kind: 'volume' },
    { id: 'balancedCrestM', label: 'Crest that uses all the cut', value: balancedCrest(swale, ground), kind: 'level' },
  ];
}

function pegsOf(swale: Swale, ground: LipGround, intervalM: number): PegDraft[] {
  const length = lineLength(swale.line);
  const count = Math.floor(length / intervalM + 1e-9);
  const places = Array.from({ length: count + 1 }, (_, i) => i * intervalM);
  if (length - places[places.length - 1] > 0.01) places.push(length);
  return places.map((atM) => {
    const { point } = pointAlong(swale.line, atM);
    return {
      name: `${atM.toFixed(atM % 1 === 0 ? 0 : 1)} m`,
      role: 'floor',
      x: point[0],
      y: point[1],
      levelM: swale.levels.floorM,
      groundM: groundAlong(ground, atM),
    };
  });
}

function placeSwale(swale: Swale, ground: LipGround): PlacedWork {
  return {
    host: hostOf(swale, ground),
    stores: (guests) => [storeOf(swale, ground, guests)],
    outlets: [],
    figures: (_facts: StormFacts, sheet) => figuresOf(swale, ground, sheet),
    checks: (facts, company) => runRules(SWALE_RULES, { ...facts, company, swale, ground }, swale.id),
    quantities: () => quantitiesOf(swale, ground),
    buildSteps: () => stepsOf(swale, ground),
    built: () =>
      troughBuilt({ line: swale.line, ground, dimensions: swale.dimensions, floorM: swale.levels.floorM, crestAt: crestAlong(swale) }),
    pegs: (intervalM) => pegsOf(swale, ground, intervalM),
    marks: [
      {
        id: `${swale.id}:crest`,
        work: swale.id,
        name: 'Bank crest',
        role: 'crest',
        levelM: swale.levels.bankCrestM,
        path: 'levels.bankCrestM',
      },
      { id: `${swale.id}:ground`, work: swale.id, name: 'Ground at lip', role: 'ground', levelM: ground.meanGroundM, path: null },
      { id: `${swale.id}:floor`, work: swale.id, name: 'Floor', role: 'floor', levelM: swale.levels.floorM, path: 'levels.floorM' },
      ...lowPlacesOf(swale).map((low, k, all) => ({
        id: `${swale.id}:low${k}`,
        work: swale.id,
        name: all.length > 1 ? `Low bank ${k + 1}` : 'Low bank',
        role: 'low' as const,
        levelM: low.levelM,
        path: null,
      })),
    ],
  };
}

export const swale: Technique<Swale, LipGround> = {
  ...swaleDescriptor,
  formulas: [SWALE_CUT, SWALE_BANK, SWALE_WATER],
  rules: SWALE_RULES,
  begin: beginSwale,
  measure: (work, site) => measureLip(work.line, site),
  place: (work, ground) => placeSwale(work, ground),
};
