// A tank of mortar over mesh and bar: what its wall takes, what it is made of, and how long it takes to set.
import type { BuildStep, QuantityLine, Rule } from '../../contract/index.ts';
import type { Worksheet } from '../../formula/index.ts';
import { type Amount, amount, say } from '../../units/index.ts';
import { BEFORE_DIGGING, type Draft, counted, inOrder, line, standingIn } from '../making.ts';
import { COMMON_PRACTICE, gradeMax, gradeMin } from '../rules.ts';
import { BAR_NEEDED, HOOP_PULL, MORTAR_STRESS } from './formulas.ts';
import { type Tank, rimHeight } from './model.ts';
import { type TankFacts, type TankGround, floorOf, holdsM3 } from './standing.ts';

export const isMortar = ({ tank }: Pick<TankFacts, 'tank'>): boolean => tank.made === 'mortar';

/** Pull of mild wire and bar that is allowed [MPa], mortar set and concrete in the slab [kg/m3], and cement in a m3 of that: common practice. */
const [STEEL_MPA, MORTAR_KG, SLAB_CEMENT_KG, SLAB_SAND, SLAB_STONE] = [140, 2200, 300, 2, 4];
/** Water to one of cement, what is spilled and trimmed, and what mesh and bar lap. */
const [WATER, SPILLED, LAPS] = [0.45, 1.1, 1.15];
/** Slab past the wall, a dome's rise over its width, its thickness, and that of a slab roof [m]. */
const [PAST_M, DOME_RISE, DOME_M, ROOF_M] = [0.15, 0.2, 0.04, 0.08];
const BAG_KG = 50;
const STEEL_KG_M3 = 7850;

const outsideM = ({ dimensions, mortar }: Tank): number => dimensions.diameterM + 2 * mortar.wallM;
const slabM2 = (tank: Tank): number => (Math.PI * (outsideM(tank) + 2 * PAST_M) ** 2) / 4;

/** Top of one tank from above, and the mortar or concrete in it [m2, m3]. */
function topOf(tank: Tank): { readonly m2: number; readonly m3: number } {
  const r = outsideM(tank) / 2;
  if (tank.lid === 'open') return { m2: 0, m3: 0 };
  if (tank.mortar.top === 'slab') return { m2: Math.PI * r * r, m3: Math.PI * r * r * ROOF_M };
  const m2 = Math.PI * (r * r + (2 * r * DOME_RISE) ** 2);
  return { m2, m3: m2 * DOME_M };
}

export interface MortarParts {
  readonly wallM3: number;
  readonly slabM3: number;
  readonly topM3: number;
  readonly cementKg: number;
  readonly sandKg: number;
  readonly stoneKg: number;
  readonly meshM2: number;
  readonly barM: number;
  readonly barKg: number;
}

/** What all of them take. */
export function mortarParts(tank: Tank): MortarParts {
  const { count, mortar, dimensions } = tank;
  const { diameterM: d, heightM: h } = dimensions;
  const wallM3 = count * Math.PI * (d + mortar.wallM) * mortar.wallM * h;
  const slabM3 = count * slabM2(tank) * mortar.baseM;
  const top = topOf(tank);
  const topM3 = count * top.m3;
  const set = (wallM3 + topM3) * SPILLED;
  const cement = (set * MORTAR_KG) / (1 + mortar.sand + WATER);
  const slab = slabM3 * SPILLED * SLAB_CEMENT_KG;
  // Hoops stand half as close at the top: three quarters as many as all close; uprights every 0.2 m, bent into the slab.
  const hoops = Math.ceil((0.75 * h) / mortar.barApartM) + 1;
  const uprights = Math.ceil((Math.PI * d) / 0.2);
  const barM = count * LAPS * (hoops * Math.PI * d + uprights * (h + 0.5) + 2 * Math.ceil(d / 0.2) * d);
  return {
    wallM3,
    slabM3,
    topM3,
    cementKg: cement + slab,
    sandKg: cement * mortar.sand + slab * SLAB_SAND,
    stoneKg: slab * SLAB_STONE,
    meshM2: count * LAPS * (mortar.meshLayers * Math.PI * d * (h + 0.5) + 2 * top.m2),
    barM,
    barKg: (barM * STEEL_KG_M3 * Math.PI * mortar.barM ** 2) / 4,
  };
}

