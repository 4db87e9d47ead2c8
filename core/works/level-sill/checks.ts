import { NEEDS_STORM, type Company, type Rule, type StormFacts } from '../../contract/index.ts';
import { permissibleVelocity } from '../../ground/index.ts';
import { SHEET_VELOCITY, sheetRoughness } from '../../hydraulics/index.ts';
import { type Amount, amount, say } from '../../units/index.ts';
import { COMMON_PRACTICE, between, cureBy, downToMm, gradeMax, gradeMin, upToMm } from '../rules.ts';
import type { SillGround } from './ground.ts';
import { groundBelow, headOn } from './law.ts';
import type { LevelSill } from './model.ts';
import type { SillSize } from './size.ts';
import { noneCarries } from '../exit.ts';
import { GROUND_BELOW_UNKNOWN } from '../ways-out.ts';

export interface SillFacts extends StormFacts {
  readonly sill: LevelSill;
  readonly ground: SillGround;
  readonly company: Company;
  readonly size: SillSize | null;
}

/** Out of level along the crest [m]: to weigh, to mend. Common practice: raked to +-10 mm for acceptance. */
const OUT_OF_LEVEL_M = [0.01, 0.025] as const;
/** Levelling tolerance of a finished sill [m]: common practice. */
const TOLERANCE_M = 0.025;
const LEAST_STEP_M = 0.05;

const step = (m: number): Amount => amount(m, 'difference');
const metres = (m: number): Amount => amount(m, 'distance');
const isFirst = ({ sill, company }: SillFacts): boolean => firstSill(company, sill) === sill.id;

/** Sills of the same host, lowest first; equal levels by id so that one only is first. */
function orderedSills(company: Company): LevelSill[] {
  return (company.siblings.filter((w) => w.kind === 'level-sill') as LevelSill[]).sort(
    (a, b) => a.levels.sillM - b.levels.sillM || (a.id < b.id ? -1 : 1),
  );
}

function firstSill(company: Company, self: LevelSill): string {
  return orderedSills(company)[0]?.id ?? self.id;
}

/** Head on a sill at the design peak when it passes the whole flow alone, the ground below taken to be as below this one. */
export function designHead({
  sill,
  designPeakM3s,
  ground,
  site,
}: Pick<SillFacts, 'sill' | 'designPeakM3s' | 'ground' | 'site'>): number | null {
  if (designPeakM3s === null) return null;
  const below = groundBelow(sill, ground.slopeBelow, site.soilAt(ground.dischargeAt)?.cover ?? null);
  return headOn(sill.dimensions.lengthM, designPeakM3s, below);
}

const length: Rule<SillFacts> = {
  id: 'sill.length',
  title: 'Length of the sill for the peak',
  why: 'A short sill stands deep, eats freeboard and throws a fast narrow stream on the slope below.',
  unit: 'm',
  kind: 'length',
  sense: 'min',
  source: {
    key: 'common-practice',
    locator:
      'head at most 0.10 m and half of sill-to-bank, by crest and by the grass below; sheet within what the cover stands; at least 2 m',
  },
  needs: NEEDS_STORM,
  applies: isFirst,
  find: (facts) => {
    if (!facts.size || !isFirst(facts)) return null;
    const value = facts.sill.dimensions.lengthM;
    const limit = facts.size.lengthM;
    const wide = Math.ceil(limit * 10) / 10;
    return {
      value,
      limit,
      severity: gradeMin(value, 0.7 * limit, limit),
      do: value < limit ? say`Widen it from ${metres(value)} to ${metres(wide)}.` : 'Nothing.',
      ...cureBy(value < limit, { work: facts.sill.id, set: { 'dimensions.lengthM': wide }, says: say`Widen it to ${metres(wide)}` }),
    };
  },
};

const exitVelocity: Rule<SillFacts> = {
  id: 'sill.exit-velocity',
  title: 'Velocity on the slope below the sill',
  why: 'If the sheet runs faster than the sward stands, it cuts a channel that works back to the sill and the bank.',
  unit: 'm/s',
  kind: 'velocity',
  sense: 'max',
  source: { key: 'chow1959', locator: 'Table 7-6 (SCS TP-61), permissible velocities', fromMemory: true },
  needs: NEEDS_STORM,
  find: ({ sill, ground, site, designPeakM3s, size }) => {
    if (designPeakM3s === null) return null;
    if (ground.slopeBelow === null)
      return { value: null, limit: null, at: ground.dischargeAt, severity: 'unknown', do: GROUND_BELOW_UNKNOWN };
    // Where nothing that grows there may carry water, the cover is what is judged.
    if (!size || size.permissibleMs === null) return null;
    const soil = site.soilAt(ground.dischargeAt);
    if (!soil) return null;
    const q = designPeakM3s / sill.dimensions.lengthM;
    const wide = upToMm(size.byVelocityM ?? size.lengthM);
    const value = SHEET_VELOCITY.evaluate({
      q,
      S: Math.max(0.001, ground.slopeBelow),
      n: sheetRoughness(soil.cover.strength.curveIndex, q),
    });
    return {
      value,
      limit: size.permissibleMs,
      severity: gradeMax(value, size.permissibleMs, 1.25 * size.permissibleMs),
      at: ground.dischargeAt,
      do:
        value > size.permissibleMs ? say`Widen the sill to ${metres(wide)}, lay stone below it, or move it to gentler ground.` : 'Nothing.',
      ...cureBy(value > size.permissibleMs, { work: sill.id, set: { 'dimensions.lengthM': wide }, says: say`Widen it to ${metres(wide)}` }),
    };
  },
};

