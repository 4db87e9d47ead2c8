// The tests themselves: how each is made and read.
import type { SizeSpec, TestKind } from './types.ts';

const metres = (id: string, label: string, [start, min, max, help]: readonly [number, number, number, string]): SizeSpec => ({
  id,
  label,
  kind: 'difference',
  start,
  min,
  max,
  help,
});
const radius = (start: number): SizeSpec => metres('radiusM', 'Radius of the hole', [start, 0.02, 0.5, 'Half its width.']);

export const TEST_KINDS: readonly TestKind[] = [
  {
    kind: 'double-ring',
    title: 'Double ring',
    says: 'Two rings driven into the soil, both kept wet: read the inner one only.',
    reads: 'Water in the inner ring',
    sizes: [],
  },
  {
    kind: 'single-ring',
    title: 'Single ring',
    says: 'One ring driven in. Water also spreads sideways under it, which is taken off.',
    reads: 'Water in the ring',
    sizes: [
      metres('radiusM', 'Radius of the ring', [0.15, 0.04, 0.6, 'Half its width inside.']),
      metres('drivenM', 'Driven into the soil', [0.05, 0.01, 0.3, 'From the surface to its lower edge.']),
      {
        id: 'suction',
        label: 'How little the soil sucks (1/cm)',
        kind: 'number',
        start: 0.12,
        min: 0.005,
        max: 0.5,
        help: '0.36 sand, 0.12 most soils, 0.04 fine without structure, 0.01 compact clay.',
      },
    ],
  },
  {
    kind: 'percolation',
    title: 'Percolation hole',
    says: 'A hole soaked the day before, filled and refilled. Its sides drink too, which is taken off.',
    reads: 'Water in the hole',
    sizes: [radius(0.1)],
  },
  {
    kind: 'auger',
    title: 'Auger hole',
    says: 'A bored hole above the water table, filled until the soil round it is wet, then left to fall.',
    reads: 'Water in the hole',
    sizes: [radius(0.05)],
  },
  {
    kind: 'pit',
    title: 'Soakage pit',
    says: 'A trial pit with upright sides, filled three times in a day; the slowest filling counts.',
    reads: 'Water in the pit',
    sizes: [
      metres('lengthM', 'Length of the pit', [2, 0.2, 5, 'Inside, at its base.']),
      metres('widthM', 'Width of the pit', [0.6, 0.2, 3, 'Inside, at its base.']),
    ],
  },
];

export const testKind = (kind: string): TestKind | undefined => TEST_KINDS.find((k) => k.kind === kind);
