// One of the set across, to scale.
import type { SectionShape } from '../../contract/index.ts';
import type { Point } from '../../geometry/index.ts';
import { sectionOutline } from '../trough.ts';
import type { SwaleSet } from './model.ts';
import type { Row } from './standing.ts';

export function sectionOf(work: SwaleSet, row: Row, waterM: number | null): SectionShape {
  const { depthM, fillM, floorWidthM: b, sideSlopeHV: z } = work.dimensions;
  const section = { ...work.dimensions, lipDepthM: depthM, crossSlope: row.slope };
  const { ground, cut, bank } = sectionOutline(section, { lipM: row.lipM, crestM: row.crestM, aroundM: 1 });
  /** Water from the inner side of bank or ditch to the ground or side uphill. */
  const across = (level: number): Point[] => {
    const over = level - row.lipM;
    const right = over > 0 ? over * work.dimensions.bankSlopeHV : z * over;
    return [[-(z * depthM + b) - z * (level - row.floorM), level], [right, level]]; // prettier-ignore
  };
  const top = Math.min(row.floorM + fillM, row.lipM);
  const filled: Point[] = [
    [-z * depthM, row.floorM],
    [-z * (row.lipM - top), top],
    [-(z * depthM + b) - z * (top - row.floorM), top],
    [-z * depthM - b, row.floorM],
  ];
  return {
    title: 'Across, at their mean slope',
    parts: [
      { role: 'ground', points: ground },
      { role: 'cut', points: cut },
      { role: 'earth', isArea: true, points: bank },
      ...(work.fill === 'none' ? [] : [{ role: 'stone' as const, isArea: true, points: filled }]),
      { role: 'full', points: across(row.spillM) },
      ...(waterM !== null && waterM > row.floorM ? [{ role: 'water' as const, points: across(Math.min(waterM, row.crestM)) }] : []),
    ],
    levels: [
      { name: 'bank', levelM: row.crestM },
      { name: 'spill', levelM: row.spillM },
      { name: 'floor', levelM: row.floorM },
    ],
  };
}
