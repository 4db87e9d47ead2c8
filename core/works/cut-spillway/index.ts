// A grassed channel cut into natural ground beside a wall: a level control section, then a slope down.
import { cutSpillwayDescriptor } from './descriptor.ts';
import type { Built, Figure, Host, Outlet, PlacedWork, Rule, SectionShape, StormFacts, Technique } from '../../contract/index.ts';
import type { Worksheet } from '../../formula/index.ts';
import { type FlowLaw, GRASSED_SILL_C, Rating, ratedLaw, rootOf, trapezoid, upperDepth } from '../../hydraulics/index.ts';
import { nearestOnLine } from '../../geometry/index.ts';
import { exitFlow, grassChannel } from '../exit.ts';
import { beginWayOut } from '../beginning.ts';
import { boxAround, sideUp } from '../built.ts';
import { type HostPlace, pegAt, placeOnHost } from '../on-host.ts';
import { cureBy, gradeMin, runRules } from '../rules.ts';
import { type WayOutFacts, exitBelow, exitVelocityRule, onNaturalGroundRule, peakThrough } from '../ways-out.ts';
import { CUT_CONTROL } from './formulas.ts';
import { cutM3, quantitiesOf, stepsOf } from './making.ts';
import { type CutSpillway, newCut } from './model.ts';

export { CUT_CONTROL };

export type { CutSpillway } from './model.ts';

/** Tall grass on the way in, class C, takes the most head; handbook 4.1. */
const TALL_GRASS = 5.6;
/** Head to which its rating is worked out [m]. */
const HIGHEST_M = 1.2;

type CutShape = Pick<CutSpillway, 'levels' | 'dimensions'>;

/** Head of the pond and flow, by the head on the control: grass on the way in backs water up from it. */
function atControl({ dimensions }: CutShape, H: number): readonly [pondHeadM: number, flowM3s: number] {
  const { bottomWidthM, sideSlopeHV, inletLengthM } = dimensions;
  const Q = CUT_CONTROL.evaluate({ C: GRASSED_SILL_C, b: bottomWidthM, z: sideSlopeHV, H });
  if (inletLengthM === 0 || Q === 0) return [H, Q];
  const { n } = grassChannel({ widthM: bottomWidthM, sideHV: sideSlopeHV, slope: 0.005, curveIndex: TALL_GRASS }, Q);
  return [upperDepth({ section: trapezoid(bottomWidthM, sideSlopeHV), lengthM: inletLengthM, slope: 0, n }, Q, H), Q];
}

/** Flow by the level of the water before it: the head on the control, and what grass on the way in takes. */
export function cutLaw(cut: CutShape): FlowLaw {
  const rating = Rating.by(40, (share) => atControl(cut, HIGHEST_M * share));
  return ratedLaw(rating, cut.levels.sillM);
}

/** Head of the pond at which it passes a flow alone, without a rating [m]. */
function pondHeadFor(cut: CutShape, flowM3s: number): number {
  const { bottomWidthM: b, sideSlopeHV: z } = cut.dimensions;
  const H = rootOf((head) => CUT_CONTROL.evaluate({ C: GRASSED_SILL_C, b, z, H: head }) - flowM3s);
  return atControl(cut, H)[0];
}

interface CutFacts extends WayOutFacts {
  readonly cut: CutSpillway;
}

const controlLength: Rule<CutFacts> = {
  id: 'cut-spillway.control',
  title: 'Level length along the flow',
  why: 'A short control is worn into a notch, and the notch works back into the pond.',
  unit: 'm',
  kind: 'length',
  sense: 'min',
  source: { key: 'cps-378', locator: 'level control section at least 6 to 7.5 m', fromMemory: true },
  find: ({ cut }) => {
    const value = cut.dimensions.controlLengthM;
    return {
      value,
      limit: 6,
      severity: gradeMin(value, 3, 6),
      do: value < 6 ? 'Level it 6 m along the flow.' : 'Nothing.',
      ...cureBy(value < 6, { work: cut.id, set: { 'dimensions.controlLengthM': 6 }, says: 'Level it 6 m along the flow' }),
    };
  },
};

const sideSlope: Rule<CutFacts> = {
  id: 'cut-spillway.sides',
  title: 'Sides of the cut',
  why: 'Steep sides slump into the way out when it is wet, which is when it is needed.',
  unit: '',
  kind: 'number',
  sense: 'min',
  source: { key: 'ah590', locator: 'earth spillways, sides 3 to 1', fromMemory: true },
  find: ({ cut }) => {
    const value = cut.dimensions.sideSlopeHV;
    return {
      value,
      limit: 3,
      severity: gradeMin(value, 1.5, 3),
      do: value < 3 ? 'Lay them back to 3 out for 1 up.' : 'Nothing.',
      ...cureBy(value < 3, { work: cut.id, set: { 'dimensions.sideSlopeHV': 3 }, says: 'Lay them back to 3 out for 1 up' }),
    };
  },
};

