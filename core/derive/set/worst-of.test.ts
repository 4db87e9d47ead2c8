// Which storm is said to have been the worst, where several are as bad.
import { describe, expect, it } from '@jest/globals';
import type { Condition } from '../../contract/index.ts';
import { noGrid } from '../../testing/projects.ts';
import { PIPE, POND, POND_SILL, valleyProject } from '../../testing/valley.ts';
import { registry } from '../../works/index.ts';
import { Graph } from '../graph/graph.ts';
import type { Member } from '../run/worst.ts';
import { asDesigned } from '../scenario/scenario.ts';
import { runSet } from './set.ts';
import { atWorst } from './worst-of.ts';

const TABLE = { durationsMin: [60, 1440], returnYears: [2, 20], depthMm: [[17, 46], [33, 92]] }; // prettier-ignore
const project = valleyProject([POND, POND_SILL, PIPE], { rain: { table: TABLE, storm: { returnYears: 20 } } });
const ran = runSet(asDesigned(project), { registry, grids: noGrid, graph: new Graph() })!;

/** A storm under a condition in which the pond's water rose so high. */
function rose(condition: Condition, peakLevelM: number): Member {
  const [{ brief }] = ran.members;
  const outcome = brief.outcomes.get('pond')!;
  const outcomes = new Map([['pond', { ...outcome, storm: { ...outcome.storm, peakLevelM } }]]);
  return { durationMin: 60, condition, isRaised: false, brief: { ...brief, outcomes } };
}

const worstOf = (...members: readonly Member[]): unknown =>
  atWorst(members, ran.water.stores, new Graph()).storeOf('pond').worst.peakLevelM;

describe('the worst of several storms', () => {
  it('is told by the first of those that are as bad but for the last figures, with the greatest of their values', () => {
    expect(worstOf(rose('found', 10), rose('wet', 10 + 9e-9))).toEqual({ value: 10 + 9e-9, durationMin: 60, condition: 'found' });
    expect(worstOf(rose('found', 10), rose('wet', 10 + 2e-8))).toEqual({ value: 10 + 2e-8, durationMin: 60, condition: 'wet' });
    expect(worstOf(rose('wet', 10), rose('found', 10 - 9e-9))).toEqual({ value: 10, durationMin: 60, condition: 'wet' });
  });
});
