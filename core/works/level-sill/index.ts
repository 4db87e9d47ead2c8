import { levelSillDescriptor } from './descriptor.ts';
import type { Built, Figure, Host, Outlet, PegDraft, PlacedWork, StormFacts, Technique } from '../../contract/index.ts';
import type { Worksheet } from '../../formula/index.ts';
import { pointAlong } from '../../geometry/index.ts';
import { SHEET_DEPTH, SHEET_ENERGY, SHEET_VELOCITY, drownableSillLaw, sheetRoughness } from '../../hydraulics/index.ts';
import { runRules } from '../rules.ts';
import { SILL_RULES } from './checks.ts';
import { type SillGround, measureSill } from './ground.ts';
import { quantitiesOf, stepsOf } from './making.ts';
import { groundBelow, workedHead } from './law.ts';
import { type LevelSill, isGrassed, newSill } from './model.ts';
import { beginWayOut } from '../beginning.ts';
import { notchBuilt } from '../built.ts';
import { type SillSize, sizeSill } from './size.ts';

export * from './model.ts';
export * from './size.ts';
export { SILL_RULES } from './checks.ts';

function outletOf(sill: LevelSill, ground: SillGround): Outlet {
  const { lengthM } = sill.dimensions;
  const { sillM } = sill.levels;
  return {
    id: sill.id,
    role: 'way',
    work: sill.id,
    name: sill.name,
    kind: 'sill',
    levelM: sillM,
    dischargeAt: ground.dischargeAt,
    flowAt: drownableSillLaw({ lengthM, levelM: sillM }),
    drownsM: sillM,
    exit: {
      at: ground.dischargeAt,
      slope: ground.slopeBelow,
      widthM: lengthM,
      shape: 'sheet',
      ...(isGrassed(sill) ? { isFelt: true as const } : {}),
    },
  };
}

interface Sizing {
  readonly sill: LevelSill;
  readonly ground: SillGround;
  readonly host: Host | null;
  readonly facts: StormFacts;
}

function sizeOf({ sill, ground, host, facts }: Sizing, sheet?: Worksheet): SillSize | null {
  const soil = facts.site.soilAt(ground.dischargeAt);
  if (facts.designPeakM3s === null || !host || !soil || ground.slopeBelow === null) return null;
  return sizeSill(
    {
      peakM3s: facts.designPeakM3s,
      sillToBankM: host.crestM - sill.levels.sillM,
      slopeBelow: ground.slopeBelow,
      cover: soil.cover,
      below: groundBelow(sill, ground.slopeBelow, soil.cover),
    },
    sheet,
  );
}

function figuresOf(sizing: Sizing, sheet: Worksheet): Figure[] {
  const { sill, ground, facts } = sizing;
  const size = sizeOf(sizing, sheet);
  const figures: Figure[] = [
    { id: 'slopeBelow', label: 'Ground slope below', value: ground.slopeBelow, kind: 'slope' },
    { id: 'groundM', label: 'Natural ground at the sill', value: ground.groundM, kind: 'level' },
  ];
  const soil = facts.site.soilAt(ground.dischargeAt);
  if (facts.designPeakM3s === null || !soil) return figures;
  const Q = facts.designPeakM3s;
  const L = sill.dimensions.lengthM;
  const H = workedHead(sheet, { lengthM: L, flowM3s: Q, below: groundBelow(sill, ground.slopeBelow, soil.cover) });
  const n = sheetRoughness(soil.cover.strength.curveIndex, Q / L);
  const V = ground.slopeBelow === null ? null : sheet.use(SHEET_VELOCITY, { q: Q / L, S: Math.max(0.001, ground.slopeBelow), n });
  return [
    ...figures,
    { id: 'designPeakM3s', label: 'Peak it must pass', value: Q, kind: 'flow' },
    { id: 'headM', label: 'Head on it at that peak', value: H, kind: 'difference' },
    { id: 'velocityMs', label: 'Velocity on the slope below', value: V, kind: 'velocity' },
    {
      id: 'neededLengthM',
      label: 'Length needed',
      value: size ? Math.ceil(10 * size.lengthM) / 10 : null,
      kind: 'length',
      sets: 'dimensions.lengthM',
    },
  ];
}

function pegsOf(sill: LevelSill, ground: SillGround): PegDraft[] {
  if (ground.groundM === null) return [];
  const groundM = ground.groundM;
  const peg = (name: string, [x, y]: readonly [number, number]): PegDraft => ({
    name,
    role: 'sill',
    x,
    y,
    levelM: sill.levels.sillM,
    groundM,
  });
  return [peg('sill, one end', ground.ends[0]), peg('sill, middle', ground.at), peg('sill, other end', ground.ends[1])];
}

/** Farthest a sill is dug on [m], and the least fall by which ground beyond it is taken to come down to it [m/m]. */
const [FARTHEST_M, LEAST_FALL] = [30, 0.005];

/** The bank is left out along it; where natural ground stands over it that is dug down the slope until it comes out. */
function builtOf({ atM, levels: { sillM }, dimensions: { lengthM } }: LevelSill, { groundM, slopeBelow }: SillGround, host: Host): Built {
  const [dx, dy] = host.downhillAt(atM);
  const { direction } = pointAlong(host.line, atM);
  const side = direction[0] * dy - direction[1] * dx >= 0 ? 1 : -1;
  const notch = { atM, lengthM, levelM: sillM };
  if (groundM === null || slopeBelow === null || groundM <= sillM) return notchBuilt(host.line, notch);
  const toM = Math.min(FARTHEST_M, (groundM - sillM) / Math.max(LEAST_FALL, slopeBelow));
  return notchBuilt(host.line, { ...notch, dug: { toM, side } });
}

function placeSill(sill: LevelSill, ground: SillGround, host: Host | null): PlacedWork {
  return {
    host: null,
    stores: () => [],
    outlets: !host ? [] : [outletOf(sill, ground)],
    figures: (facts, sheet) => figuresOf({ sill, ground, host, facts }, sheet),
    checks: (facts, company) =>
      runRules(SILL_RULES, { ...facts, company, sill, ground, size: sizeOf({ sill, ground, host, facts }) }, sill.id),
    quantities: () => quantitiesOf(sill),
    buildSteps: () => stepsOf(sill),
    ...(host ? { built: () => builtOf(sill, ground, host) } : {}),
    pegs: () => pegsOf(sill, ground),
    marks: [{ id: `${sill.id}:sill`, work: sill.id, name: sill.name, role: 'sill', levelM: sill.levels.sillM, path: 'levels.sillM' }],
  };
}

export const levelSill: Technique<LevelSill, SillGround> = {
  ...levelSillDescriptor,
  formulas: [SHEET_DEPTH, SHEET_ENERGY],
  rules: SILL_RULES,
  begin: (drawn, land) => beginWayOut(drawn, land, { kind: 'level-sill', title: 'Level sill', work: newSill }),
  measure: measureSill,
  place: placeSill,
};