export const CUT_RULES: readonly Rule<CutFacts>[] = [
  controlLength,
  sideSlope,
  exitVelocityRule('cut-spillway.exit-velocity', 'Widen it, lay stone on its slope, or lead it down a gentler side.'),
  onNaturalGroundRule('cut-spillway.on-fill'),
];

function outletOf(cut: CutSpillway, place: HostPlace): Outlet {
  const { bottomWidthM, sideSlopeHV, stoneM } = cut.dimensions;
  return {
    id: cut.id,
    role: 'way',
    work: cut.id,
    name: cut.name,
    kind: 'rated',
    levelM: cut.levels.sillM,
    dischargeAt: place.dischargeAt,
    flowAt: cutLaw(cut),
    exit: exitBelow(place, { shape: 'channel', widthM: bottomWidthM, sideHV: sideSlopeHV, ...(stoneM > 0 ? { stoneM } : {}) }),
  };
}

function figuresOf(cut: CutSpillway, facts: CutFacts, sheet: Worksheet): Figure[] {
  const { bottomWidthM: b, sideSlopeHV: z } = cut.dimensions;
  const { groundM, slopeBelow } = facts.place;
  const figures: Figure[] = [
    { id: 'groundM', label: 'Natural ground', value: groundM, kind: 'level' },
    { id: 'slopeBelow', label: 'Ground slope below', value: slopeBelow, kind: 'slope' },
    { id: 'cutM3', label: 'Cut', value: cutM3(cut, facts.place), kind: 'volume' },
  ];
  const Q = facts.designPeakM3s;
  if (Q === null || Q <= 0) return figures;
  const H = headFor(facts.outlet, Q);
  sheet.use(CUT_CONTROL, { C: GRASSED_SILL_C, b, z, H });
  const exit = facts.outlet.exit;
  const peak = peakThrough(facts);
  const soil = exit && facts.site.soilAt(exit.at);
  const flow = exit && soil && peak !== null ? exitFlow(exit, peak, soil.cover) : null;
  return [
    ...figures,
    { id: 'headM', label: 'Head on it, passing the whole peak alone', value: H, kind: 'difference' },
    { id: 'neededWidthM', label: 'Bottom width needed', value: widthNeeded(cut, facts), kind: 'length', sets: 'dimensions.bottomWidthM' },
    { id: 'velocityMs', label: 'Velocity on the slope below', value: flow?.velocityMs ?? null, kind: 'velocity' },
    { id: 'standsMs', label: 'What stands there', value: flow?.standsMs ?? null, kind: 'velocity' },
  ];
}

/** Freeboard a spillway leaves under the crest, and the deepest water its grass is asked to carry [m] (AH-590; handbook 5.3 and 4.3). */
const [UNDER_CREST_M, DEEPEST_M] = [0.3, 0.6];
const [LEAST_WIDTH_M, MOST_WIDTH_M] = [0.5, 100];
/** How near to the whole peak a width must pass; it is then rounded up to a tenth of a metre. */
const CLOSE_SHARE = 0.002;
/** Where the widest takes more head than this for each it may, no width does. */
const MOST_OVER = 1.02;

/** Bottom width at which it passes the whole peak alone, deep enough under the crest and no faster than what it runs on stands [m]. */
function widthNeeded(cut: CutSpillway, { store, designPeakM3s: Q, outlet, site }: CutFacts): number | null {
  if (!store || Q === null || Q <= 0) return null;
  const head = Math.min(DEEPEST_M, store.crestM - UNDER_CREST_M - cut.levels.sillM);
  if (head <= 0) return null;
  const { exit } = outlet;
  const cover = exit ? (site.soilAt(exit.at)?.cover ?? null) : null;
  const wide = (bottomWidthM: number): CutShape => ({ ...cut, dimensions: { ...cut.dimensions, bottomWidthM } });
  // At one head flow grows nearly with width, so a few steps of proportion find it; each costs the water's whole way in.
  let width = Math.max(LEAST_WIDTH_M, cut.dimensions.bottomWidthM);
  for (let k = 0; k < 8; k++) {
    const takes = (pondHeadFor(wide(width), Q) / head) ** 1.5;
    if (Math.abs(takes - 1) <= CLOSE_SHARE) break;
    width = Math.min(MOST_WIDTH_M, Math.max(LEAST_WIDTH_M, width * takes));
  }
  const runsFast = (bottomWidthM: number): boolean => {
    if (!exit || !cover) return false;
    const { velocityMs, standsMs } = exitFlow({ ...exit, widthM: bottomWidthM }, Q, cover);
    return standsMs !== null && velocityMs !== null && velocityMs > standsMs;
  };
  while (width < MOST_WIDTH_M && runsFast(width)) width *= 1.1;
  return runsFast(width) || pondHeadFor(wide(width), Q) > MOST_OVER * head ? null : Math.min(MOST_WIDTH_M, Math.ceil(10 * width) / 10);
}

