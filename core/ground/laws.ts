// Classes of soil by numbers.
import { defineLaw } from '../formula/index.ts';
import { groupByRate } from './groups.ts';
import { sharesProblem, textureByShares } from './texture.ts';

const share = { means: 'share of the fine earth by weight', unit: '%', domain: 'nonNegative' } as const;

export const TEXTURE_CLASS = defineLaw(
  {
    id: 'ground.texture-class',
    title: 'Texture class of sand, silt and clay',
    statement: 'the triangle of twelve classes',
    symbols: { sand: share, silt: share, clay: share },
    result: { symbol: 'class', means: 'texture class', unit: '' },
    source: { key: 'soil-survey', locator: 'texture triangle', fromMemory: true },
  },
  (shares) => {
    const problem = sharesProblem(shares);
    if (problem) throw new RangeError(`ground.texture-class: ${problem}`);
    return textureByShares(shares);
  },
);

export const SOIL_GROUP = defineLaw(
  {
    id: 'ground.soil-group',
    title: 'Hydrologic soil group by rate and depth',
    statement:
      'the least rate of the soil against 36, 14.4 and 1.44 mm/h; four times, two and a half and two and a half of it where the soil is 0.5 to 1 m deep; D where it is less',
    symbols: {
      K: { means: 'saturated conductivity of the tightest layer', unit: 'mm/h', domain: 'nonNegative' },
      D: { means: 'depth to rock or a tight layer', unit: 'm', domain: 'nonNegative' },
      W: { means: 'depth to water in the wet season; ten metres where it is far', unit: 'm', domain: 'nonNegative' },
    },
    result: { symbol: 'group', means: 'soil group, undrained', unit: '' },
    source: { key: 'neh630-7', locator: 'Table 7-1', fromMemory: true },
  },
  ({ K, D, W }) => groupByRate({ rateMmPerHour: K, depthM: D, waterM: W }).group,
);
