// Rain gardens: what they are, without what works them out.
import type { Descriptor } from '../../contract/index.ts';
import type { Line } from '../../geometry/index.ts';
import { GARDEN_DRAWS, GARDEN_SAMPLE } from './create.ts';
import { storeIdOf } from '../series.ts';
import { GARDEN_CHOICES, GARDEN_FIELDS, type RainGarden, radiusOf, validateGarden } from './model.ts';

/** Across a basin, square to the way from it to the next. */
export function across({ line, basins }: Pick<RainGarden, 'line' | 'basins'>, k: number): Line {
  const [[ax, ay], [bx, by]] = [line[k], line[k + 1]];
  const length = Math.max(1e-9, Math.hypot(bx - ax, by - ay));
  const r = radiusOf(basins[k]);
  const [nx, ny] = [(-(by - ay) / length) * r, ((bx - ax) / length) * r];
  return [
    [ax - nx, ay - ny],
    [ax + nx, ay + ny],
  ];
}

export const rainGardenDescriptor: Descriptor<RainGarden> = {
  kind: 'rain-garden',
  title: 'Rain garden',
  family: 'store',
  sample: GARDEN_SAMPLE,
  fields: GARDEN_FIELDS,
  choices: GARDEN_CHOICES,
  validate: validateGarden,
  traits: () => ({ retains: 'none', canBlock: false, isConduit: false, canSilt: true, isCut: false, joinable: false, wayOut: null }),
  refs: () => [],
  draws: GARDEN_DRAWS,
  footprint: (work) => [work.line],
  intakes: (work) => work.basins.map((_, k) => ({ store: storeIdOf(work.id, k), line: across(work, k) })),
  groundKey: ({ line, basins }) => [line, basins.map((b) => b.areaM2)],
};
