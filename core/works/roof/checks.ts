import { NEEDS_STORM, type Rule } from '../../contract/index.ts';
import { type Amount, amount, say } from '../../units/index.ts';
import { COMMON_PRACTICE, gradeMax, gradeMin, metres } from '../rules.ts';
import { LET_GO } from '../exit.ts';
import { FINE, saidRule } from '../said-rule.ts';
import { nearestFeature } from '../setbacks.ts';
import { ROOF_FLOW, ROOF_IN_WIND } from './formulas.ts';
import { type Roof, areaOf } from './model.ts';
import { type RoofFacts, downFlow, gutterFlow, gutterOf } from './standing.ts';

export type { RoofFacts } from './standing.ts';

const hasGutter = ({ roof }: RoofFacts): boolean => roof.gutter !== 'none';

/** How much surer than usual it must be, by what an overflow does (EN 12056-3 Table 2, from memory). */
export const RISK: Readonly<Record<Roof['risk'], number>> = { eaves: 1, door: 1.5, inside: 2, never: 3 };

/** Flow its gutters must carry in a burst of five minutes [m3/s]; null while the rain is not known. */
export function neededFlow({ roof, burstMmPerHour }: Pick<RoofFacts, 'roof' | 'burstMmPerHour'>): number | null {
  if (burstMmPerHour === undefined || burstMmPerHour === null) return null;
  const A = ROOF_IN_WIND.evaluate({ P: areaOf(roof), H: roof.dimensions.riseM, W: roof.dimensions.gutterLengthM });
  return ROOF_FLOW.evaluate({ i: burstMmPerHour, A, k: RISK[roof.risk] }) / 1000;
}

const litres = (m3s: number): Amount => amount(m3s, 'flow');

/** A rule on a part that must carry the burst: what it carries over what comes. */
const carries = (
  card: Pick<Rule<RoofFacts>, 'id' | 'title' | 'why' | 'source'>,
  on: { readonly flow: (facts: RoofFacts) => number; readonly mendBelow: number; readonly do: string },
): Rule<RoofFacts> => ({
  ...card,
  unit: 'ratio',
  kind: 'number',
  sense: 'min',
  needs: ['rain'],
  applies: hasGutter,
  find: (facts) => {
    const needed = neededFlow(facts);
    if (needed === null) return null;
    const flow = on.flow(facts);
    const value = needed > 0 ? flow / needed : Infinity;
    if (!Number.isFinite(value)) return null;
    return {
      value,
      limit: 1,
      severity: gradeMin(value, on.mendBelow, 1),
      do: value < 1 ? say`It carries ${litres(flow)} of the ${litres(needed)} that come in five minutes. ${on.do}` : 'Nothing.',
    };
  },
});

const gutter = carries(
  {
    id: 'roof.gutter',
    title: 'Gutter against a burst of rain',
    why: 'What a gutter does not carry falls at the wall, and never sees the tank.',
    source: { key: 'en12056-3', locator: 'eaves gutters, with their risk factor', fromMemory: true },
  },
  { flow: ({ roof }) => gutterFlow(roof) * roof.dimensions.downpipes, mendBelow: 0.7, do: 'Add a downpipe, or hang a wider gutter.' },
);
const outlets = carries(
  {
    id: 'roof.outlets',
    title: 'Outlets and downpipes against a burst',
    why: 'A wide gutter over a narrow outlet runs over all the same.',
    source: { key: 'en12056-3', locator: 'outlets in gutters; upright pipes a third full', fromMemory: true },
  },
  {
    flow: ({ roof }) => roof.dimensions.downpipes * downFlow(roof, gutterOf(roof).deepM),
    mendBelow: 0.7,
    do: 'Add a downpipe, widen its outlet, or let it begin in a rain head.',
  },
);

const runsOver: Rule<RoofFacts> = {
  id: 'roof.runs-over',
  title: 'Left under the rim of the gutter in the storm',
  why: 'Once the gutter runs over, the storm waters the footing instead of the tank.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: 'a finger under the rim' },
  needs: NEEDS_STORM,
  applies: hasGutter,
  find: ({ roof, storm }) => {
    if (!storm) return null;
    const value = storm.freeboardM;
    const isHarmful = roof.risk === 'inside' || roof.risk === 'never';
    return {
      value,
      limit: 0.01,
      severity: gradeMin(value, isHarmful ? 0.01 : 0, 0.01),
      do: value < 0.01 ? 'Add a downpipe where it stands highest: at the end farthest from one.' : 'Nothing.',
    };
  },
};

const noGutter = saidRule<RoofFacts>(
  {
    id: 'roof.caught',
    title: 'There is something to catch it by',
    why: 'Without a gutter a roof brings a tank nothing, and digs a trench along the wall.',
    source: COMMON_PRACTICE,
  },
  ({ roof }) => (roof.gutter === 'none' ? { severity: 'mend', do: 'Hang a gutter along the eaves.' } : FINE),
);

const leads = saidRule<RoofFacts>(
  {
    id: 'roof.leads',
    title: 'Its downpipes lead somewhere',
    why: 'Roof water let out beside the wall softens the footing and is lost.',
    source: COMMON_PRACTICE,
    applies: (facts) => hasGutter(facts) && facts.links.length > 0,
  },
  ({ roof, links }) => {
    const to = links.find((l) => l.outlet === `${roof.id}#down`)?.to;
    return to === undefined || LET_GO.has(to)
      ? { severity: 'weigh', do: 'Say where they lead: to a tank, a rain garden or a soakaway, five metres from the wall at least.' }
      : FINE;
  },
);

