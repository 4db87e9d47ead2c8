// Works by the water they hold for an hour of work.
import { describe, expect, it } from '@jest/globals';
import { noGrid } from '../../testing/projects.ts';
import { DAMS, GARDEN, MOONS, POND, WEIR, valleyProject } from '../../testing/valley.ts';
import { registry } from '../../works/index.ts';
import { Graph, derive, labourRows } from '../index.ts';

describe('works by labour', () => {
  it('stand in order, each by its own figures; what tells no hours is left out', () => {
    const works = [POND, { ...DAMS, labour: { ...DAMS.labour, fillsAYear: 4 } }, WEIR, MOONS, GARDEN];
    const { view } = derive(valleyProject(works), { registry, grids: noGrid, graph: new Graph() });
    const rows = labourRows(works, view.figures);
    expect(rows.map((r) => r.work).sort()).toEqual(['dams', 'garden', 'moons', 'weir']);
    for (let k = 1; k < rows.length; k++) expect(rows[k].aFill).toBeLessThanOrEqual(rows[k - 1].aFill);
    for (const { holdsM3, hours, aFill } of rows) expect((1000 * holdsM3!) / hours! / aFill).toBeCloseTo(1, 6);
    const dams = rows.find((r) => r.work === 'dams')!;
    expect(dams.aYear! / dams.aFill).toBeCloseTo(4, 9);
    expect(rows.find((r) => r.work === 'weir')!.aYear).toBeNull();
  });
});
