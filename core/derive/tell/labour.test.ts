// Works by the water they hold for an hour of work.
import { describe, expect, it } from '@jest/globals';
import { noGrid } from '../../testing/projects.ts';
import { BENCHES, SET, SOAK } from '../../testing/valley-fields.ts';
import { DAMS, GARDEN, LINES, MOONS, POND, WEIR, valleyProject } from '../../testing/valley.ts';
import { withAt } from '../../testing/rules.ts';
import { registry } from '../../works/index.ts';
import { Graph, derive, labourRows, labourSum, ownOrHire } from '../index.ts';
import type { WorkBase } from '../../contract/index.ts';

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

describe('hours that were logged', () => {
  const rowsOf = (works: readonly WorkBase[]) =>
    labourRows(works, derive(valleyProject(works), { registry, grids: noGrid, graph: new Graph() }).view.figures);
  it('go before those by book, in every work that tells what it holds for an hour', () => {
    const works = [DAMS, WEIR, MOONS, GARDEN, BENCHES, SOAK, LINES, SET] as const;
    const logged: readonly WorkBase[] = works.map((w) => withAt(w, 'labour.loggedHours', 40));
    const [book, own] = [rowsOf(works), rowsOf(logged)];
    expect(own.map((r) => r.work).sort()).toEqual(works.map((w) => w.id).sort());
    expect(own.filter((r) => r.isSlowed).map((r) => r.work)).toEqual([LINES.id]);
    for (const { work, hours, holdsM3, aFill, isLogged } of own) {
      expect([hours, isLogged, book.find((r) => r.work === work)!.isLogged]).toEqual([40, true, false]);
      if (holdsM3 !== null) expect(aFill).toBeCloseTo((1000 * holdsM3) / 40, 6);
      expect(aFill / (book.find((r) => r.work === work)!.aFill * (book.find((r) => r.work === work)!.hours! / 40))).toBeCloseTo(1, 9);
    }
  });
  it('by hand: 30 m³ in 60 h and 10 m³ in 20 h, logged, hold 500 L for an hour; a year only where both tell it', () => {
    const row = (change: object) => ({ work: 'a', name: 'A', holdsM3: 30, hours: 60, aFill: 500, aYear: 2000, inSilt: null, isLogged: false, isSlowed: false, ...change }); // prettier-ignore
    const other = { holdsM3: 10, hours: 20, aFill: 500, isLogged: true };
    expect(labourSum([row({}), row({ ...other, aYear: 6000 })])).toEqual({ holdsM3: 40, hours: 80, aFill: 500, aYear: 3000, inSilt: null, logged: 1, of: 2 }); // prettier-ignore
    expect(labourSum([row({}), row({ ...other, aYear: null })])?.aYear).toBeNull();
    expect(labourSum([row({ hours: null })])).toBeNull();
    // Water that is only slowed is no water held.
    expect(labourSum([row({}), row({ isSlowed: true, holdsM3: 999 })])).toEqual(labourSum([row({})]));
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