/** What one of them weighs empty [kg]. */
export function mortarKg(tank: Tank): number {
  const { wallM3, slabM3, topM3 } = mortarParts(tank);
  return ((wallM3 + topM3 + slabM3) * MORTAR_KG) / tank.count;
}

const BAR_LABEL = 'Wire and bar';
export function mortarLines(tank: Tank): QuantityLine[] {
  const p = mortarParts(tank);
  const { coats } = tank.mortar;
  return [
    line({ item: 'mortar', label: 'Mortar in walls', kind: 'volume', from: 'round its middle, by thickness and height' }, p.wallM3, 'made'),
    line({ item: 'mortar-coat', label: 'Of that in each coat', kind: 'volume', from: 'coats alike' }, p.wallM3 / coats, 'made'),
    line({ item: 'mortar-top', label: 'In domes or roofs', kind: 'volume', from: 'a cap a fifth as high as wide, or a slab' }, p.topM3, 'made'),
    line({ item: 'concrete', label: 'Concrete in slabs', kind: 'volume', from: '0.15 m past the wall all round' }, p.slabM3, 'made'),
    counted({ item: 'cement', label: 'Bags of cement, 50 kg', from: 'mortar by its sand, slab 1:2:4, a tenth spilled' }, Math.ceil(p.cementKg / BAG_KG)),
    line({ item: 'sand', label: 'Sand', kind: 'mass', from: 'to one of cement, and two in the slab' }, p.sandKg / 1000, 'stone'),
    line({ item: 'stone-slab', label: 'Stone for the slab', kind: 'mass', from: 'four to one of cement' }, p.stoneKg / 1000, 'stone'),
    line({ item: 'netting', label: 'Netting', kind: 'area', from: 'layers round it and two over its top, lapped' }, p.meshM2, 'made'),
    line({ item: 'bar', label: BAR_LABEL, kind: 'length', from: 'hoops, uprights and a grid in the slab, lapped' }, p.barM, 'made'),
    line({ item: 'bar-weight', label: `${BAR_LABEL}, weighs`, kind: 'mass', from: 'its length and thickness' }, p.barKg / 1000, 'made'),
    line({ item: 'form', label: 'Form inside', kind: 'area', from: 'round its inside, once for all of them' }, Math.PI * tank.dimensions.diameterM * tank.dimensions.heightM, 'made'),
  ]; // prettier-ignore
}

/** Days from the first to when it may be full: slab, cage, coats, top, setting; then a quarter a day. */
const [SLAB_DAYS, CAGE_DAYS, TOP_DAYS, FILL_DAYS] = [2, 2, 2, 4];
export const daysToFull = ({ mortar, lid }: Pick<Tank, 'mortar' | 'lid'>): number =>
  SLAB_DAYS + CAGE_DAYS + mortar.coats + (lid === 'open' ? 0 : TOP_DAYS) + mortar.cureDays + FILL_DAYS;

/** Days, counted from the first of work, on which its setting begins and its filling. */
export const wetFromDay = ({ mortar, lid }: Pick<Tank, 'mortar' | 'lid'>): number =>
  SLAB_DAYS + CAGE_DAYS + 1 + mortar.coats + (lid === 'open' ? 0 : TOP_DAYS);
export const fillDay = (tank: Pick<Tank, 'mortar' | 'lid'>): number => wetFromDay(tank) + tank.mortar.cureDays;

const BURNS = 'Wet cement burns: gloves, boots and glasses, and water at hand to wash it off.';

