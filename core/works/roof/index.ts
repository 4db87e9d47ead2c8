// A roof that is caught: rain on its plane from above runs along a gutter and down to a tank, a garden or the ground.
import type { Drawn, Figure, Land, LevelMark, PegDraft, PlacedWork, Technique } from '../../contract/index.ts';
import type { Worksheet } from '../../formula/index.ts';
import { type Line, contains } from '../../geometry/index.ts';
import { ROOF_YIELD } from '../../hydraulics/index.ts';
import { FIRST_FLUSH } from '../../season/index.ts';
import { begun, groundUnder, offTerrain } from '../beginning.ts';
import { runRules } from '../rules.ts';
import { RISK, ROOF_RULES, type RoofFacts, neededFlow } from './checks.ts';
import { newRoof, newSheet } from './create.ts';
import { roofDescriptor } from './descriptor.ts';
import { BOX_GUTTER, GUTTER_OUTLET, ROOF_FLOW, ROOF_IN_WIND } from './formulas.ts';
import { flushM3, hoursOf, quantitiesOf, stepsOf } from './making.ts';
import { COVERING_SHARE, type Roof, areaOf } from './model.ts';
import { sectionOf } from './section.ts';
import { type RoofGround, downFlow, gutterFlow, gutterLevels, gutterOf, measureRoof, storeOf } from './standing.ts';

export * from './model.ts';
export { newRoof } from './create.ts';
export { ROOF_RULES } from './checks.ts';

/** A rain everybody knows the look of, for what a roof brings of it [mm]. */
const A_RAIN_MM = 25;

function figuresOf(facts: RoofFacts, sheet: Worksheet): Figure[] {
  const { roof, burstMmPerHour } = facts;
  const P = areaOf(roof);
  const A = sheet.use(ROOF_IN_WIND, { P, H: roof.dimensions.riseM, W: roof.dimensions.gutterLengthM });
  if (burstMmPerHour !== undefined && burstMmPerHour !== null) sheet.use(ROOF_FLOW, { i: burstMmPerHour, A, k: RISK[roof.risk] });
  sheet.use(FIRST_FLUSH, { A: P, f: roof.dimensions.firstFlushMm });
  const hasGutter = roof.gutter !== 'none';
  if (hasGutter) sheet.use(GUTTER_OUTLET, { D: roof.dimensions.downpipeM * 1000, h: gutterOf(roof).deepM * 1000 });
  const { downpipes } = roof.dimensions;
  return [
    { id: 'areaM2', label: 'Roof, from above', value: P, kind: 'area' },
    { id: 'windM2', label: 'As driven rain meets it', value: A, kind: 'area' },
    { id: 'rainM3', label: 'A rain of 25 mm brings', value: sheet.use(ROOF_YIELD, { C: COVERING_SHARE[roof.covering], P: A_RAIN_MM, A: P }), kind: 'liquid' },
    { id: 'flushM3', label: 'Let go first, each time', value: flushM3(roof), kind: 'liquid' },
    { id: 'burst', label: 'Five minutes of it', value: burstMmPerHour ?? null, kind: 'intensity' },
    { id: 'neededM3s', label: 'It sends then', value: neededFlow(facts), kind: 'flow' },
    { id: 'gutterM3s', label: 'Its gutters carry', value: hasGutter ? gutterFlow(roof) * downpipes : null, kind: 'flow' },
    { id: 'downM3s', label: 'Its outlets let down, the gutter full', value: hasGutter ? downpipes * downFlow(roof, gutterOf(roof).deepM) : null, kind: 'flow' },
    { id: 'hours', label: 'Hours of one person', value: hoursOf(roof), kind: 'hours' },
  ]; // prettier-ignore
}

function placeRoof(roof: Roof, ground: RoofGround): PlacedWork {
  const levels = gutterLevels(roof, ground);
  const marks: LevelMark[] = [{ id: `${roof.id}:rim`, work: roof.id, name: 'Gutter rim', role: 'crest', levelM: levels.rimM, path: null }];
  return {
    host: null,
    stores: () => [storeOf(roof, ground)],
    outlets: [],
    figures: (facts, sheet) => figuresOf({ ...facts, roof, ground }, sheet),
    checks: (facts) => runRules(ROOF_RULES, { ...facts, roof, ground }, roof.id),
    quantities: () => quantitiesOf(roof),
    buildSteps: () => stepsOf(roof, levels),
    pegs: () => pegsOf(roof, ground, levels.rimM),
    marks,
    section: (waterM) => sectionOf(roof, ground, waterM),
  };
}

const pegsOf = (roof: Roof, { lets: [x, y], groundM }: RoofGround, rimM: number): PegDraft[] => [
  { name: `${roof.name}, gutter rim`, role: 'crest', x, y, levelM: rimM, groundM },
];

/** The edge that was meant: as it was drawn, or of the building that was clicked. */
const edgeOf = ({ how, points }: Drawn, { buildings = [] }: Land): Line | undefined =>
  how === 'roof-of-building' ? buildings.find((ring) => contains(ring, points[0])) : points;

const beginRoof: Technique<Roof, unknown>['begin'] = (drawn, land) => {
  const ring = edgeOf(drawn, land);
  if (!ring) {
    return {
      ok: false,
      problem: {
        code: 'roof.building',
        what: 'no building is drawn at that place',
        field: 'ring',
        do: 'Click into a building that is drawn, or draw the edge of the roof.',
      },
    };
  }
  if (!groundUnder([...ring, ring[0]], land)) return offTerrain('the roof');
  const [id, name] = [land.idFor('roof'), land.nameFor('Roof')];
  return begun(drawn.how === 'sheet-on-blocks' ? newSheet(id, name, ring) : newRoof(id, name, { ring }));
};

export const roof: Technique<Roof, RoofGround> = {
  ...roofDescriptor,
  formulas: [ROOF_IN_WIND, ROOF_FLOW, GUTTER_OUTLET, BOX_GUTTER, FIRST_FLUSH],
  rules: ROOF_RULES,
  begin: beginRoof,
  measure: measureRoof,
  place: placeRoof,
};
