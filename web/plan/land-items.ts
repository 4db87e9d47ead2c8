// Answers of the land as they are drawn on the plan.
import LineString from 'ol/geom/LineString.js';
import OlPoint from 'ol/geom/Point.js';
import Polygon from 'ol/geom/Polygon.js';
import type { PlacesAnswer, Section } from '#core/derive';
import { PLACE_TITLES } from '#core/derive';
import { type Line, type Point, closed, distance } from '#core/geometry';
import type { FallLine } from '#core/terrain';
import type { LandAnswer, LiveLevel, ShownSection } from '../app/land.ts';
import { toRing } from './items.ts';
import type { Look, PlanItem } from './types.ts';

/** Least grade of a trench that carries water: common practice, half a per cent [m/m]. */
export const TRENCH_GRADE = 0.005;

/** A pointer further than this from a section's line says nothing about it [share of its length]. */
const NEAR_SHARE = 0.12;

/** The place of a section nearest to a point; null when the point is not near it. */
export function nearestInSection({ points, lengthM }: Section, to: Point): Section['points'][number] | null {
  if (points.length === 0) return null;
  const near = points.reduce((a, p) => (distance(p.at, to) < distance(a.at, to) ? p : a));
  return distance(near.at, to) <= NEAR_SHARE * Math.max(10, lengthM) ? near : null;
}

interface LandDrawing {
  readonly places: PlacesAnswer | null | undefined;
  readonly shown: ShownSection | null;
  readonly answer: LandAnswer | null;
  readonly storage: { readonly ring: readonly Point[] } | null | undefined;
  readonly fallLine: FallLine | null | undefined;
  /** Ground that runs onto the selected line or area. */
  readonly from: readonly Point[];
  readonly live: readonly LiveLevel[];
}

const coordinates = (line: Line): number[][] => line.map(([x, y]) => [x, y]);
const lineItem = (id: string, line: Line, look: Look): PlanItem[] =>
  line.length < 2
    ? []
    : [
        {
          id,
          version: JSON.stringify([line[0], line[line.length - 1], line.length, look]),
          geometry: new LineString(coordinates(line)),
          look,
        },
      ];
const pointItem = (id: string, at: Point, look: Look): PlanItem => ({
  id,
  version: JSON.stringify([at, look]),
  geometry: new OlPoint([...at]),
  look,
});

function placeItems({ valleys, ridges, places }: PlacesAnswer): PlanItem[] {
  return [
    ...ridges.flatMap((r, k) => lineItem(`land:ridge:${k}`, r.points, { role: 'ridge' })),
    ...valleys.flatMap((v, k) => lineItem(`land:valley:${k}`, v.points, { role: 'valley' })),
    ...places.flatMap((p, k) => [
      ...(p.wall ? lineItem(`land:choke:${k}`, p.wall, { role: 'wall' }) : []),
      pointItem(`land:place:${k}`, p.at, { role: p.kind, label: PLACE_TITLES[p.kind] }),
    ]),
  ];
}

function answerItems({ answer, storage, fallLine }: LandDrawing): PlanItem[] {
  if (answer?.kind === 'contour') return lineItem('land:contour', answer.line, { role: 'answer' });
  if (answer?.kind === 'fall') {
    return [
      ...(fallLine ? lineItem('land:fall', fallLine.line, { role: 'answer' }) : []),
      pointItem('land:from', answer.from, { role: 'vertex', label: 'from here' }),
      pointItem('land:to', answer.to, { role: 'vertex', label: 'to here' }),
    ];
  }
  if (answer?.kind === 'advice')
    return lineItem('land:place', 'ring' in answer.place ? closed(answer.place.ring) : answer.place.line, { role: 'answer' });
  if (answer?.kind !== 'wall' && answer?.kind !== 'hollow') return [];
  const ring = storage?.ring ?? [];
  const water: PlanItem[] =
    ring.length < 3
      ? []
      : [
          {
            id: 'land:water',
            version: JSON.stringify([ring[0], ring.length]),
            geometry: new Polygon(toRing(ring)),
            look: { role: 'hollow-water' },
          },
        ];
  return answer.kind === 'hollow' ? water : [...water, ...lineItem('land:wall', answer.line, { role: 'wall' })];
}

/** Places, the line of the long section, and the answer in hand. */
export function landItems(drawing: LandDrawing): PlanItem[] {
  const { places, shown, from, live } = drawing;
  const path = shown?.section.points.map((p) => p.at) ?? [];
  const ground: PlanItem[] =
    from.length < 3
      ? []
      : [
          {
            id: 'land:from-above',
            version: JSON.stringify([from[0], from.length]),
            geometry: new Polygon(toRing(from)),
            look: { role: 'catchment', isSelected: true },
          },
        ];
  return [
    ...ground,
    ...(places ? placeItems(places) : []),
    ...lineItem('land:section', path, { role: 'section' }),
    ...answerItems(drawing),
    ...live.map(({ id, at, text, isBelieved }) => pointItem(`live:${id}`, at, { role: isBelieved ? 'live' : 'live-doubted', label: text })),
  ];
}
