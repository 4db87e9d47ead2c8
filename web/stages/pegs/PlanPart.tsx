import { Download } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import type { DrawingFormat } from '#core/formats';
import { exportDrawing, exportTables } from '../../app/export-plan.ts';
import { useFormat, useProject } from '../../app/selectors.ts';
import { useApp } from '../../app/store.ts';
import { Button, ChooseRow, FoldPart, Inline, Muted } from '../../kit/index.ts';

const FORMATS: readonly { readonly id: DrawingFormat; readonly name: string; readonly isMetric: boolean }[] = [
  { id: 'dxf', name: 'DXF', isMetric: true },
  { id: 'geojson', name: 'GeoJSON', isMetric: false },
  { id: 'kml', name: 'KML', isMetric: false },
  { id: 'gpx', name: 'GPX', isMetric: false },
  { id: 'csv', name: 'CSV', isMetric: true },
];

const NONE = 'none';
/** Intervals of contours that are offered [m]. */
const INTERVALS_M = [0.25, 0.5, 1, 2, 5];

/** The whole plan for whoever draws, drives or looks at it elsewhere. */
export function PlanPart(): ReactNode {
  const { site, terrain } = useProject();
  const isReady = useApp((s) => s.result !== null);
  const format = useFormat();
  const [interval, choose] = useState<string>('1');
  const choices = [{ id: NONE, name: 'left out' }, ...INTERVALS_M.map((m) => ({ id: String(m), name: `every ${format(m, 'length')}` }))];
  const contourM = interval === NONE || terrain === null ? null : Number(interval);
  return (
    <FoldPart title="The plan for other programs">
      <Muted>Property line, things on the land, works, ways of water, catchments and pegs, each in a layer of its own; levels where they are known.</Muted>
      {terrain && <ChooseRow label="Contours" value={interval} choices={choices} onChange={choose} />}
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
      <Muted style={{ marginTop: 8 }}>Stores, quantities, pegs and checks, a sheet each, figures in metres:</Muted>
      <Inline>
        <Button isDisabled={!isReady} onPress={() => void exportTables()}>
          <Download size={16} aria-hidden />
          Tables as a spreadsheet
        </Button>
      </Inline>
    </FoldPart>
  );
} // prettier-ignore
