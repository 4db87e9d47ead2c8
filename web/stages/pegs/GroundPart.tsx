import { Download } from 'lucide-react';
import { type ReactNode, useState } from 'react';
import type { GroundFormat } from '#core/formats';
import { exportGround } from '../../app/export-plan.ts';
import { useApp } from '../../app/store.ts';
import { Button, FoldPart, Inline, Muted } from '../../kit/index.ts';
import { Toggle } from '../../kit/toggle.tsx';

const FORMATS: readonly { readonly id: GroundFormat; readonly name: string }[] = [
  { id: 'tif', name: 'GeoTIFF' },
  { id: 'asc', name: 'ASCII grid' },
  { id: 'landxml', name: 'LandXML' },
  { id: 'faces', name: 'DXF faces' },
];

/** The ground for whoever models on it or steers a machine by it. */
export function GroundPart(): ReactNode {
  const isReady = useApp((s) => s.terrain !== null);
  const [isBuilt, setBuilt] = useState(false);
  if (!isReady) return null;
  return (
    <FoldPart title="The ground for other programs and machines">
      <Muted>
        As surveyed, with the ground that is shaped. As cells, or as triangles nowhere farther off than {'10\u00a0mm'} where
        {' 200\u202f000'} places are enough. The ASCII grid comes in a zip with a .prj where that can tell its system; else it is in the one
        shown under Land.
      </Muted>
      <Toggle label="With the works built into it" isOn={isBuilt} onChange={setBuilt} />
      {isBuilt && (
        <Muted>
          What is to be made, or was since the survey, by its design levels and settled: swales, drains on slopes, walls and pits of ponds,
          cut spillways, sills, roads, benches of terraces, rain gardens and half-moons, in cells of half a metre where those are not too
          many. Stone, trenches, pipes and tanks do not show in it, nor the inlets of benches. A licensed engineer signs a wall that holds
          water above people before a machine is steered by it.
        </Muted>
      )}
      <Inline style={{ marginTop: 8 }}>
        {FORMATS.map(({ id, name }) => (
          <Button key={id} aria-label={`Ground as ${name}`} onPress={() => void exportGround(id, isBuilt)}>
            <Download size={16} aria-hidden />
            {name}
          </Button>
        ))}
      </Inline>
    </FoldPart>
  );
}
