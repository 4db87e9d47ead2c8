import type { DrawSpec, Land, Technique } from '../../contract/index.ts';
import { type Point, closed, lineLength } from '../../geometry/index.ts';
import { begun, groundUnder, mm, offTerrain } from '../beginning.ts';
import { newSill } from '../level-sill/model.ts';
import { newPond } from './create.ts';
import type { Pond } from './model.ts';

/** Height of a first wall, and how far its crest stays under the lower end [m]: common practice for a small one. */
const [FIRST_HEIGHT_M, UNDER_END_M] = [2, 0.1];
/** First way out under the crest [m]. */
const UNDER_CREST_M = 0.6;
/** Least height of a wall worth its name, and of its water [m]. */
const [LEAST_HEIGHT_M, LEAST_WATER_M] = [0.5, 0.2];
/** A first pit: crest over its lowest rim, floor under it [m]. */
const [OVER_RIM_M, PIT_DEPTH_M] = [0.3, 2];

export const POND_SAMPLE = newPond('pond', 'Pond', {
  wall: [
    [0, 0],
    [40, 0],
  ],
  crestM: 102,
  floorM: 100,
});

export const POND_DRAWS: readonly DrawSpec[] = [
  {
    id: 'pond',
    name: 'A pond behind a wall',
    what: 'line',
    least: 2,
    hint: 'Draw the wall across the valley, well into both sides; double-click to end.',
  },
  { id: 'pit', name: 'A dug pond', what: 'ring', least: 3, hint: 'Click each corner, double-click to close. It is dug inside.' },
];

/** A wall with a level sill where natural ground first stands at its level: a wall that can hold water has a way out. */
function walled(wall: readonly Point[], ground: readonly number[], land: Land): ReturnType<typeof begun> {
  const lowestM = Math.min(...ground);
  const ends = Math.min(ground[0], ground[ground.length - 1]);
  const crestM = Math.max(lowestM + LEAST_HEIGHT_M, mm(Math.min(lowestM + FIRST_HEIGHT_M, ends - UNDER_END_M)));
  const name = land.nameFor('Pond');
  const pond = newPond(land.idFor('pond'), name, { wall, crestM, floorM: lowestM });
  const sillM = mm(Math.max(lowestM + LEAST_WATER_M, pond.levels.crestM - UNDER_CREST_M));
  const stepM = lineLength(wall) / (ground.length - 1);
  const from = ground.findIndex((_, k) => ground.slice(k).every((g) => g >= sillM));
  const atM = mm((from < 0 ? ground.length - 1 : Math.min(ground.length - 1, from + 1)) * stepM);
  return begun(pond, newSill({ id: land.idFor('sill'), name: `${name} sill`, host: pond.id, atM, sillM }));
}

export const beginPond: Technique<Pond, unknown>['begin'] = ({ how, points }, land) => {
  const isPit = how === 'pit';
  const ground = groundUnder(isPit ? closed(points) : points, land);
  if (!ground) return offTerrain('the pond');
  if (!isPit) return walled(points, ground, land);
  const lowestM = Math.min(...ground);
  const on = { pit: points, crestM: lowestM + OVER_RIM_M, floorM: lowestM - PIT_DEPTH_M };
  return begun(newPond(land.idFor('pond'), land.nameFor('Pond'), on));
};