/** Water above its control when it passes a flow alone [m]. */
function headFor({ levelM, flowAt }: Outlet, flowM3s: number): number {
  return rootOf((head) => flowAt(levelM + head) - flowM3s);
}

function sectionOf(cut: CutSpillway, place: HostPlace, waterM: number | null): SectionShape {
  const { bottomWidthM: b, sideSlopeHV: z } = cut.dimensions;
  const { sillM } = cut.levels;
  const ground = Math.max(sillM + 0.3, place.groundM ?? sillM + 0.3);
  const top = b / 2 + z * (ground - sillM);
  const parts: SectionShape['parts'] = [
    {
      role: 'cut',
      points: [
        [-top - 1, ground],
        [-top, ground],
        [-b / 2, sillM],
        [b / 2, sillM],
        [top, ground],
        [top + 1, ground],
      ],
    },
  ];
  const h = waterM === null ? 0 : Math.min(ground, waterM) - sillM;
  return {
    title: 'Section across its control',
    parts:
      h > 0
        ? [
            ...parts,
            {
              role: 'water',
              points: [
                [-b / 2 - z * h, sillM + h],
                [b / 2 + z * h, sillM + h],
              ],
            },
          ]
        : parts,
    levels: [{ name: 'control', levelM: sillM }],
  };
}

/** How far below its control the cut is followed until it comes out of the ground [m]. */
const DAYLIGHT_M = 30;

/** Its way in and its control are level; on at that level until it comes out of the ground, its sides through ground and wall alike. */
function builtOf({ levels: { sillM }, dimensions }: CutSpillway, { at: middle }: HostPlace, host: Host): Built {
  const { bottomWidthM: b, sideSlopeHV: z, inletLengthM, controlLengthM } = dimensions;
  const [dx, dy] = host.downhillAt(nearestOnLine(middle, host.line).atM);
  const reachM = Math.max(inletLengthM, controlLengthM + DAYLIGHT_M);
  return {
    box: boxAround([middle], reachM + b / 2),
    levelAt: ([x, y], { madeM }) => {
      const [east, north] = [x - middle[0], y - middle[1]];
      const [onM, asideM] = [east * dx + north * dy, Math.abs(east * dy - north * dx)];
      if (onM > controlLengthM + DAYLIGHT_M) return madeM;
      return Math.min(madeM, sillM + sideUp(Math.max(asideM - b / 2, -inletLengthM - onM), z));
    },
  };
}

function placeCut(cut: CutSpillway, place: HostPlace, host: Host | null): PlacedWork {
  const outlet = outletOf(cut, place);
  const factsOf = (facts: StormFacts): CutFacts => ({ ...facts, cut, place, outlet });
  return {
    host: null,
    stores: () => [],
    outlets: !host ? [] : [outlet],
    figures: (facts, sheet) => figuresOf(cut, factsOf(facts), sheet),
    checks: (facts) => runRules(CUT_RULES, factsOf(facts), cut.id),
    quantities: () => quantitiesOf(cut, place),
    buildSteps: () => stepsOf(cut),
    ...(host ? { built: () => builtOf(cut, place, host) } : {}),
    pegs: () => pegAt(place, { name: 'control', role: 'sill', levelM: cut.levels.sillM }),
    marks: [{ id: `${cut.id}:sill`, work: cut.id, name: cut.name, role: 'sill', levelM: cut.levels.sillM, path: 'levels.sillM' }],
    section: (waterM) => sectionOf(cut, place, waterM),
  };
}

export const cutSpillway: Technique<CutSpillway, HostPlace> = {
  ...cutSpillwayDescriptor,
  formulas: [CUT_CONTROL],
  rules: CUT_RULES,
  begin: (drawn, land) => beginWayOut(drawn, land, { kind: 'cut-spillway', title: 'Cut spillway', work: newCut }),
  measure: (work, site, host) => placeOnHost(work.atM, site, { host, lengthM: work.dimensions.controlLengthM }),
  place: placeCut,
};
