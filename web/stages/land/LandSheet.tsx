import { Download, Trash2 } from 'lucide-react';
import type { ReactNode } from 'react';
import { dispatch, select, useApp, useAppPick } from '../../app/store.ts';
import { useDerived, useFormat, useProject } from '../../app/selectors.ts';
import { Button, Fact, FoldPart, Muted, Part, Row, SheetTitle } from '../../kit/index.ts';
import { AnswerPart } from './AnswerPart.tsx';
import { BooksPart } from './BooksPart.tsx';
import { FeaturePart } from './FeaturePart.tsx';
import { HollowsPart, PlacesPart, SlopesPart } from './PlacesPart.tsx';
import { ImportTerrain } from './ImportTerrain.tsx';
import { KnownPart } from './KnownPart.tsx';
import { PicturesPart } from './PicturesPart.tsx';
import { SmoothPart } from './SmoothPart.tsx';

function PinPart(): ReactNode {
  const { pins } = useProject();
  const derived = useDerived();
  const selected = useApp((s) => s.selected);
  const format = useFormat();
  const pin = pins.find((p) => p.id === selected) ?? pins[pins.length - 1];
  const catchment = derived?.catchments.find((c) => c.of === pin?.id);
  const runoff = derived?.runoff.find((r) => r.of === pin?.id);
  if (!pin) return <Muted>No pin yet. Choose “Drop a pin” on the plan and click where water passes.</Muted>;
  return (
    <Part title={`What drains to ${pin.name ?? 'the pin'}`}>
      {catchment ? (
        <>
          <Fact label="Area" value={format(catchment.areaM2, 'land')} />
          <Fact label="Mean slope" value={format(catchment.meanSlope, 'slope')} />
          <Fact label="Longest flow path" value={format(catchment.longestPathM, 'length')} />
          <Fact label="Reaches the terrain’s edge" value={catchment.touchesTerrainEdge ? 'yes: more may come' : 'no'} />
          {runoff && <Fact label="Runs off in the storm" value={format(runoff.volumeM3, 'volume')} />}
          {runoff && (
            <Fact
              label="Peak, hydrograph and rational"
              value={`${format(runoff.hydrographPeakM3s, 'flow')}, ${format(runoff.rationalPeakM3s, 'flow')}`}
            />
          )}
        </>
      ) : (
        <Muted>{derived ? 'It lies off the terrain: drag it onto the ground.' : 'Being worked out…'}</Muted>
      )}
    </Part>
  );
}

/** The land: terrain, property line, buildings, and what drains where. */
export function LandSheet(): ReactNode {
  const project = useProject();
  const { result, selected } = useAppPick('result', 'selected');
  const format = useFormat();
  const terrain = result?.derived.terrain;
  const objects = [
    ...project.pins.map((p) => ({
      id: p.id,
      kind: 'pin',
      name: p.name ?? 'Pin',
      remove: () => dispatch({ type: 'pin.remove', payload: { id: p.id } }),
    })),
    ...project.features.map((f) => ({
      id: f.id,
      kind: f.kind,
      name: f.name ?? f.kind,
      remove: () => dispatch({ type: 'feature.remove', payload: { id: f.id } }),
    })),
  ];
  // So many that they would push all else out of sight.
  const trees = objects.filter((o) => o.kind === 'tree').map((o, k) => ({ ...o, name: `${o.name} ${k + 1}` }));
  const objectRow = (o: (typeof objects)[number]): ReactNode => (
    <Row key={o.id}>
      <Button look="quiet" onPress={() => select(o.id)}>
        {o.id === selected ? <strong>{o.name}</strong> : o.name}
      </Button>
      <Button look="quiet" aria-label={`Remove ${o.name}`} onPress={o.remove}>
        <Trash2 size={15} aria-hidden />
      </Button>
    </Row>
  );
  return (
    <>
      <SheetTitle>Land</SheetTitle>
      <AnswerPart />
      {project.features.some((f) => f.id === selected) ? <FeaturePart /> : <PinPart />}
      {terrain && <PlacesPart />}
      {terrain && <HollowsPart />}
      {terrain && <SlopesPart />}
      {terrain && <KnownPart />}
      {terrain && <SmoothPart />}
      {terrain && (
        <Part title="Terrain">
          <Fact label="Ground mapped" value={format(terrain.areaM2, 'land')} />
          <Fact label="Lowest" value={format(terrain.minM, 'level')} />
          <Fact label="Highest" value={format(terrain.maxM, 'level')} />
          <Fact label="System" value={project.site.crs ?? 'local metres'} />
        </Part>
      )}
      <Part title="On the plan">
        {objects.length === 0 && <Muted>Nothing yet.</Muted>}
        {objects.filter((o) => o.kind !== 'tree').map(objectRow)}
      </Part>
      {trees.length > 0 && <FoldPart title={`${trees.length} ${trees.length === 1 ? 'tree' : 'trees'}`}>{trees.map(objectRow)}</FoldPart>}
      <BooksPart />
      <PicturesPart />
      <Part title={terrain ? 'Other terrain' : 'Bring in your terrain'}>
        <ImportTerrain />
        <Muted style={{ marginTop: 8 }}>
          Samples:{' '}
          <a href="/samples/sallow-rise.tif" download>
            <Download size={13} aria-hidden /> terrain grid
          </a>
          ,{' '}
          <a href="/samples/sample-survey.csv" download>
            <Download size={13} aria-hidden /> survey points
          </a>
        </Muted>
      </Part>
    </>
  );
}
