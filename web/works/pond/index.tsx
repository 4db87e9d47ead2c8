import LineString from 'ol/geom/LineString.js';
import Polygon from 'ol/geom/Polygon.js';
import { Wind } from 'lucide-react';
import type { ReactNode } from 'react';
import { type Line, closed } from '#core/geometry';
import type { Pond } from '#core/works';
import { useWorks } from '../../app/selectors.ts';
import { dispatch } from '../../app/store.ts';
import { Button, Inline, Part, Quantity } from '../../kit/index.ts';
import type { PlanItem } from '../../plan/types.ts';
import { change } from '../levels.ts';
import { WaysOut } from '../shared/WaysOut.tsx';
import { WorkSheet } from '../shared/WorkSheet.tsx';
import type { WorkUi } from '../types.ts';

const WALL_ONLY = [
  'borrow',
  'dimensions.topWidthM',
  'dimensions.waterSlopeHV',
  'dimensions.backSlopeHV',
  'dimensions.keyDepthM',
  'dimensions.keyWidthM',
  'dimensions.stripM',
  'settlementPercent',
  'levels.crestM',
];
const PIT_ONLY = ['levels.floorM', 'dimensions.pitSlopeHV'];

function PondSheet({ id }: { readonly id: string }): ReactNode {
  const pond = useWorks().find((w) => w.id === id) as Pond | undefined;
  if (!pond) return null;
  const { clayPercent } = pond;
  return (
    <WorkSheet id={id} hides={[...(pond.wall ? [] : WALL_ONLY), ...(pond.pit ? [] : PIT_ONLY)]}>
      {pond.wall && (
        <Part title="Earth of the wall">
          {clayPercent === undefined ? (
            <Inline>
              <Button look="quiet" onPress={() => dispatch(change(id, { clayPercent: 20 }))}>
                <Wind size={15} aria-hidden />
                Note the clay you found
              </Button>
            </Inline>
          ) : (
            <Quantity
              label="Clay in it"
              value={clayPercent}
              kind="percent"
              min={0}
              max={100}
              onChange={(v) => dispatch(change(id, { clayPercent: v }))}
            />
          )}
        </Part>
      )}
      <WaysOut host={pond} />
    </WorkSheet>
  );
}

const coordinates = (line: Line): number[][] => line.map(([x, y]) => [x, y]);

export const pondUi: WorkUi = {
  kind: 'pond',
  Sheet: PondSheet,
  drag: () => null,
  planItems: (work, { result, selected }) => {
    const pond = work as Pond;
    const isSelected = pond.id === selected;
    const rings = result?.view.rings[pond.id] ?? [];
    const water = rings.map((ring, k): PlanItem => {
      const look = { role: 'water', isSelected, ...(k === 0 ? { label: pond.name } : {}) };
      return {
        id: k === 0 ? pond.id : `water:${pond.id}:${k}`,
        version: JSON.stringify([ring.length, ring[0], ring[ring.length >> 1], look]),
        geometry: new Polygon([coordinates(ring)]),
        look,
      };
    });
    const own = rings.length > 0 ? `wall:${pond.id}` : pond.id;
    const look = { role: 'earth-wall', isSelected, width: pond.dimensions.topWidthM, ...(rings.length > 0 ? {} : { label: pond.name }) };
    const wall: PlanItem[] = pond.wall
      ? [{ id: own, version: JSON.stringify([pond.wall, look]), geometry: new LineString(coordinates(pond.wall)), look }]
      : [];
    const pit: PlanItem[] =
      pond.pit && rings.length === 0
        ? [
            {
              id: own,
              version: JSON.stringify([pond.pit, look]),
              geometry: new Polygon([coordinates(closed(pond.pit))]),
              look: { ...look, role: 'water' },
            },
          ]
        : [];
    return [...water, ...wall, ...(pond.wall ? [] : pit)];
  },
};