export function mortarSteps(tank: Tank, ground: TankGround): BuildStep[] {
  const { mortar, dimensions, lid } = tank;
  const floorM = floorOf(tank, ground);
  const dug = Math.max(0, -dimensions.standM);
  const cageDay = SLAB_DAYS + 1;
  const coatDay = cageDay + CAGE_DAYS;
  const topDay = coatDay + mortar.coats;
  const [wetDay, fillsOn] = [wetFromDay(tank), fillDay(tank)];
  const top: readonly Draft[] = lid === 'open' ? [] : [{
    id: 'top',
    does: say`Day ${String(topDay)}: ${mortar.top === 'dome' ? 'set the form of the dome, two layers of netting, and plaster it from the rim up, a hatch left' : 'shutter and pour the slab, a hatch left'}.`,
    cautions: ['Nobody stands under a form that is being struck, nor on a dome before its seventh day.'],
  }];
  return inOrder(
    { id: 'slab', does: say`Day 1: ${dug > 0 ? say`dig ${amount(dug, 'length')} deep and ` : ''}pour the slab, ${amount(mortar.baseM, 'difference')} thick on packed gravel, the uprights bent into it.`, levels: [{ name: 'floor', levelM: floorM }], cautions: [...(dug > 0 ? [BEFORE_DIGGING, ...standingIn(dug)] : []), BURNS], hold: 'It is level both ways, and kept wet from the first evening.' },
    { id: 'cage', does: say`Day ${String(cageDay)}: tie hoops of ${amount(mortar.barM, 'difference')} every ${amount(mortar.barApartM, 'difference')} at its foot, twice as far at its top, ${String(mortar.meshLayers)} layers of netting, and the pipes through it.`, hold: 'Nothing of the cage gives a finger’s breadth when it is leant on; every pipe stands where it should.' },
    { id: 'coats', does: say`Day ${String(coatDay)} on: ${String(mortar.coats)} coats, one a day, one of cement to ${String(mortar.sand)} of sand, scratched for the next; inside last, with a slurry of cement.`, levels: [{ name: 'overflow', levelM: floorM + dimensions.overflowM }, { name: 'rim', levelM: floorM + rimHeight(tank) }], cautions: [BURNS], hold: 'Mortar is used within the half hour; no steel shows.' },
    ...top,
    { id: 'wet', does: say`Day ${String(wetDay)} to ${String(fillsOn)}: keep it wet under sacks, morning and evening, with a hand of water inside.`, hold: 'No pale, dry place and no crack wider than a hair.' },
    { id: 'fill', does: say`Day ${String(fillsOn)} on: fill a quarter a day, and mark the level each evening.`, hold: 'It falls by no more than dries off; damp places are plastered over.', cautions: ['Nobody climbs into a tank alone: its air may kill.'] },
    { id: 'hand-over', does: 'Leave the sheet at the house (hand it over, below): who keeps it wet until when, when it may be filled, how the screens are cleaned, whom to ask.' },
  );
} // prettier-ignore

/** The pull at its foot by the highest water, and the steel and mortar it is held by. */
function pullOf(tank: Tank): { readonly pullKn: number; readonly needMm2: number; readonly haveMm2: number; readonly stressMpa: number } {
  const { mortar, dimensions } = tank;
  const pullKn = HOOP_PULL.evaluate({ h: dimensions.overflowM, r: dimensions.diameterM / 2 });
  return {
    pullKn,
    needMm2: BAR_NEEDED.evaluate({ T: pullKn, fs: STEEL_MPA }),
    haveMm2: (Math.PI * (mortar.barM * 1000) ** 2) / 4 / mortar.barApartM,
    stressMpa: MORTAR_STRESS.evaluate({ T: pullKn, t: mortar.wallM * 1000 }),
  };
}

/** The working of its wall. */
export function workMortar(tank: Tank, sheet: Worksheet): void {
  const T = sheet.use(HOOP_PULL, { h: tank.dimensions.overflowM, r: tank.dimensions.diameterM / 2 });
  sheet.use(BAR_NEEDED, { T, fs: STEEL_MPA });
  sheet.use(MORTAR_STRESS, { T, t: tank.mortar.wallM * 1000 });
}

const millimetres = (v: number): Amount => amount(v, 'difference');
const own = (card: Omit<Rule<TankFacts>, 'applies'>): Rule<TankFacts> => ({ ...card, applies: isMortar });

