// Zones and questions on the ground of the plane.
import { type AnswerOf, type ArgsOf, type AskContext, Graph, type QuestionName, ask as askByName } from '../derive/index.ts';
import type { Soil } from '../ground/index.ts';
import type { Ground, Project, Zone } from '../project/index.ts';
import { registry } from '../works/index.ts';
import { noGrid, planeProject } from './projects.ts';

export const GROUND = planeProject().ground as Ground;

export const box = (x0: number, y0: number, [x1, y1]: readonly [number, number]): [number, number][] => [
  [x0, y0],
  [x1, y0],
  [x1, y1],
  [x0, y1],
];

/** Above the swale, all across the map. */
export const ABOVE = box(0, 104, [202, 202]);

export const zone = (id: string, ring: [number, number][], change: Partial<Soil> = {}): Zone => ({
  ...GROUND,
  id,
  name: id,
  ring,
  ...change,
});

export const withGround = (change: Partial<Ground>, more: Partial<Project> = {}): Project =>
  planeProject({ ground: { ...GROUND, ...change }, ...more });

/** What answers are worked out with, afresh; no gauge has a record here. */
export const context = (): AskContext => ({
  registry,
  graph: new Graph(),
  grids: noGrid,
  records: () => {
    throw new Error('no record');
  },
});

export const ask = <K extends QuestionName>(name: K, project: Project, args: ArgsOf<K>): AnswerOf<K> =>
  askByName(name, { project, context: context(), args }) as AnswerOf<K>;
