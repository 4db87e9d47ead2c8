// A sump with a pump: what its pit holds, what its pump lifts, and how long it stands without mains.
import type { Figure, PegDraft, PlacedWork, Technique } from '../../contract/index.ts';
import type { Worksheet } from '../../formula/index.ts';
import { type Point, evenlyAlong, lineLength } from '../../geometry/index.ts';
import { centreOf, levelAt, poolAt } from '../../terrain/index.ts';
import { runRules } from '../rules.ts';
import { UnknownGround } from '../unknown-ground.ts';
import { beginSump } from './begin.ts';
import { SUMP_RULES } from './checks.ts';
import { sumpDescriptor } from './descriptor.ts';
import { SUMP_CYCLE, SUMP_RUNS, SUMP_STARTS } from './formulas.ts';
import { quantitiesOf, stepsOf } from './making.ts';
import { type Sump, cycleM3 } from './model.ts';
import { sectionOf } from './section.ts';
import { type SumpFacts, type SumpGround, grateTakes, headsOf, hoursToRim, intakesOf, letsGoAt, peakOf, storesOf } from './standing.ts';

export * from './model.ts';
export { newSump } from './create.ts';
export { SUMP_RULES } from './checks.ts';

function figuresOf(facts: SumpFacts, sheet: Worksheet): Figure[] {
  const { work } = facts;
  const { liftM, lossM, powerW } = headsOf(work, (formula, values) => sheet.use(formula, values));
  const V = cycleM3(work);
  const Q = work.flowM3s;
  const peak = peakOf(facts);
  const cycleS = peak !== null && peak > 0 && peak < Q ? sheet.use(SUMP_CYCLE, { Q, V, q: peak }) : null;
  return [
    { id: 'cycleM3', label: 'Lifts at a start', value: V, kind: 'volume' },
    { id: 'starts', label: 'Starts an hour at the most', value: sheet.use(SUMP_STARTS, { Q, V }), kind: 'number' },
    { id: 'cycleS', label: 'From start to start at the peak', value: cycleS, kind: 'seconds' },
    { id: 'peakM3s', label: 'Comes at most', value: peak, kind: 'tapFlow' },
    ...(work.top === 'grate'
      ? [
          {
            id: 'grateM3s',
            label: 'Its grate takes, half closed, under 50 mm of water',
            value: grateTakes(work, SHOE_M),
            kind: 'tapFlow' as const,
          },
        ]
      : []),
    { id: 'liftM', label: 'Lifts', value: liftM, kind: 'length' },
    { id: 'lossM', label: 'Lost in its pipe', value: lossM, kind: 'length' },
    { id: 'powerW', label: 'Power while it runs', value: powerW, kind: 'power' },
    { id: 'hoursToRim', label: 'Without mains, to its rim at the peak', value: hoursToRim(facts), kind: 'hours' },
  ];
}

/** Water a shoe keeps out [m]. */
const SHOE_M = 0.05;

/** @throws UnknownGround where no level is known at the pit or where its water is let go. */
function measureSump({ line, top }: Sump, { grid }: Parameters<Technique<Sump, SumpGround>['measure']>[1]): SumpGround {
  const [pitM, endM] = [levelAt(grid, line[0]), levelAt(grid, line[line.length - 1])];
  if (Number.isNaN(pitM + endM)) throw new UnknownGround('No level is known at the pit or where its water is let go');
  const count = Math.max(2, Math.ceil(lineLength(line)));
  const pool = top === 'grate' ? poolAt(grid, line[0]) : null;
  const along = evenlyAlong(line, count).map((at) => levelAt(grid, at));
  return {
    pitM,
    endM,
    highestM: Math.max(...along.filter((v) => !Number.isNaN(v))),
    pool,
    taken: pool ? Array.from(pool.cells, (cell) => centreOf(grid, cell)) : [],
  };
}

function pegsOf(work: Sump, { pitM, endM }: SumpGround): PegDraft[] {
  const peg = (name: string, [x, y]: Point, levels: Pick<PegDraft, 'role' | 'levelM' | 'groundM'>): PegDraft => ({ name: `${work.name}, ${name}`, x, y, ...levels });
  return [
    peg('rim', work.line[0], { role: 'crest', levelM: work.levels.rimM, groundM: pitM }),
    peg('bottom', work.line[0], { role: 'floor', levelM: work.levels.floorM, groundM: pitM }),
    peg('end of its pipe', letsGoAt(work), { role: 'invert', levelM: endM, groundM: endM }),
  ];
} // prettier-ignore

function placeSump(work: Sump, ground: SumpGround): PlacedWork {
  const mark = (id: keyof Sump['levels'], name: string, role: 'floor' | 'sill' | 'crest'): PlacedWork['marks'][number] => ({
    id: `${work.id}:${id}`,
    work: work.id,
    name,
    role,
    levelM: work.levels[id],
    path: `levels.${id}`,
  });
  return {
    host: null,
    stores: () => storesOf(work, ground),
    outlets: [],
    intakes: intakesOf(work, ground),
    figures: (facts, sheet) => figuresOf({ ...facts, work, ground }, sheet),
    checks: (facts) => runRules(SUMP_RULES, { ...facts, work, ground }, work.id),
    quantities: () => quantitiesOf(work),
    buildSteps: () => stepsOf(work),
    pegs: () => pegsOf(work, ground),
    marks: [
      mark('rimM', 'Rim', 'crest'),
      mark('startM', 'Starts', 'sill'),
      mark('stopM', 'Stops', 'sill'),
      mark('floorM', 'Bottom', 'floor'),
    ],
    section: (waterM) => sectionOf(work, ground, waterM),
  };
}

export const sump: Technique<Sump, SumpGround> = {
  ...sumpDescriptor,
  formulas: [SUMP_STARTS, SUMP_CYCLE, SUMP_RUNS],
  rules: SUMP_RULES,
  begin: beginSump,
  measure: measureSump,
  place: placeSump,
};
