import { defineFormula } from '../formula/index.ts';

export const SOIL_ROOM = defineFormula(
  {
    id: 'ground.soil-room',
    title: 'Water the soil has room for',
    statement: 'w = 1000 · p · (D − c), nothing where the floor is as deep',
    symbols: {
      p: { means: 'share of the soil that drains by its own weight', unit: '', domain: 'nonNegative', range: [0.05, 0.4] },
      D: { means: 'depth of soil to rock, a tight layer or water', unit: 'm', domain: 'nonNegative' },
      c: { means: 'depth of the floor under the ground', unit: 'm', domain: 'nonNegative' },
    },
    result: { symbol: 'w', means: 'depth of water that fills it', unit: 'mm' },
    source: { key: 'rawls-1982', locator: 'Table 2: porosity less water held at 33 kPa', fromMemory: true },
    limits:
      'Where no texture is told, the usual one of the soil group stands in. Water that moves on sideways through the soil makes more room; it is not counted.',
  },
  ({ p, D, c }) => 1000 * p * Math.max(0, D - c),
);
