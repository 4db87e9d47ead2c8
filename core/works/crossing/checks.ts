import { NEEDS_STORM, type Rule, type StormFacts } from '../../contract/index.ts';
import { culvertHead } from '../../hydraulics/index.ts';
import { amount, say } from '../../units/index.ts';
import { between, cureBy, downToMm, gradeMax, gradeMin, upToMm } from '../rules.ts';
import { setbackRules } from '../setbacks.ts';
import { type Crossing, pipeLength } from './model.ts';

export interface CrossingFacts extends StormFacts {
  readonly crossing: Crossing;
  /** Flow of its pipes by the level before them, outfall free, nothing blocked. */
  readonly clearLaw: ((levelM: number) => number) | null;
}

const hasPipe = ({ crossing }: CrossingFacts): boolean => crossing.dimensions.barrels > 0;

const relief: Rule<CrossingFacts> = {
  id: 'crossing.relief',
  title: 'Relief above the pipe, with the pipe blocked',
  why: 'A pipe is a choke: one branch closes it. Then the whole flow must have another way, upstream of the pipe, before the road or a bank goes.',
  unit: 'm³/s',
  kind: 'flow',
  sense: 'min',
  source: { key: 'common-practice', locator: 'relief upstream of a pipe, sized for the whole flow with the pipe blocked' },
  needs: NEEDS_STORM,
  applies: hasPipe,
  find: (facts) => {
    const { store, crossing, designPeakM3s: limit } = facts;
    if (!hasPipe(facts) || !store || limit === null) return null;
    const ways = store.outlets.filter(
      (o) => (o.kind === 'sill' || o.kind === 'rated') && o.work !== crossing.id && o.levelM < store.crestM,
    );
    const own = store.outlets.filter((o) => o.id === `${crossing.id}#road` && o.kind === 'sill');
    const value = [...ways, ...own].reduce((sum, o) => sum + o.flowAt(store.crestM), 0);
    return {
      value,
      limit,
      severity: gradeMin(value, 0.5 * limit, limit),
      do:
        value < limit
          ? say`Give it a sill, a spillway or a dip above the pipe that passes ${amount(limit - value, 'flow')} more.`
          : 'Nothing: keep it clear.',
    };
  },
};

/** As many pipes side by side as are ever laid under a farm road (common practice). */
const PIPES = [1, 2, 3, 4, 5, 6];

const headwater: Rule<CrossingFacts> = {
  id: 'crossing.headwater',
  title: 'Water above the pipe, in pipe diameters',
  why: 'Deep water before a pipe finds its way along and under it, and sucks debris in.',
  unit: '',
  kind: 'number',
  sense: 'max',
  source: { key: 'hds-5', locator: 'headwater 1.2 to 1.5 diameters', fromMemory: true },
  needs: NEEDS_STORM,
  applies: hasPipe,
  find: (facts) => {
    const { crossing, designPeakM3s } = facts;
    const { barrels, diameterM } = crossing.dimensions;
    if (!hasPipe(facts) || designPeakM3s === null) return null;
    const lengthM = pipeLength(crossing);
    const barrel = {
      diameterM,
      lengthM,
      n: crossing.roughness,
      inlet: crossing.inlet,
      slope: (crossing.levels.inletM - crossing.levels.outletM) / lengthM,
    };
    const byPipes = (count: number): number => culvertHead(barrel, designPeakM3s / count) / diameterM;
    const value = byPipes(barrels);
    const enough = PIPES.find((count) => count > barrels && byPipes(count) <= 1.2);
    return {
      value,
      limit: 1.2,
      severity: gradeMax(value, 1.2, 1.5),
      do: value > 1.2 ? 'Lay a larger pipe, or one more beside it.' : 'Nothing.',
      ...(enough === undefined
        ? {}
        : cureBy(value > 1.2, { work: crossing.id, set: { 'dimensions.barrels': enough }, says: `Lay ${enough} such pipes side by side` })),
    };
  },
};

const roadFreeboard: Rule<CrossingFacts> = {
  id: 'crossing.road-freeboard',
  isOfLevels: true,
  title: 'Road above the highest water',
  why: 'Water over an earth road cuts it from its lower edge up.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: { key: 'hds-5', locator: 'freeboard to the road 0.3 m', fromMemory: true },
  needs: NEEDS_STORM,
  applies: ({ crossing }) => crossing.form === 'culvert' && crossing.joins === undefined,
  find: ({ crossing, storm }) => {
    if (!storm || crossing.form !== 'culvert') return null;
    const value = crossing.levels.roadM - storm.peakLevelM;
    return {
      value,
      limit: 0.3,
      severity: gradeMin(value, 0, 0.3),
      do:
        value < 0.3
          ? say`Raise the road by ${amount(0.3 - value, 'difference')}, give more pipe, or make a stretch of it a hard dip.`
          : 'Nothing.',
      // Run over, it would hold more of the flood back with every millimetre: more pipe is what it lacks.
      ...cureBy(value >= 0 && value < 0.3, {
        work: crossing.id,
        set: { 'levels.roadM': upToMm(crossing.levels.roadM + 0.3 - value) },
        says: say`Raise the road by ${amount(0.3 - value, 'difference')}`,
      }),
    };
  },
};

