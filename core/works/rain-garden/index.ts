// Rain gardens: they take in what roofs, yards and slopes shed, hold it for a day, and hand on what is too much.
import type { Figure, LevelMark, PegDraft, PlacedWork, Technique } from '../../contract/index.ts';
import type { Worksheet } from '../../formula/index.ts';
import { hourFigures, hoursWorked, litresAnHour } from '../labour.ts';
import { runRules } from '../rules.ts';
import { gardenBuilt } from './built.ts';
import { beginGarden } from './begin.ts';
import { GARDEN_RULES, rateOf } from './checks.ts';
import { rainGardenDescriptor } from './descriptor.ts';
import { GARDEN_AREA, GARDEN_FACTOR, SOAK_DEPTH } from './formulas.ts';
import { partsOf, quantitiesOf, stepsOf } from './making.ts';
import type { RainGarden } from './model.ts';
import { sectionOf } from './section.ts';
import { type Basin, type GardenFacts, type GardenGround, basinsOf, heldBy, measureGarden, storesOf } from './standing.ts';
import { suitsGarden } from './suits.ts';

export * from './model.ts';
export { GARDEN_RULES } from './checks.ts';
export { across as acrossBasin } from './descriptor.ts';

/** A day [h]. */
const DAY_H = 24;

function figuresOf(facts: GardenFacts, sheet: Worksheet): Figure[] {
  const { work, basins, runoff } = facts;
  const parts = partsOf(work, basins);
  const { pondM: d, voids: n, mediaM: m } = work.dimensions;
  const held = basins.reduce((a, b) => a + heldBy(work, b, b.overflowM).volumeM3, 0);
  const rate = rateOf(facts);
  const needs = runoff && sheet.use(GARDEN_AREA, { V: runoff.volumeM3, d, n, m });
  return [
    { id: 'basins', label: 'Basins', value: basins.length, kind: 'count' },
    { id: 'areaM2', label: 'Of water, together', value: parts.areaM2, kind: 'area' },
    { id: 'areaNeededM2', label: 'To hold all this storm brings', value: needs, kind: 'area' },
    { id: 'openM3', label: 'Hold, soil and all', value: held, kind: 'volume' },
    {
      id: 'deepM',
      label: 'Deep enough to be gone in a day',
      value: rate === null ? null : sheet.use(SOAK_DEPTH, { f: rate, t: DAY_H }),
      kind: 'difference',
    },
    { id: 'dugM3', label: 'To dig', value: parts.dugM3, kind: 'volume' },
    ...hourFigures(work.labour, parts.hours),
    {
      id: 'litresAnHour',
      label: 'Litres held for each hour, a fill',
      value: litresAnHour(held, hoursWorked(work.labour, parts.hours)),
      kind: 'number',
    },
  ];
}

function pegsOf(work: RainGarden, basins: readonly Basin[]): PegDraft[] {
  return basins.flatMap((b): PegDraft[] => {
    const [[ax, ay], [bx, by]] = b.across;
    const toward = Math.max(1e-9, Math.hypot(b.lets[0] - b.at[0], b.lets[1] - b.at[1]));
    const edge = (share: number): number => (b.radiusM * share) / toward;
    return [
      { name: `${b.name}, floor`, role: 'floor', x: b.at[0], y: b.at[1], levelM: b.floorM, groundM: b.groundM },
      {
        name: `${b.name}, overflow`,
        role: 'sill',
        x: b.at[0] + (b.lets[0] - b.at[0]) * edge(1),
        y: b.at[1] + (b.lets[1] - b.at[1]) * edge(1),
        levelM: b.overflowM,
        groundM: b.edgeM,
      },
      { name: `${b.name}, bank`, role: 'crest', x: ax, y: ay, levelM: b.overflowM + work.dimensions.bermM, groundM: null },
      { name: `${b.name}, bank`, role: 'crest', x: bx, y: by, levelM: b.overflowM + work.dimensions.bermM, groundM: null },
    ];
  });
}

const marksOf = (work: RainGarden, basins: readonly Basin[]): LevelMark[] => {
  const mark = (k: number, name: string): LevelMark => ({
    id: `${basins[k].store}:overflow`,
    work: work.id,
    name,
    role: 'sill',
    levelM: basins[k].overflowM,
    path: `basins.${k}.overflowM`,
  });
  return basins.length > 1 ? [mark(0, 'First overflow'), mark(basins.length - 1, 'Last overflow')] : [mark(0, 'Overflow')];
};

function placeGarden(work: RainGarden, ground: GardenGround): PlacedWork {
  const basins = basinsOf(work, ground);
  return {
    host: null,
    stores: () => storesOf(work, basins),
    outlets: [],
    figures: (facts, sheet) => figuresOf({ ...facts, work, basins, endFall: ground.endFall }, sheet),
    checks: (facts) => runRules(GARDEN_RULES, { ...facts, work, basins, endFall: ground.endFall }, work.id),
    built: () => gardenBuilt(work, basins),
    quantities: () => quantitiesOf(work, basins),
    buildSteps: () => stepsOf(work, basins),
    pegs: () => pegsOf(work, basins),
    marks: marksOf(work, basins),
    section: () => sectionOf(work, basins, ground),
    beds: (store) => {
      const basin = basins.find((b) => b.store === store);
      return basin ? { line: basin.across, dugM: Math.max(0, basin.groundM - basin.floorM) } : null;
    },
  };
}

export const rainGarden: Technique<RainGarden, GardenGround> = {
  ...rainGardenDescriptor,
  formulas: [GARDEN_AREA, SOAK_DEPTH, GARDEN_FACTOR],
  rules: GARDEN_RULES,
  suits: suitsGarden,
  begin: beginGarden,
  measure: measureGarden,
  place: placeGarden,
};
