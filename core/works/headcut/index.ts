// The head of a gully: what falls there, how fast it eats uphill, and what is done about it.
import type { Figure, LevelMark, PegDraft, PlacedWork, Technique } from '../../contract/index.ts';
import type { Use, Worksheet } from '../../formula/index.ts';
import { lineLength, pointAlong } from '../../geometry/index.ts';
import { groundAlong } from '../lip.ts';
import { runRules } from '../rules.ts';
import { beginHead } from './begin.ts';
import { HEAD_RULES } from './checks.ts';
import { headcutDescriptor } from './descriptor.ts';
import { BALE_FLOATS, CHUTE_STONE_GENTLE, CHUTE_STONE_STEEP, FALL_POWER, LOG_FLOATS, REACHES_IN, RETREAT } from './formulas.ts';
import { type HeadGround, measureHead } from './ground.ts';
import { partsOf, quantitiesOf, stepsOf } from './making.ts';
import type { Headcut } from './model.ts';
import { paceOf } from './retreat.ts';
import { sectionOf } from './section.ts';
import {
  type HeadFacts,
  type Standing,
  apronAlong,
  chuteStone,
  downFrom,
  dugBy,
  faceM,
  floatsBy,
  overLip,
  standingHead,
  storeOf,
} from './standing.ts';
import { suitsHead } from './suits.ts';

export * from './model.ts';
export { HEAD_RULES } from './checks.ts';

/** What a flow at the peak does there, written down. */
function peakFigures(facts: HeadFacts, sheet: Worksheet): Figure[] {
  const { standing } = facts;
  const { head, dropM } = standing;
  const over = overLip(facts);
  if (!over || over.q <= 0) return [];
  const use: Use = (formula, values) => sheet.use(formula, values);
  const isFree = head.form === 'left' || head.form === 'plug';
  const dug = isFree ? dugBy(standing, over, use) : null;
  return [
    { id: 'peakM3s', label: 'Comes over it at the peak', value: over.peakM3s, kind: 'flow' },
    { id: 'headM', label: 'Deep over its lip', value: over.headM, kind: 'difference' },
    { id: 'powerW', label: 'Power of the fall, watts a metre', value: sheet.use(FALL_POWER, { q: over.q, H: dropM }), kind: 'number' },
    ...(isFree
      ? ([
          { id: 'scourLeastM', label: 'Digs at its foot, at least', value: dug?.[0] ?? null, kind: 'length' },
          { id: 'scourMostM', label: 'and at most', value: dug?.[1] ?? null, kind: 'length' },
        ] as const)
      : []),
    ...(head.form === 'rock'
      ? [
          {
            id: 'stoneNeededM',
            label: 'Stone needed',
            value: chuteStone(standing, over, use),
            kind: 'difference' as const,
            sets: 'dimensions.stoneM',
          },
        ]
      : []),
    ...(head.form === 'plug'
      ? [{ id: 'floats', label: 'Lift over what holds it', value: floatsBy(standing, over.headM, use), kind: 'number' as const }]
      : []),
  ];
}

function figuresOf(facts: HeadFacts, sheet: Worksheet): Figure[] {
  const { standing } = facts;
  const { head, dropM, ground } = standing;
  const parts = partsOf(standing);
  const pace = paceOf(head, (formula, values) => sheet.use(formula, values));
  const isBuilt = head.form !== 'left';
  return [
    { id: 'dropM', label: 'Drop', value: dropM, kind: 'length' },
    { id: 'groundDropM', label: 'Drop by the terrain', value: ground.foot ? ground.lipM - ground.foot.levelM : null, kind: 'length' },
    ...(isBuilt
      ? ([
          ...(head.form === 'plug' ? [] : [{ id: 'earthM3', label: 'To cut', value: parts.earthM3, kind: 'volume' } as const]),
          ...(parts.stoneM3 > 0 ? [{ id: 'stoneM3', label: 'Stone', value: parts.stoneM3, kind: 'volume' } as const] : []),
          { id: 'hours', label: 'Hours of one person', value: parts.hours, kind: 'hours' },
        ] as const)
      : []),
    ...(pace
      ? ([
          { id: 'movedM', label: 'Moved since the first reading', value: pace.movedM, kind: 'length' },
          { id: 'per100Mm', label: 'for 100 mm of rain', value: pace.per100Mm === null ? null : pace.per100Mm / 1000, kind: 'difference' },
          { id: 'reachesInYears', label: 'Reaches what stands uphill in', value: pace.reachesInYears, kind: 'years' },
        ] as const)
      : []),
    ...peakFigures(facts, sheet),
  ];
}

function pegsOf(standing: Standing): PegDraft[] {
  const { head, ground } = standing;
  const { lipM, footM } = head.levels;
  const length = lineLength(head.line);
  const apron = apronAlong(standing);
  const at = ([x, y]: readonly [number, number]) => ({ x, y });
  const side = (name: string, atM: number): PegDraft => ({
    name,
    role: 'crest',
    ...at(pointAlong(head.line, atM).point),
    levelM: lipM + standing.sideM,
    groundM: groundAlong(ground.lip, atM),
  });
  const peg = (name: string, role: PegDraft['role'], awayM: number): Omit<PegDraft, 'levelM' | 'groundM'> => ({
    name,
    role,
    ...at(downFrom(standing, awayM)),
  });
  const mark: PegDraft = { ...peg('fixed mark, uphill of the lip', 'stone', -MARK_M), levelM: lipM, groundM: null };
  return [
    side('first end of the lip', 0),
    side('other end of the lip', length),
    { ...peg('lip', 'sill', 0), levelM: lipM, groundM: ground.lipM },
    { ...peg('foot', 'floor', faceM(standing)), levelM: footM, groundM: ground.foot?.levelM ?? null },
    ...(apron ? [{ ...peg('end of the apron', 'stone', apron[1]), levelM: footM, groundM: null } as const] : []),
    mark,
  ];
}
/** So far uphill of the lip is its mark driven [m]: common practice. */
const MARK_M = 10;

const marksOf = ({ head }: Standing): LevelMark[] => {
  const mark = (id: 'lipM' | 'footM', name: string, role: LevelMark['role']): LevelMark => ({
    id: `${head.id}:${id}`,
    work: head.id,
    name,
    role,
    levelM: head.levels[id],
    path: `levels.${id}`,
  });
  return [mark('lipM', 'Lip', 'sill'), mark('footM', 'Foot', 'floor')];
};

function placeHead(head: Headcut, ground: HeadGround): PlacedWork {
  const standing = standingHead(head, ground);
  return {
    host: null,
    stores: () => [storeOf(standing)],
    outlets: [],
    figures: (facts, sheet) => figuresOf({ ...facts, standing }, sheet),
    checks: (facts) => runRules(HEAD_RULES, { ...facts, standing }, head.id),
    quantities: () => quantitiesOf(standing),
    buildSteps: () => stepsOf(standing),
    pegs: () => pegsOf(standing),
    marks: marksOf(standing),
    section: (waterM) => sectionOf(standing, waterM),
  };
}

export const headcut: Technique<Headcut, HeadGround> = {
  ...headcutDescriptor,
  formulas: [FALL_POWER, RETREAT, REACHES_IN, LOG_FLOATS, BALE_FLOATS, CHUTE_STONE_GENTLE, CHUTE_STONE_STEEP],
  rules: HEAD_RULES,
  suits: suitsHead,
  begin: beginHead,
  measure: ({ line }, plot) => measureHead(line, plot),
  place: placeHead,
};
