import { MapPin } from 'lucide-react';
import type { ReactNode } from 'react';
import styled from 'styled-components';
import { DEFAULT_LAND } from '#core/project';
import { PLACE_TITLES, placeWords } from '#core/derive';
import type { Place } from '#core/terrain';
import { SLOPE_CLASSES } from '#core/terrain';
import { spoken } from '#core/units';
import { setLand, useAsk, useLand } from '../../app/land.ts';
import { newId, useFormat, useProject } from '../../app/selectors.ts';
import { dispatch, select, useApp } from '../../app/store.ts';
import { Button, Choose, Muted, Part, Row, Table } from '../../kit/index.ts';
import { Toggle } from '../../kit/toggle.tsx';

const Item = styled.li`
  border-bottom: 1px solid var(--line);
  padding: 8px 0;
  list-style: none;
  p {
    font-size: 14px;
  }
`;

function adopt(place: Place): void {
  const id = newId('pin');
  if (dispatch({ type: 'pin.add', payload: { pin: { id, name: PLACE_TITLES[place.kind], at: place.at } } })) select(id);
}

/** Places that matter for water, ranked and explained. */
export function PlacesPart(): ReactNode {
  const showsPlaces = useLand((s) => s.showsPlaces);
  const system = useApp((s) => s.system);
  const found = useAsk('places', showsPlaces ? {} : null);
  const counts = new Map<string, number>();
  return (
    <Part title="Places that matter">
      <Toggle label="Find and show them" isOn={showsPlaces} onChange={(v) => setLand({ showsPlaces: v })} />
      {showsPlaces && found === undefined && <Muted>Looking…</Muted>}
      {found?.places.length === 0 && <Muted>None on this ground: no valley turns, pinches or cuts, and no water stands.</Muted>}
      <ul style={{ margin: 0, padding: 0 }}>
        {(found?.places ?? []).map((place, k) => {
          const rank = (counts.get(place.kind) ?? 0) + 1;
          counts.set(place.kind, rank);
          const title = `${PLACE_TITLES[place.kind]} ${rank}`;
          return (
            <Item key={k}>
              <strong>{title}</strong>
              <p>{spoken(placeWords(place), system)}</p>
              <Button look="quiet" aria-label={`Adopt ${title} as a pin`} onPress={() => adopt(place)}>
                <MapPin size={14} aria-hidden /> Adopt as a pin
              </Button>
            </Item>
          );
        })}
      </ul>
    </Part>
  );
}

/** How hollows are taken. */
export function HollowsPart(): ReactNode {
  const { land = DEFAULT_LAND } = useProject();
  const derived = useApp((s) => s.result?.derived);
  const format = useFormat();
  const hollows = derived?.hollows ?? [];
  const volume = hollows.reduce((sum, h) => sum + h.volumeM3, 0);
  return (
    <Part title="Hollows">
      <Choose
        label="Water in them"
        value={land.hollows}
        choices={[
          { id: 'fill', name: 'fills them, then spills' },
          { id: 'breach', name: 'finds a culvert or gap' },
        ]}
        onChange={(hollowsAs) => dispatch({ type: 'land.set', payload: { land: { ...land, hollows: hollowsAs } } })}
      />
      <Muted>
        {hollows.length === 0
          ? 'None deeper than the noise of a survey.'
          : `${hollows.length} real ${hollows.length === 1 ? 'one' : 'ones'}, ${format(volume, 'volume')} in all; the deepest ${format(hollows[0].depthM, 'length')}.`}
      </Muted>
      {hollows.slice(0, 5).map((h, k) => (
        <Row key={`${h.at.join()}`}>
          <span>
            {format(h.depthM, 'length')} deep, {format(h.volumeM3, 'volume')}, spills at {format(h.spillM, 'level')}
          </span>
          <Button look="quiet" aria-label={`Show hollow ${k + 1}`} onPress={() => setLand({ answer: { kind: 'hollow', at: h.at } })}>
            Show
          </Button>
        </Row>
      ))}
    </Part>
  );
}

/** How much of the land lies in each slope class. */
export function SlopesPart(): ReactNode {
  const format = useFormat();
  const areas = useAsk('slopeAreas', {});
  if (!areas) return null;
  const total = areas.reduce((sum, a) => sum + a.areaM2, 0);
  return (
    <Part title="Land by slope">
      <Table
        caption="Area in each slope class"
        head={['slope', 'area', 'share']}
        rows={areas.map(({ areaM2 }, k) => {
          const from = k === 0 ? 0 : 100 * SLOPE_CLASSES[k - 1].toSlope;
          const to = SLOPE_CLASSES[k].toSlope;
          const range = Number.isFinite(to) ? `${Math.round(from)} to ${Math.round(100 * to)} %` : `over ${Math.round(from)} %`;
          return [range, format(areaM2, 'land'), `${total > 0 ? Math.round((100 * areaM2) / total) : 0} %`];
        })}
      />
    </Part>
  );
}
