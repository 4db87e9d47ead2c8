import { NEEDS_STORM, type Rule, type StormFacts } from '../../contract/index.ts';
import { lineLength } from '../../geometry/index.ts';
import { froude, trapezoid } from '../../hydraulics/index.ts';
import { amount, say } from '../../units/index.ts';
import { between, cureBy, downToMm, gradeMax, gradeMin, upToMm } from '../rules.ts';
import { setbackRules } from '../setbacks.ts';
import type { LipGround } from '../lip.ts';
import { type Diversion, evenFlow, fallOf, stands } from './model.ts';

export interface DrainFacts extends StormFacts {
  readonly drain: Diversion;
  readonly ground: LipGround;
  readonly endM: number | null;
}

const capacity: Rule<DrainFacts> = {
  id: 'diversion.freeboard',
  title: 'Freeboard over its depth of flow',
  why: 'A drain that tops its bank lets all its water go at one place you did not choose.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: { key: 'common-practice', locator: 'diversions 0.15 m over the design flow; some codes 0.3 m' },
  needs: NEEDS_STORM,
  find: ({ drain, designPeakM3s }) => {
    if (designPeakM3s === null) return null;
    const value = drain.dimensions.depthM - evenFlow(drain, designPeakM3s, 'tall').depthM;
    return {
      value,
      limit: 0.15,
      severity: gradeMin(value, 0.05, 0.15),
      do: value < 0.15 ? say`Make it ${amount(0.15 - value, 'difference')} deeper, or wider.` : 'Nothing.',
      ...cureBy(value < 0.15, {
        work: drain.id,
        set: { 'dimensions.depthM': upToMm(drain.dimensions.depthM + 0.15 - value) },
        says: say`Make it ${amount(0.15 - value, 'difference')} deeper`,
      }),
    };
  },
};

const velocity: Rule<DrainFacts> = {
  id: 'diversion.velocity',
  title: 'Velocity against its lining',
  why: 'Too fast and the drain becomes a gully; a drain is where most gullies begin.',
  unit: 'm/s',
  kind: 'velocity',
  sense: 'max',
  source: { key: 'chow1959', locator: 'Tables 7-3 and 7-6; Isbash for stone', fromMemory: true },
  needs: NEEDS_STORM,
  find: ({ drain, designPeakM3s }) => {
    if (designPeakM3s === null) return null;
    const value = evenFlow(drain, designPeakM3s, 'short').velocityMs;
    const limit = stands(drain);
    return {
      value,
      limit,
      severity: gradeMax(value, limit, 1.25 * limit),
      do: value > limit ? 'Give it less fall, make it wider, or line it better.' : 'Nothing.',
    };
  },
};

const fall: Rule<DrainFacts> = {
  id: 'diversion.fall',
  title: 'Fall along it',
  why: 'Without fall it silts up; with much it cuts.',
  unit: 'm/m',
  kind: 'slope',
  sense: 'max',
  source: { key: 'common-practice', locator: '0.2 to 1 %; above 2 % with check dams' },
  find: ({ drain }) => {
    const value = fallOf(drain);
    return {
      value,
      ...between(value, [0.002, 0.01]),
      severity: value <= 0 ? 'mend' : value > 0.02 ? 'mend' : value > 0.01 || value < 0.002 ? 'weigh' : 'fine',
      do:
        value <= 0
          ? 'It does not fall: swap its ends or lower its end.'
          : value > 0.01
            ? 'Draw it nearer the contour, or put check dams in it.'
            : value < 0.002
              ? 'Give it 0.2 % at the least.'
              : 'Nothing.',
      ...cureBy(value < 0.002, {
        work: drain.id,
        set: { 'levels.endM': downToMm(drain.levels.startM - 0.002 * lineLength(drain.line)) },
        says: say`Lower its end by ${amount((0.002 - value) * lineLength(drain.line), 'difference')}`,
      }),
    };
  },
};

const shooting: Rule<DrainFacts> = {
  id: 'diversion.near-critical',
  title: 'Flow near critical',
  why: 'Near critical depth the water stands in waves that slop over the bank.',
  unit: '',
  kind: 'number',
  sense: 'max',
  source: { key: 'chow1959', locator: 'keep the Froude number 0.2 from 1', fromMemory: true },
  needs: NEEDS_STORM,
  find: ({ drain, designPeakM3s }) => {
    if (designPeakM3s === null || designPeakM3s <= 0) return null;
    const { depthM } = evenFlow(drain, designPeakM3s, 'short');
    const value = froude(trapezoid(drain.dimensions.floorWidthM, drain.dimensions.sideSlopeHV), designPeakM3s, depthM);
    return {
      value,
      limit: 0.8,
      severity: value > 0.8 ? 'weigh' : 'fine',
      do: value > 0.8 ? 'Give it less fall, or a rougher lining.' : 'Nothing.',
    };
  },
};

const delivers: Rule<DrainFacts> = {
  id: 'diversion.end',
  title: 'Where it lets its water go',
  why: 'What one drain gathers, one place must take: its end is where the next gully begins.',
  unit: 'm',
  kind: 'difference',
  sense: 'max',
  source: { key: 'common-practice', locator: 'deliver to a stable watercourse, a pond or a level sill' },
  find: ({ drain, endM, links }) => {
    if (endM === null) return null;
    const value = drain.levels.endM - endM;
    const to = links.find((l) => l.outlet === `${drain.id}#end`)?.to;
    const isTaken = to !== undefined && to !== 'property-edge' && to !== 'terrain-edge' && to !== 'ground';
    return {
      value,
      limit: 0.1,
      at: drain.line[drain.line.length - 1],
      severity: value > 0.3 ? 'mend' : value > 0.1 || !isTaken ? 'weigh' : 'fine',
      do:
        value > 0.1
          ? say`Its floor ends ${amount(value, 'difference')} above the ground: carry it down on stone.`
          : isTaken
            ? 'Nothing.'
            : 'Spread it with a level sill, or end it in a watercourse that stands it.',
    };
  },
};

export const DIVERSION_RULES: readonly Rule<DrainFacts>[] = [
  capacity,
  velocity,
  fall,
  shooting,
  delivers,
  ...setbackRules<DrainFacts>('diversion', ({ drain }) => drain.line),
];