const fall: Rule<RoofFacts> = {
  id: 'roof.fall',
  title: 'Fall of the gutter',
  why: 'Water that stands in a gutter breeds mosquitoes, rots leaves and pulls it down.',
  unit: '%',
  kind: 'percent',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: '1 in 500 to 1 in 200 towards the downpipe' },
  applies: hasGutter,
  find: ({ roof }) => {
    const { fallPercent: value } = roof;
    if (value === undefined) return { value: null, limit: 0.2, severity: 'unknown', do: 'Lay a level in it, or pour a bucket in at its far end.' };
    return {
      value,
      limit: 0.2,
      severity: gradeMin(value, 0, 0.2),
      do: value < 0.2 ? 'Lower the brackets towards the downpipe: 2 to 5 mm a metre.' : 'Nothing.',
    };
  },
}; // prettier-ignore

const screen = saidRule<RoofFacts>(
  {
    id: 'roof.screen',
    title: 'Leaves kept out',
    why: 'Leaves stop an outlet in the first storm of the season, and rot in the tank.',
    source: COMMON_PRACTICE,
    applies: hasGutter,
  },
  ({ roof }) => (roof.screen === 'none' ? { severity: 'weigh', do: 'Screen each outlet by mesh or a rain head, where a hand reaches it.' } : FINE),
); // prettier-ignore

const flush: Rule<RoofFacts> = {
  id: 'roof.first-flush',
  title: 'First of each rain let go',
  why: 'The first rain brings dust, droppings and pollen of all dry days before it.',
  unit: 'mm',
  kind: 'rainFine',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: '0.5 to 2 mm of the roof' },
  applies: hasGutter,
  find: ({ roof }) => {
    const value = roof.dimensions.firstFlushMm;
    return {
      value,
      limit: 0.5,
      severity: gradeMin(value, 0, 0.5),
      do: value < 0.5 ? say`Let ${amount(0.5, 'rainFine')} go at least, more under trees.` : 'Nothing.',
    };
  },
};

const covering = saidRule<RoofFacts>(
  {
    id: 'roof.covering',
    title: 'What the roof gives to its water',
    why: 'Bitumen, moss killers, lead and droppings come down with it.',
    source: { ...COMMON_PRACTICE, locator: 'never to drink from bitumen, thatch, planted or asbestos roofs, nor past lead' },
  },
  ({ roof }) =>
    roof.covering === 'shingle' || roof.covering === 'thatch' || roof.covering === 'planted'
      ? { severity: 'weigh', do: 'Use it in the garden and for washing; ask a laboratory before anybody drinks it.' }
      : FINE,
);

/** A crown this near sheds into the gutter [m]: common practice. */
const UNDER_TREES_M = 5;
const TREES: ReadonlySet<string> = new Set(['tree', 'wood']);
const trees: Rule<RoofFacts> = {
  id: 'roof.trees',
  title: 'Distance to the nearest tree',
  why: 'Leaves fill the gutter within weeks, and branches wear the roof.',
  unit: 'm',
  kind: 'length',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: 'crowns kept clear of the roof' },
  applies: hasGutter,
  find: ({ roof, site }) => {
    const near = nearestFeature([...roof.ring, roof.ring[0]], site.features.filter((f) => TREES.has(f.kind)));
    if (!near) return null;
    const { distanceM: value, at } = near;
    return {
      value,
      limit: UNDER_TREES_M,
      at,
      severity: gradeMin(value, -1, UNDER_TREES_M),
      do: value < UNDER_TREES_M ? say`It stands ${metres(value)} away: cover the gutter with mesh, and clean it each month of leaf fall.` : 'Nothing.',
    };
  },
}; // prettier-ignore

const section: Rule<RoofFacts> = {
  id: 'roof.downpipe-section',
  title: 'Downpipe to each square metre of roof',
  why: 'An old rule that needs no rain table: a thin pipe under a wide roof runs over.',
  unit: 'ratio',
  kind: 'number',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: '0.7 to 1 cm² of pipe for each m² of roof' },
  applies: hasGutter,
  find: ({ roof }) => {
    const { downpipes, downpipeM } = roof.dimensions;
    const value = (downpipes * Math.PI * (downpipeM * 100) ** 2) / 4 / areaOf(roof);
    return {
      value,
      limit: 0.7,
      severity: gradeMin(value, 0.35, 0.7),
      do: value < 0.7 ? 'Add a downpipe, or hang wider ones.' : 'Nothing.',
    };
  },
};

const spacing: Rule<RoofFacts> = {
  id: 'roof.spacing',
  title: 'Gutter to each downpipe',
  why: 'A long gutter needs more fall than its boards have room for, and stands full at its far end.',
  unit: 'm',
  kind: 'length',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: '12 m, 15 at the most' },
  applies: hasGutter,
  find: ({ roof }) => {
    const value = roof.dimensions.gutterLengthM / roof.dimensions.downpipes;
    return {
      value,
      limit: 12,
      severity: gradeMax(value, 12, 20),
      do: value > 12 ? 'Add a downpipe at the other end, or in the middle with a fall to it from both sides.' : 'Nothing.',
    };
  },
};

export const ROOF_RULES: readonly Rule<RoofFacts>[] = [noGutter, gutter, outlets, runsOver, leads, fall, screen, flush, covering, trees, section, spacing]; // prettier-ignore
