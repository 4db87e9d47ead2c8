// What a head is sent as the ground above it rests.
import { describe, expect, it } from '@jest/globals';
import type { Project } from '../../project/index.ts';
import { noGrid } from '../../testing/projects.ts';
import { HEAD, valleyProject } from '../../testing/valley.ts';
import { registry } from '../../works/index.ts';
import { Graph, ask, derive } from '../index.ts';
import type { Resting } from './resting.ts';

const resting = (project: Project, of: string): readonly Resting[] | null =>
  ask('resting', { project, context: { registry, grids: noGrid, graph: new Graph() } as never, args: { of } }) as readonly Resting[] | null;
const poor = valleyProject([HEAD]);
const healing: Project = {
  ...poor,
  ground: { ...poor.ground!, cover: 'pasture-poor', compaction: 'severe', healing: { treatment: 'rest', cover: 'pasture-good' } },
};

describe('as the ground above rests', () => {
  it('less comes each time, and now is what the land says now', () => {
    const rows = resting(healing, 'head')!;
    expect(rows.map((r) => r.years)).toEqual([0, 2, 5, 10]);
    for (let k = 1; k < rows.length; k++) {
      expect(rows[k].peakM3s!).toBeLessThan(rows[k - 1].peakM3s!);
      expect(rows[k].volumeM3!).toBeLessThan(rows[k - 1].volumeM3!);
    }
    const { derived } = derive(healing, { registry, grids: noGrid, graph: new Graph() });
    expect(rows[0].peakM3s).toBeCloseTo(derived.stores[0].peakInM3s!, 12);
    const later = derive({ ...healing, ground: { ...healing.ground!, as: 'healed', healedYears: 5 } }, { registry, grids: noGrid, graph: new Graph() }); // prettier-ignore
    expect(rows[2].volumeM3).toBeCloseTo(later.derived.stores[0].inM3!, 9);
  });
  it('says nothing where nobody has said how the ground is to heal, and refuses what stores no water', () => {
    expect(resting(poor, 'head')).toBeNull();
    expect(() => resting(healing, 'nothing')).toThrow(/stores no water/);
  });
});