const coverBelow: Rule<SillFacts> = {
  id: 'sill.cover-below',
  title: 'Cover on the slope below the sill',
  why: 'A sheet of water is only safe over sound grass. Bare or sparse ground rills in the first storm.',
  unit: 'm/m',
  kind: 'slope',
  sense: 'max',
  source: { key: 'chow1959', locator: 'Table 7-6: covers not to be used on steep slopes', fromMemory: true },
  needs: ['ground'],
  find: ({ ground, site }) => {
    if (ground.slopeBelow === null)
      return { value: null, limit: 0.15, at: ground.dischargeAt, severity: 'unknown', do: GROUND_BELOW_UNKNOWN };
    const soil = site.soilAt(ground.dischargeAt);
    if (!soil) return null;
    const { strength } = soil.cover;
    const isBare = strength.curveIndex === null;
    const mayCarry = permissibleVelocity(soil.cover, ground.slopeBelow) !== null;
    return {
      value: ground.slopeBelow,
      limit: isBare ? 0 : mayCarry ? 0.15 : 0.1,
      at: ground.dischargeAt,
      severity: !mayCarry ? 'mend' : isBare || ground.slopeBelow > 0.15 ? 'weigh' : 'fine',
      do:
        !mayCarry && !isBare
          ? noneCarries(soil.cover, ground.slopeBelow)
          : isBare
            ? 'Turf, seed and mulch, or stone the first metres below the sill before the swale may fill.'
            : ground.slopeBelow > 0.15
              ? 'Move the sill to gentler ground or lay stone below it.'
              : 'Nothing: keep stock off it.',
    };
  },
};

const secondStep: Rule<SillFacts> = {
  id: 'sill.second-step',
  isOfLevels: true,
  title: 'Step up to the next sill',
  why: 'The second sill must stay dry while the first does its work, and levels are never perfect.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: { key: 'common-practice', locator: 'at least the head on the first sill, 50 mm, and twice the levelling tolerance' },
  needs: NEEDS_STORM,
  applies: ({ sill, company }) => orderedSills(company).findIndex((s) => s.id === sill.id) > 0,
  find: (facts) => {
    const sills = orderedSills(facts.company);
    const at = sills.findIndex((s) => s.id === facts.sill.id);
    if (at < 1 || facts.designPeakM3s === null) return null;
    const below = sills[at - 1];
    const head = designHead({ ...facts, sill: below });
    const limit = Math.max(LEAST_STEP_M, 2 * TOLERANCE_M, head ?? LEAST_STEP_M);
    const value = facts.sill.levels.sillM - below.levels.sillM;
    return {
      value,
      limit,
      severity: gradeMin(value, LEAST_STEP_M, limit),
      do: value < limit ? say`Set it ${step(limit - value)} higher, at ${amount(below.levels.sillM + limit, 'reading')}.` : 'Nothing.',
      ...cureBy(value < limit, {
        work: facts.sill.id,
        set: { 'levels.sillM': upToMm(below.levels.sillM + limit) },
        says: say`Set it ${step(limit - value)} higher`,
      }),
    };
  },
};

const belowBank: Rule<SillFacts> = {
  id: 'sill.below-bank',
  isOfLevels: true,
  title: 'Sill below the bank crest',
  why: 'A sill as high as the bank lets water over the whole bank at once.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: COMMON_PRACTICE,
  find: ({ sill, company }) => {
    if (!company.host) return null;
    const value = company.host.crestM - sill.levels.sillM;
    return {
      value,
      limit: 0.2,
      severity: gradeMin(value, 0.1, 0.2),
      do: value < 0.2 ? say`Lower the sill or raise the bank by ${step(0.2 - value)}.` : 'Nothing.',
      ...cureBy(value < 0.2, {
        work: sill.id,
        set: { 'levels.sillM': downToMm(company.host.crestM - 0.2) },
        says: say`Lower the sill by ${step(0.2 - value)}`,
      }),
    };
  },
};

