import { Layers as LayersIcon } from 'lucide-react';
import type { ReactNode } from 'react';
import { Dialog, DialogTrigger, Popover } from 'react-aria-components';
import styled from 'styled-components';
import type { LayerName } from '#core/derive';
import { displayUnit, fromDisplay, toDisplay } from '#core/units';
import { type Overlay, setLand, useLandPick } from '../app/land.ts';
import { useApp } from '../app/store.ts';
import { Button, Choose, Muted, Row } from '../kit/index.ts';
import { Slide, Toggle } from '../kit/toggle.tsx';
import { INTERVALS } from './contours.ts';
import { useInterval } from './Ground.tsx';
import { OVERLAYS } from './overlay.ts';

const Pop = styled(Popover)`
  background: var(--paper);
  border: 1px solid var(--ink);
  border-radius: 4px;
  padding: 12px 16px;
  width: min(320px, 94vw);
  box-shadow: 0 8px 26px rgb(0 0 0 / 20%);
`;

const COMPASS = ['N', 'NE', 'E', 'SE', 'S', 'SW', 'W', 'NW'] as const;
const CHOICES: readonly { readonly id: Overlay; readonly name: string }[] = [
  { id: 'none', name: 'Only the ground' },
  ...(Object.keys(OVERLAYS) as LayerName[]).map((id) => ({ id, name: OVERLAYS[id].name })),
];

/** What the plan shows of the land. */
export function Layers(): ReactNode {
  const { overlay, intervalM, sun, showsContours, showsCatchments, showsPlaces, snaps } = useLandPick(
    'overlay',
    'intervalM',
    'sun',
    'showsContours',
    'showsCatchments',
    'showsPlaces',
    'snaps',
  );
  const system = useApp((s) => s.system);
  const used = useInterval();
  const { unit } = displayUnit('level', system);
  const shown = (m: number): string => String(Number(toDisplay(m, 'level', system).toFixed(2)));
  const intervals = [
    { id: 'auto', name: used === null ? 'fitting' : `fitting (${shown(used)} ${unit})` },
    ...INTERVALS.map((v) => ({ id: String(v), name: `${v} ${unit}` })),
  ];
  const value = intervalM === null ? 'auto' : shown(intervalM);
  return (
    <DialogTrigger>
      <Button aria-label="Layers">
        <LayersIcon size={16} aria-hidden />
      </Button>
      <Pop placement="bottom end">
        <Dialog aria-label="Layers">
          <Row>
            <Choose label="Over the ground" value={overlay} choices={CHOICES} onChange={(id) => setLand({ overlay: id })} />
          </Row>
          <Row>
            <Choose
              label="Contours every"
              value={intervals.some((i) => i.id === value) ? value : 'auto'}
              choices={intervals}
              onChange={(id) =>
                setLand({ intervalM: id === 'auto' ? null : fromDisplay(Number(id), 'level', system), showsContours: true })
              }
            />
          </Row>
          <Toggle label="Contours" isOn={showsContours} onChange={(v) => setLand({ showsContours: v })} />
          <Toggle label="Catchments" isOn={showsCatchments} onChange={(v) => setLand({ showsCatchments: v })} />
          <Toggle label="Valleys, ridges and places" isOn={showsPlaces} onChange={(v) => setLand({ showsPlaces: v })} />
          <Toggle label="Take hold of corners and lines while drawing" isOn={snaps} onChange={(v) => setLand({ snaps: v })} />
          <Slide
            label="Light from"
            value={sun.bearing}
            min={0}
            max={345}
            step={15}
            words={(v) => `${COMPASS[Math.round(v / 45) % 8]} ${v}°`}
            onChange={(bearing) => setLand({ sun: { ...sun, bearing } })}
          />
          <Slide
            label="Height of the light"
            value={sun.height}
            min={15}
            max={75}
            step={5}
            words={(v) => `${v}°`}
            onChange={(height) => setLand({ sun: { ...sun, height } })}
          />
          <Muted>A low light shows faint banks and furrows.</Muted>
        </Dialog>
      </Pop>
    </DialogTrigger>
  );
}
