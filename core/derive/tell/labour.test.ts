// Works by the water they hold for an hour of work.
import { describe, expect, it } from '@jest/globals';
import { noGrid } from '../../testing/projects.ts';
import { DAMS, GARDEN, MOONS, POND, WEIR, valleyProject } from '../../testing/valley.ts';
import { registry } from '../../works/index.ts';
import { Graph, derive, labourRows, ownOrHire } from '../index.ts';

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

describe('a machine bought and sold again, or hired', () => {
  const said = { price: 9000, resale: 6500, upkeepAnHour: 12, hireAnHour: 45, bringing: 190, hours: 60 };
  it('by hand: 2,500 lost and 12 an hour against 190 and 45 an hour; even at 70 hours', () => {
    expect(ownOrHire(said)).toEqual({ owned: 2500 + 720, hired: 190 + 2700, evenAtHours: 70 });
    const at = ownOrHire({ ...said, hours: 70 });
    expect(at.owned).toBe(at.hired);
  });
  it('is cheaper from the first hour where it sells for what it cost, and never where it costs more an hour than hiring', () => {
    expect(ownOrHire({ ...said, resale: 9000 }).evenAtHours).toBe(0);
    expect(ownOrHire({ ...said, upkeepAnHour: 50 }).evenAtHours).toBeNull();
  });
});