const pipeTop: Rule<CrossingFacts> = {
  id: 'crossing.pipe-top',
  isOfLevels: true,
  title: 'Top of the pipe under the sill',
  why: 'A pipe whose top lies just under the level water stands at runs full, and keeps trash from bridging its mouth.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: { key: 'common-practice', locator: 'pipes set with their top slightly below sill level' },
  find: (facts) => {
    const { crossing, store } = facts;
    if (!hasPipe(facts) || !store || !crossing.joins) return null;
    const sills = store.outlets.filter((o) => o.kind === 'sill' || o.kind === 'rated').map((o) => o.levelM);
    if (sills.length === 0) return null;
    const value = Math.min(...sills) - (Math.max(crossing.levels.inletM, crossing.levels.outletM) + crossing.dimensions.diameterM);
    return {
      value,
      limit: 0,
      severity: value < 0 ? 'weigh' : 'fine',
      do: value < 0 ? say`Lay it ${amount(-value, 'difference')} lower.` : 'Nothing.',
      ...cureBy(value < 0, {
        work: crossing.id,
        set: { 'levels.inletM': downToMm(crossing.levels.inletM + value), 'levels.outletM': downToMm(crossing.levels.outletM + value) },
        says: say`Lay it ${amount(-value, 'difference')} lower`,
      }),
    };
  },
};

const cover: Rule<CrossingFacts> = {
  id: 'crossing.cover',
  title: 'Earth over the pipe',
  why: 'Wheels crush a pipe with little over it.',
  unit: 'm',
  kind: 'length',
  sense: 'min',
  source: { key: 'common-practice', locator: 'cover 300 mm, 600 mm over plastic under lorries' },
  find: (facts) => {
    const { levels, dimensions } = facts.crossing;
    if (!hasPipe(facts)) return null;
    const value = levels.roadM - Math.max(levels.inletM, levels.outletM) - dimensions.diameterM;
    return {
      value,
      limit: 0.3,
      severity: gradeMin(value, 0.15, 0.3),
      do: value < 0.3 ? 'Raise the road or lay the pipe lower: 0.3 m, 0.6 m over plastic under lorries.' : 'Nothing.',
      ...cureBy(value < 0.3, {
        work: facts.crossing.id,
        set: { 'levels.roadM': upToMm(levels.roadM + 0.3 - value) },
        says: say`Raise the road by ${amount(0.3 - value, 'difference')}`,
      }),
    };
  },
};

const pipeSize: Rule<CrossingFacts> = {
  id: 'crossing.pipe-size',
  title: 'Pipe that can be cleaned',
  why: 'A small pipe under a road is dug up, not cleaned.',
  unit: 'm',
  kind: 'length',
  sense: 'min',
  source: { key: 'common-practice', locator: '450 mm for cleaning, 300 mm at drives' },
  find: (facts) => {
    if (!hasPipe(facts)) return null;
    const value = facts.crossing.dimensions.diameterM;
    return {
      value,
      limit: 0.45,
      severity: gradeMin(value, 0.3, 0.45),
      do: value < 0.45 ? 'Lay 450 mm where you can.' : 'Nothing.',
      ...cureBy(value < 0.45, {
        work: facts.crossing.id,
        set: { 'dimensions.diameterM': 0.45 },
        says: say`Lay a pipe of ${amount(0.45, 'difference')}`,
      }),
    };
  },
};

const pipeVelocity: Rule<CrossingFacts> = {
  id: 'crossing.pipe-velocity',
  title: 'Velocity in the pipe',
  why: 'Slow water drops its silt there; fast water digs at the outlet.',
  unit: 'm/s',
  kind: 'velocity',
  sense: 'max',
  source: { key: 'common-practice', locator: '0.75 to 3 m/s, or protect the outlet' },
  needs: NEEDS_STORM,
  applies: hasPipe,
  find: (facts) => {
    const { crossing, links } = facts;
    const peak = links.find((l) => l.outlet === `${crossing.id}#pipe`)?.peakM3s;
    if (!hasPipe(facts) || peak === undefined || peak === null || peak <= 0) return null;
    const { barrels, diameterM } = crossing.dimensions;
    const value = peak / (barrels * (Math.PI / 4) * diameterM ** 2);
    return {
      value,
      ...between(value, [0.3, value > 3 ? 3 : 1.5]),
      severity: value > 3 ? 'mend' : value > 1.5 || value < 0.3 ? 'weigh' : 'fine',
      do:
        value > 1.5
          ? 'Lay stone at its outlet.'
          : value < 0.3
            ? 'It will silt: give it more fall, or look at it after each storm.'
            : 'Nothing.',
    };
  },
};

const tilted: Rule<CrossingFacts> = {
  id: 'crossing.pipe-fall',
  title: 'Fall of the pipe',
  why: 'A pipe tilted the wrong way holds water, silt and mosquitoes.',
  unit: 'm/m',
  kind: 'slope',
  sense: 'min',
  source: { key: 'common-practice', locator: '1 % where it only runs one way; level where it joins two stores' },
  find: (facts) => {
    const { crossing } = facts;
    if (!hasPipe(facts)) return null;
    const value = (crossing.levels.inletM - crossing.levels.outletM) / pipeLength(crossing);
    const limit = crossing.joins ? 0 : 0.01;
    return {
      value,
      limit,
      severity: value < 0 ? 'mend' : value < limit ? 'weigh' : 'fine',
      do: value < limit ? 'Lay it anew, its outlet lower than its inlet.' : 'Nothing.',
      ...cureBy(value < limit, {
        work: crossing.id,
        set: { 'levels.outletM': downToMm(crossing.levels.inletM - limit * pipeLength(crossing)) },
        says: say`Lay its outlet ${amount((limit - value) * pipeLength(crossing), 'difference')} lower`,
      }),
    };
  },
};

export const CROSSING_RULES: readonly Rule<CrossingFacts>[] = [
  relief,
  headwater,
  roadFreeboard,
  pipeTop,
  cover,
  pipeSize,
  pipeVelocity,
  tilted,
  ...setbackRules<CrossingFacts>('crossing', ({ crossing }) => crossing.line),
];