const steel = own({
  id: 'tank.hoop-steel',
  title: 'Steel round its foot against the pull of the water',
  why: 'Water pulls a round wall apart, most at its foot: mortar cracks, and steel holds.',
  unit: 'ratio',
  kind: 'number',
  sense: 'min',
  source: { key: 'common-practice', locator: 'T = γhr, wire and bar at 140 MPa; a quarter to spare' },
  find: ({ tank }) => {
    const { needMm2, haveMm2 } = pullOf(tank);
    const value = haveMm2 / needMm2;
    const apart = (tank.mortar.barApartM * value) / 1.25;
    return {
      value,
      limit: 1.25,
      severity: gradeMin(value, 1, 1.25),
      do: value < 1.25 ? say`Tie the hoops every ${millimetres(apart)} at its foot, or take thicker wire.` : 'Nothing.',
    };
  },
});
const stress = own({
  id: 'tank.mortar-stress',
  title: 'Pull in the mortar',
  why: 'Mortar that is pulled too far cracks from top to bottom, steel or not.',
  unit: 'MPa',
  kind: 'number',
  sense: 'max',
  source: { key: 'common-practice', locator: 'about 1 MPa' },
  find: ({ tank }) => {
    const value = pullOf(tank).stressMpa;
    return { value, limit: 1, severity: gradeMax(value, 1, 1.6), do: value > 1 ? 'Make the wall thicker, or the tank lower or narrower.' : 'Nothing.' };
  },
}); // prettier-ignore
/** A tank so large wants a thicker wall [m3]. */
const LARGE_M3 = 10;
const wall = own({
  id: 'tank.wall',
  title: 'Thickness of its wall',
  why: 'A wall thinner than its netting and cover lets the steel rust, one much thicker only costs cement.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: '30 mm, 50 mm over 10 m³; villages build 75 to 100' },
  find: ({ tank }) => {
    const value = tank.mortar.wallM;
    const limit = holdsM3(tank, rimHeight(tank)) / tank.count > LARGE_M3 ? 0.05 : 0.04;
    return { value, limit, severity: gradeMin(value, 0.03, limit), do: value < limit ? say`Make it ${millimetres(limit)}.` : 'Nothing.' };
  },
});
const mix = own({
  id: 'tank.mix',
  title: 'Sand to one of cement',
  why: 'A lean mix sweats and never stops.',
  unit: 'ratio',
  kind: 'number',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: '2 to 3 by weight, as little water as it can be plastered with' },
  find: ({ tank }) => {
    const { sand: value } = tank.mortar;
    return { value, limit: 3, severity: gradeMax(value, 3, 3.5), do: value > 3 ? 'Take less sand: three to one of cement.' : 'Nothing.' };
  },
});
const cure = own({
  id: 'tank.cure',
  title: 'Days it is kept wet',
  why: 'Mortar that dries in its first week has half of its strength for good: most of it is left to whoever lives there.',
  unit: 'days',
  kind: 'days',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: '14 days, 7 at the least' },
  find: ({ tank }) => {
    const value = tank.mortar.cureDays;
    return { value, limit: 14, severity: gradeMin(value, 7, 14), do: value < 14 ? 'Keep it wet for 14 days under sacks, and say on the sheet who does.' : 'Nothing.' };
  },
}); // prettier-ignore
const tall = own({
  id: 'tank.unlicensed',
  title: 'Height of water in a wall built without an engineer',
  why: 'The pull grows with height and width alike; a burst tank throws down a house wall.',
  unit: 'm',
  kind: 'length',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: '2 m; local codes first' },
  find: ({ tank }) => {
    const value = tank.dimensions.overflowM;
    return { value, limit: 2, severity: gradeMax(value, 2, 2.5), do: value > 2 ? 'Build it lower and wider, or have an engineer design it.' : 'Nothing.' };
  },
}); // prettier-ignore
const coats = own({
  id: 'tank.coats',
  title: 'Thickness of a coat',
  why: 'A thick coat slides off the cage and hides holes behind it.',
  unit: 'm',
  kind: 'difference',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: '10 to 20 mm' },
  find: ({ tank }) => {
    const value = tank.mortar.wallM / tank.mortar.coats;
    return { value, limit: 0.02, severity: gradeMax(value, 0.02, 0.03), do: value > 0.02 ? 'Plaster it in more coats, each left to set a day.' : 'Nothing.' };
  },
}); // prettier-ignore
const sunkTap = own({
  id: 'tank.sunk-tap',
  title: 'Water drawn from a sunken tank',
  why: 'A tap under the ground needs a pit that fills and drowns; a buried tank needs a pump.',
  unit: 'm',
  kind: 'length',
  sense: 'min',
  source: COMMON_PRACTICE,
  find: ({ tank }) => {
    if (tank.draws !== 'tap' || tank.dimensions.standM >= 0) return null;
    const value = tank.dimensions.standM + tank.dimensions.tapM;
    return { value, limit: 0.15, severity: gradeMin(value, 0, 0.15), do: value < 0.15 ? 'Draw by a hand pump or a bucket through the hatch, or build it higher.' : 'Nothing.' };
  },
}); // prettier-ignore

export const MORTAR_RULES: readonly Rule<TankFacts>[] = [tall, steel, stress, wall, coats, mix, cure, sunkTap];
