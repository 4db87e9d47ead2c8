// A weir across a gully: it holds the bed where it is, and takes the fall in one place built for it.
import type { Figure, LevelMark, PegDraft, PlacedWork, Technique } from '../../contract/index.ts';
import type { Use, Worksheet } from '../../formula/index.ts';
import { type Point, pointAlong } from '../../geometry/index.ts';
import { SILL_LENGTH } from '../../hydraulics/index.ts';
import { wallGroundAt, waterAt, waterRings } from '../basin/index.ts';
import {
  BASE_PRESSURE,
  COULOMB_PUSH,
  CREEP,
  EARTH_THRUST,
  ECCENTRICITY,
  LIFT_TILT,
  RANKINE_PUSH,
  SAFE_SLIDING,
  SAFE_TURNING,
  WATER_LIFT,
  WATER_THRUST,
  WATER_TILT,
  stabilityOf,
} from '../gravity/index.ts';
import { hourFigures, hoursWorked, litresAnHour } from '../labour.ts';
import { runRules, upToMm } from '../rules.ts';
import { beginWeir } from './begin.ts';
import { WEIR_RULES } from './checks.ts';
import { type WeirGround, measureWeir } from './ground.ts';
import { weirDescriptor } from './descriptor.ts';
import { partsOf, quantitiesOf, stepsOf, stoneM3 } from './making.ts';
import type { Weir } from './model.ts';
import { sectionOf } from './section.ts';
import { NOTCH_C, type Standing, type WeirFacts, apronFor, fallsOf, loadOf, scourOf, standingWeir, weirFacts } from './standing.ts';
import { basinBehind, below, roomOf, storeOf } from './store.ts';
import { suitsWeir } from './suits.ts';

export * from './model.ts';
export { WEIR_RULES } from './checks.ts';

/** What a flow at the peak does to it, written down. */
function peakFigures(facts: WeirFacts, sheet: Worksheet): Figure[] {
  const { standing, peak } = facts;
  if (!peak) return [];
  const { work } = standing;
  const use: Use = (formula, values) => sheet.use(formula, values);
  const falls = fallsOf(standing, peak.peakM3s, use);
  const depthM = work.levels.crestM - work.levels.notchM;
  const wide = peak.peakM3s > 0 ? sheet.use(SILL_LENGTH, { Q: peak.peakM3s, C: NOTCH_C, H: depthM }) : null;
  const load = falls?.tailM == null ? null : loadOf(standing, { headM: peak.headM, tailM: falls.tailM });
  const stands = load && standing.heightM > 0 ? stabilityOf(load, use) : null;
  const dug = falls && scourOf(standing, { ...falls, headM: peak.headM }, use);
  const known = (v: number | undefined): number | null => (v !== undefined && Number.isFinite(v) ? v : null);
  return [
    { id: 'headM', label: 'Water in the notch at the peak', value: peak.headM, kind: 'difference' },
    { id: 'notchNeededM', label: 'Notch needed', value: wide === null ? null : Math.ceil(100 * wide) / 100, kind: 'length' },
    { id: 'landsM', label: 'Water lands from its crest', value: falls?.landsM ?? null, kind: 'length' },
    { id: 'apronNeededM', label: 'Apron needed', value: falls ? upToMm(apronFor(falls)) : null, kind: 'length' },
    { id: 'overturning', label: 'Safety against overturning', value: known(stands?.overturning), kind: 'number' },
    { id: 'sliding', label: 'Safety against sliding', value: known(stands?.sliding), kind: 'number' },
    { id: 'pressureKpa', label: 'Greatest pressure under it, kPa', value: known(stands?.pressureKpa), kind: 'number' },
    { id: 'scourLeastM', label: 'A free fall would dig, at least', value: dug?.[0] ?? null, kind: 'length' },
    { id: 'scourMostM', label: 'and at most', value: dug?.[1] ?? null, kind: 'length' },
  ];
}

