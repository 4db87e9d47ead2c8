// A hydrograph through one store by its tables: the routing every store is followed by, as a law.
import { defineLaw, together } from '../formula/index.ts';
import { Curve } from './curve.ts';
import { route } from './route.ts';

export const LEVEL_POOL = defineLaw(
  {
    id: 'network.level-pool',
    title: 'Level pool by storage indication',
    statement: '2·S2/Δt + O2 = I1 + I2 + 2·S1/Δt − O1, solved for the level each step',
    symbols: {
      dt: { means: 'length of a step', unit: 's', domain: 'positive' },
      I: { means: 'inflow at the end of each step; none before', unit: 'm³/s', domain: 'nonNegative', many: true },
      h: { means: 'levels of the table, rising', unit: 'm', domain: 'finite', many: true },
      S: { means: 'storage at each', unit: 'm³', domain: 'nonNegative', many: true },
      O: { means: 'outflow at each', unit: 'm³/s', domain: 'nonNegative', many: true },
    },
    result: { symbol: 'O', means: 'outflow at the end of each step', unit: 'm³/s' },
    source: { key: 'chow-1988', locator: 'section 8.2', fromMemory: true },
    limits: 'It begins at the lowest level; above the highest the tables go straight on.',
  },
  ({ dt, I, h, S, O }) => {
    const id = 'network.level-pool';
    together(id, h, S, O);
    if (h.length < 2) throw new RangeError(`${id}: h must have at least two levels, got ${h.length}`);
    for (const [name, list] of Object.entries({ h, S }))
      if (list.some((v, k) => k > 0 && v <= list[k - 1])) throw new RangeError(`${id}: ${name} must rise from each level to the next`);
    const [levelM, volumeM3] = [Float64Array.from(h), Float64Array.from(S, (v) => v - S[0])];
    const flow = new Curve(levelM, Float64Array.from(O));
    const store = {
      id: 'store',
      stage: { levelM, volumeM3, wettedM2: new Float64Array(h.length) },
      inflow: I,
      outlets: [{ id: 'out', to: 'ground', lagS: 0, flowAt: (level: number) => flow.at(level) }],
    };
    const run = route({ stores: [store], stepS: dt, steps: I.length }).stores.get('store');
    return Array.from(run?.outM3s ?? []).slice(1);
  },
);
