import { Download } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import type { DrawingFormat } from '#core/formats';
import { exportDrawing } from '../../app/export.ts';
import { useProject } from '../../app/selectors.ts';
import { useApp } from '../../app/store.ts';
import { Button, ChooseRow, Inline, Muted, Part } from '../../kit/index.ts';

const FORMATS: readonly { readonly id: DrawingFormat; readonly name: string; readonly isMetric: boolean }[] = [
  { id: 'dxf', name: 'DXF', isMetric: true },
  { id: 'geojson', name: 'GeoJSON', isMetric: false },
  { id: 'kml', name: 'KML', isMetric: false },
  { id: 'gpx', name: 'GPX', isMetric: false },
  { id: 'csv', name: 'CSV', isMetric: true },
];

const NONE = 'none';
const INTERVALS = [
  { id: NONE, name: 'left out' },
  { id: '0.25', name: 'every 0.25 m' },
  { id: '0.5', name: 'every 0.5 m' },
  { id: '1', name: 'every metre' },
  { id: '2', name: 'every 2 m' },
  { id: '5', name: 'every 5 m' },
] as const;

/** The whole plan for whoever draws, drives or looks at it elsewhere. */
export function PlanPart(): ReactNode {
  const { site, terrain } = useProject();
  const isReady = useApp((s) => s.result !== null);
  const [interval, setInterval] = useState<string>('1');
  const contourM = interval === NONE || terrain === null ? null : Number(interval);
  return (
    <Part title="The plan for other programs">
      <Muted>Property line, things on the land, works, ways of water, catchments and pegs, each in a layer of its own; levels where they are known.</Muted>
      {terrain && <ChooseRow label="Contours" value={interval} choices={INTERVALS} onChange={setInterval} />}
      <Inline style={{ marginTop: 8 }}>
        {FORMATS.map(({ id, name, isMetric }) => (
          <Button
            key={id}
            aria-label={`Plan as ${name}`}
            isDisabled={!isReady || (site.crs === null && !isMetric)}
            onPress={() => void exportDrawing(id, contourM)}
          >
            <Download size={16} aria-hidden />
            {name}
          </Button>
        ))}
      </Inline>
    </Part>
  );
} // prettier-ignore