function figuresOf(facts: WeirFacts, basin: ReturnType<typeof basinBehind>, sheet: Worksheet): Figure[] {
  const { standing } = facts;
  const { work, channel, dropM } = standing;
  const { allM3, siltM3 } = roomOf(standing, basin);
  const parts = partsOf(standing);
  const stone = stoneM3(parts);
  return [
    { id: 'dropM', label: 'Fall over its notch', value: dropM, kind: 'length' },
    { id: 'bedM', label: 'Bed under it', value: channel.bedM, kind: 'level' },
    { id: 'bedWidthM', label: 'Bed by the terrain', value: channel.widthM, kind: 'length' },
    { id: 'roomM3', label: 'Room to its notch', value: allM3, kind: 'volume' },
    { id: 'openM3', label: 'of that, open', value: allM3 - siltM3, kind: 'volume' },
    { id: 'reachM', label: 'Reaches up the channel', value: waterAt(basin, work.levels.notchM).reachM, kind: 'length' },
    { id: 'stoneM3', label: 'Stone', value: stone, kind: 'volume' },
    ...hourFigures(work.labour, parts.hours),
    {
      id: 'litresAnHour',
      label: 'Litres held for each hour, a fill',
      value: litresAnHour(allM3 - siltM3, hoursWorked(work.labour, parts.hours)),
      kind: 'number',
    },
    ...peakFigures(facts, sheet),
  ];
}

function pegsOf(standing: Standing): PegDraft[] {
  const { work, wall } = standing;
  const { notchM, crestM } = work.levels;
  const { notchWidthM, apronM, apronDropM } = work.dimensions;
  const along = (atM: number): Point => pointAlong(work.line, atM).point;
  const place = ([x, y]: Point): { readonly x: number; readonly y: number } => ({ x, y });
  const from = work.notchAtM - notchWidthM / 2;
  const to = work.notchAtM + notchWidthM / 2;
  const last = wall.lengthM;
  return [
    { name: 'notch, first side', role: 'sill', ...place(along(from)), levelM: notchM, groundM: wallGroundAt(wall, from) },
    { name: 'notch, other side', role: 'sill', ...place(along(to)), levelM: notchM, groundM: wallGroundAt(wall, to) },
    { name: 'first end', role: 'crest', ...place(along(0)), levelM: crestM, groundM: wallGroundAt(wall, 0) },
    { name: 'other end', role: 'crest', ...place(along(last)), levelM: crestM, groundM: wallGroundAt(wall, last) },
    {
      name: 'end of the apron',
      role: 'stone',
      ...place(below(standing, work.notchAtM, apronM)),
      levelM: standing.channel.bedM - apronDropM,
      groundM: null,
    },
  ];
}

const marksOf = ({ work, channel }: Standing): LevelMark[] => {
  const mark = (id: string, rest: Pick<LevelMark, 'name' | 'role' | 'levelM' | 'path'>): LevelMark => ({
    id: `${work.id}:${id}`,
    work: work.id,
    ...rest,
  });
  return [
    mark('crest', { name: 'Ends', role: 'crest', levelM: work.levels.crestM, path: 'levels.crestM' }),
    mark('notch', { name: 'Notch', role: 'sill', levelM: work.levels.notchM, path: 'levels.notchM' }),
    mark('bed', { name: 'Bed', role: 'ground', levelM: channel.bedM, path: null }),
  ];
};

/** Nothing is dug under its water. */
const ON_THE_GROUND_M = 0;

function placeWeir(work: Weir, ground: WeirGround): PlacedWork {
  const standing = standingWeir(work, ground);
  const basin = basinBehind(standing);
  const reachUp = Math.max(1, waterAt(basin, work.levels.notchM).reachM / 2);
  return {
    host: null,
    stores: () => [storeOf(standing, basin)],
    outlets: [],
    figures: (facts, sheet) => figuresOf(weirFacts(facts, standing), basin, sheet),
    checks: (facts) => runRules(WEIR_RULES, weirFacts(facts, standing), work.id),
    quantities: () => quantitiesOf(standing),
    buildSteps: () => stepsOf(standing),
    pegs: () => pegsOf(standing),
    marks: marksOf(standing),
    section: (waterM) => sectionOf(standing, waterM),
    beds: () => ({
      line: [below(standing, work.notchAtM, -work.dimensions.baseWidthM - reachUp), pointAlong(work.line, work.notchAtM).point],
      dugM: ON_THE_GROUND_M,
    }),
    waterRings: (levelM) => waterRings(ground, levelM),
  };
}

export const weir: Technique<Weir, WeirGround> = {
  ...weirDescriptor,
  formulas: [
    RANKINE_PUSH,
    COULOMB_PUSH,
    EARTH_THRUST,
    WATER_THRUST,
    WATER_TILT,
    WATER_LIFT,
    LIFT_TILT,
    SAFE_TURNING,
    SAFE_SLIDING,
    ECCENTRICITY,
    BASE_PRESSURE,
    CREEP,
  ],
  rules: WEIR_RULES,
  suits: suitsWeir,
  begin: beginWeir,
  measure: ({ line }, plot) => measureWeir(line, plot),
  place: placeWeir,
};
