import { Download } from 'lucide-react';
import type { ReactNode } from 'react';
import type { GroundFormat } from '#core/formats';
import { exportGround } from '../../app/export-plan.ts';
import { useApp } from '../../app/store.ts';
import { Button, FoldPart, Inline, Muted } from '../../kit/index.ts';

const FORMATS: readonly { readonly id: GroundFormat; readonly name: string }[] = [
  { id: 'tif', name: 'GeoTIFF' },
  { id: 'asc', name: 'ASCII grid' },
  { id: 'landxml', name: 'LandXML' },
  { id: 'faces', name: 'DXF faces' },
];

/** The ground for whoever models on it or steers a machine by it. */
export function GroundPart(): ReactNode {
  const isReady = useApp((s) => s.terrain !== null);
  if (!isReady) return null;
  return (
    <FoldPart title="The ground for other programs and machines">
      <Muted>
        As surveyed, with the ground that is shaped; swales, walls and pits are not cut into it. As cells, or as triangles nowhere farther
        off than {'10\u00a0mm'} where {'200\u202f000'} places are enough. The ASCII grid comes in a zip with a .prj where that can tell its
        system; else it is in the one shown under Land.
      </Muted>
      <Inline style={{ marginTop: 8 }}>
        {FORMATS.map(({ id, name }) => (
          <Button key={id} aria-label={`Ground as ${name}`} onPress={() => void exportGround(id)}>
            <Download size={16} aria-hidden />
            {name}
          </Button>
        ))}
      </Inline>
    </FoldPart>
  );
}
