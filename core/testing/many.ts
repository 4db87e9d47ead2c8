// A large property with a great many works: swales, each with its sill, over rough ground.
import type { WorkBase } from '../contract/index.ts';
import type { Point } from '../geometry/index.ts';
import type { Project } from '../project/index.ts';
import { type Grid, levelAt } from '../terrain/index.ts';
import type { LevelSill, Swale } from '../works/index.ts';
import { SILL, SWALE, planeProject } from './projects.ts';

/** So many swales, each with a sill, spread over a grid. */
export function manyWorks(grid: Grid, count: number): WorkBase[] {
  const across = Math.ceil(Math.sqrt(count / 2));
  const [wide, high] = [grid.ncols * grid.cellM, grid.nrows * grid.cellM];
  return Array.from({ length: count }, (_, k) => {
    const [col, row] = [k % across, Math.floor(k / across)];
    const x = grid.west + ((col + 0.3 + 0.4 * (row % 2)) / (across + 1)) * wide + 30;
    const y = grid.south + ((row + 0.5) / (2 * across + 1)) * high;
    const length = Math.min(60, (0.6 * wide) / across);
    const line: Point[] = Array.from({ length: 7 }, (__, i) => [x + (length * i) / 6, y + 3 * Math.sin(i + k)]);
    const lip = Math.min(...line.map((p) => levelAt(grid, p)));
    const swale: Swale = { ...SWALE, id: `w${k}`, name: `Swale ${k}`, line, levels: { floorM: lip - 0.4, bankCrestM: lip + 0.4 } };
    const sill: LevelSill = { ...SILL, id: `s${k}`, name: `Sill ${k}`, host: `w${k}`, atM: length / 2, levels: { sillM: lip } };
    return [swale, sill];
  }).flat();
}

/** A project of these on a grid, which is handed in as its terrain. */
export function manyProject(grid: Grid, count: number): Project {
  return planeProject(
    { terrain: { kind: 'asset', sha256: 'many' } as Project['terrain'], site: { crs: null, outline: [], zeroLevelM: 0 } },
    manyWorks(grid, count),
  );
}

/** The project with one sill moved. */
export const sillMoved = (project: Project, byM: number): Project => ({
  ...project,
  options: project.options.map((o) => ({
    ...o,
    works: o.works.map((w) => {
      const { levels } = w as unknown as { readonly levels: { readonly sillM: number } };
      return w.id === 's0' ? { ...w, levels: { sillM: levels.sillM + byM } } : w;
    }),
  })),
});
