// Vessels: filled from a roof or a line, drawn off by a tap, and run over where somebody said.
import type { Figure, LevelMark, PegDraft, PlacedWork, Technique } from '../../contract/index.ts';
import type { Worksheet } from '../../formula/index.ts';
import { levelAt } from '../../terrain/index.ts';
import { begun, offTerrain } from '../beginning.ts';
import { runRules } from '../rules.ts';
import { TANK_RULES, type TankFacts, brimM3, emptyKgOf, pressureOf } from './checks.ts';
import { FIRST_SIZES, newTank } from './create.ts';
import { tankDescriptor } from './descriptor.ts';
import {
  BAR_NEEDED,
  CONE_VOLUME,
  CRATE_ROOM,
  HOOP_PULL,
  LYING_VOLUME,
  MORTAR_STRESS,
  OVERFLOW_PASSES,
  TANK_FLOATS,
  TANK_PRESSES,
  UPRIGHT_VOLUME,
} from './formulas.ts';
import { handOverOf } from './hand-over.ts';
import { hoursOf, quantitiesOf, stepsOf } from './making.ts';
import { crateParts } from './crates.ts';
import { type Tank, rimHeight } from './model.ts';
import { daysToFull, mortarParts, workMortar } from './mortar.ts';
import { sectionOf } from './section.ts';
import { type TankGround, floorOf, footM2, holdsM3, lostM3, measureTank, overflowPasses, storeOf } from './standing.ts';

export * from './model.ts';
export { newTank } from './create.ts';
export { TANK_RULES } from './checks.ts';
export { holdsM3 } from './standing.ts';

/** The working of its room, its overflow and its weight. */
function workThrough(tank: Tank, sheet: Worksheet): void {
  const { diameterM: d, topM: t, lengthM: L, heightM: H, overflowM: h, overflowPipeM: D } = tank.dimensions;
  if (tank.form === 'upright') sheet.use(UPRIGHT_VOLUME, { d, h });
  if (tank.form === 'lying') sheet.use(LYING_VOLUME, { d, h, L });
  if (tank.form === 'cone') sheet.use(CONE_VOLUME, { d, h, t, H });
  if (tank.made === 'mortar') workMortar(tank, sheet);
  if (tank.made === 'crates') sheet.use(CRATE_ROOM, { V: holdsM3(tank, h), n: tank.crates.voids });
  sheet.use(OVERFLOW_PASSES, { D, H: Math.max(0, rimHeight(tank) - h) });
  const kg = emptyKgOf(tank);
  if (kg !== null) sheet.use(TANK_PRESSES, { V: brimM3(tank), m: kg, A: footM2(tank) });
}

function figuresOf({ tank }: TankFacts, sheet: Worksheet): Figure[] {
  workThrough(tank, sheet);
  const kg = emptyKgOf(tank);
  const { overflowM, tapM } = tank.dimensions;
  const holds = holdsM3(tank, overflowM);
  return [
    { id: 'holdsM3', label: 'Holds to its overflow', value: holds, kind: 'liquid' },
    { id: 'drawnM3', label: 'Of that can be drawn', value: holds - holdsM3(tank, tapM), kind: 'liquid' },
    { id: 'lostM3', label: 'Lost by its low overflow', value: lostM3(tank), kind: 'liquid', sets: 'dimensions.overflowM' },
    { id: 'passesM3s', label: 'Overflow passes, water at the rim', value: tank.count * overflowPasses(tank), kind: 'flow' },
    { id: 'weighsT', label: kg === null ? 'Water in each, to its rim' : 'Each weighs, full', value: brimM3(tank) + (kg === null ? 0 : kg / 1000), kind: 'mass' },
    { id: 'pressesKPa', label: kg === null ? 'Its water presses, kPa' : 'Presses, kPa', value: pressureOf(tank), kind: 'number' },
    { id: 'costPerLitre', label: 'Money for each 1000 L it holds', value: tank.cost === undefined || holds <= 0 ? null : tank.cost / holds, kind: 'number' },
    ...(tank.made === 'mortar'
      ? [
          { id: 'cementKg', label: 'Cement, kg', value: mortarParts(tank).cementKg, kind: 'number' as const },
          { id: 'daysToFull', label: 'Days until it may be full', value: daysToFull(tank), kind: 'days' as const },
        ]
      : []),
    ...(tank.made === 'crates' ? [{ id: 'dugM3', label: 'Room dug for it', value: crateParts(tank).dugM3, kind: 'volume' as const }] : []),
    { id: 'hours', label: 'Hours of one person', value: hoursOf(tank), kind: 'hours' },
  ]; // prettier-ignore
}

function placeTank(tank: Tank, ground: TankGround): PlacedWork {
  const floorM = floorOf(tank, ground);
  const { overflowM } = tank.dimensions;
  const marks: LevelMark[] = [
    { id: `${tank.id}:rim`, work: tank.id, name: 'Rim', role: 'crest', levelM: floorM + rimHeight(tank), path: null },
    { id: `${tank.id}:over`, work: tank.id, name: 'Overflow', role: 'sill', levelM: floorM + overflowM, path: null },
    { id: `${tank.id}:floor`, work: tank.id, name: 'Floor', role: 'floor', levelM: floorM, path: null },
  ];
  return {
    host: null,
    stores: () => [storeOf(tank, ground)],
    outlets: [],
    figures: (facts, sheet) => figuresOf({ ...facts, tank, ground }, sheet),
    checks: (facts) => runRules(TANK_RULES, { ...facts, tank, ground }, tank.id),
    quantities: () => quantitiesOf(tank),
    buildSteps: () => stepsOf(tank, ground),
    handOver: () => handOverOf(tank),
    pegs: () => pegsOf(tank, ground),
    marks,
    section: (waterM) => sectionOf(tank, ground, waterM),
  };
}

function pegsOf(tank: Tank, ground: TankGround): PegDraft[] {
  const [x, y] = tank.at;
  return [{ name: `${tank.name}, floor`, role: 'floor', x, y, levelM: floorOf(tank, ground), groundM: ground.groundM }];
}

const beginTank: Technique<Tank, unknown>['begin'] = ({ how, points }, land) => {
  const [at] = points;
  if (Number.isNaN(levelAt(land.grid, at))) return offTerrain('the tank');
  const { title } = FIRST_SIZES[how] ?? FIRST_SIZES.cistern;
  return begun(newTank(land.idFor('tank'), land.nameFor(title), { how, at }));
};

export const tank: Technique<Tank, TankGround> = {
  ...tankDescriptor,
  formulas: [
    UPRIGHT_VOLUME,
    LYING_VOLUME,
    CONE_VOLUME,
    OVERFLOW_PASSES,
    TANK_PRESSES,
    TANK_FLOATS,
    HOOP_PULL,
    BAR_NEEDED,
    MORTAR_STRESS,
    CRATE_ROOM,
  ],
  rules: TANK_RULES,
  begin: beginTank,
  measure: measureTank,
  place: placeTank,
};