const aboveFloor: Rule<SillFacts> = {
  id: 'sill.above-floor',
  isOfLevels: true,
  title: 'Water depth at the sill',
  why: 'A sill at or below the floor holds nothing; much over half a metre is deep for a child and for roots.',
  unit: 'm',
  kind: 'length',
  sense: 'max',
  source: { key: 'common-practice', locator: 'water 0.2 to 0.5 m deep is usual' },
  find: ({ sill, company }) => {
    if (!company.host) return null;
    const value = sill.levels.sillM - company.host.floorM;
    return {
      value,
      ...between(value, [0.1, 0.5]),
      severity: value <= 0 ? 'mend' : value > 0.5 || value < 0.1 ? 'weigh' : 'fine',
      do:
        value <= 0
          ? 'Raise the sill above the floor.'
          : value > 0.5
            ? 'Make it wider and shallower, or fence it.'
            : value < 0.1
              ? 'Raise the sill or deepen the floor: it hardly holds anything.'
              : 'Nothing.',
      ...cureBy(value < 0.1, {
        work: sill.id,
        set: { 'levels.sillM': upToMm(company.host.floorM + 0.1) },
        says: say`Raise the sill by ${step(0.1 - value)}`,
      }),
      ...cureBy(value > 0.5, {
        work: sill.id,
        set: { 'levels.sillM': downToMm(company.host.floorM + 0.5) },
        says: say`Lower the sill by ${step(value - 0.5)}`,
      }),
    };
  },
};

const outOfLevel: Rule<SillFacts> = {
  id: 'sill.out-of-level',
  isOfLevels: true,
  title: 'Crest out of level',
  why: 'All the water leaves over the lowest metre. A crest a centimetre out is no longer a sheet.',
  unit: 'm',
  kind: 'difference',
  sense: 'max',
  source: { key: 'common-practice', locator: '10 mm to weigh, 25 mm to mend' },
  find: ({ sill }) => {
    if (!sill.asFound) {
      return sill.status === 'built' || sill.status === 'existing'
        ? {
            value: null,
            limit: OUT_OF_LEVEL_M[0],
            severity: 'unknown',
            do: 'Level along the crest and note the lowest and the highest reading.',
          }
        : null;
    }
    const value = sill.asFound.highM - sill.asFound.lowM;
    return {
      value,
      limit: OUT_OF_LEVEL_M[0],
      severity: gradeMax(value, ...OUT_OF_LEVEL_M),
      do: value > OUT_OF_LEVEL_M[0] ? say`Shave the high ${step(value)} off, or set a board or kerb level.` : 'Nothing.',
    };
  },
};

const onFill: Rule<SillFacts> = {
  id: 'sill.on-fill',
  isOfLevels: true,
  title: 'Sill on natural ground',
  why: 'Water over made ground cuts through it. A sill belongs on ground that was never moved.',
  unit: 'm',
  kind: 'difference',
  sense: 'max',
  source: { key: 'common-practice', locator: 'spillways in natural ground, not on fill' },
  find: ({ sill, ground }) => {
    if (ground.groundM === null) return null;
    const value = sill.levels.sillM - ground.groundM;
    return {
      value,
      limit: 0,
      at: ground.at,
      severity: gradeMax(value, 0.03, 0.1),
      do:
        value > 0.03
          ? say`Natural ground is ${step(value)} lower here: move the sill to higher ground along the swale, lower it, or armour it with stone.`
          : 'Nothing.',
      ...cureBy(value > 0.03, { work: sill.id, set: { 'levels.sillM': downToMm(ground.groundM) }, says: say`Lower it by ${step(value)}` }),
    };
  },
};

const crestWidth: Rule<SillFacts> = {
  id: 'sill.crest-width',
  title: 'Level width along the flow',
  why: 'A knife-edge of soil wears at once; a metre of level, grassed crest spreads the sheet before it runs.',
  unit: 'm',
  kind: 'length',
  sense: 'min',
  source: { key: 'common-practice', locator: 'level at least 1 m along the flow' },
  find: ({ sill }) => {
    const value = sill.dimensions.crestWidthM;
    return {
      value,
      limit: 1,
      severity: value < 1 ? 'weigh' : 'fine',
      do: value < 1 ? 'Level it 1 m wide along the flow.' : 'Nothing.',
      ...cureBy(value < 1, { work: sill.id, set: { 'dimensions.crestWidthM': 1 }, says: 'Level it 1 m wide along the flow' }),
    };
  },
};

const onLine: Rule<SillFacts> = {
  id: 'sill.place',
  title: 'Sill within the swale',
  why: 'A sill longer than what is left of the swale beside it cannot be built there.',
  unit: 'm',
  kind: 'length',
  sense: 'min',
  source: { key: 'geometry' },
  find: ({ sill, ground }) => {
    const room = Math.min(sill.atM, ground.hostLengthM - sill.atM);
    const value = room - sill.dimensions.lengthM / 2;
    if (value >= 0) return null;
    const half = sill.dimensions.lengthM / 2;
    return {
      value,
      limit: 0,
      severity: 'weigh',
      at: ground.at,
      do: say`Move it ${metres(-value)} further in from the end of the swale.`,
      ...cureBy(2 * half < ground.hostLengthM, {
        work: sill.id,
        set: { atM: sill.atM < ground.hostLengthM / 2 ? upToMm(half) : downToMm(ground.hostLengthM - half) },
        says: say`Move it ${metres(-value)} further in`,
      }),
    };
  },
};

export const SILL_RULES: readonly Rule<SillFacts>[] = [
  length,
  exitVelocity,
  coverBelow,
  secondStep,
  belowBank,
  aboveFloor,
  outOfLevel,
  onFill,
  crestWidth,
  onLine,
];
