import { Upload } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import { FileTrigger } from 'react-aria-components';
import styled from 'styled-components';
import { bringIn, typedLevels } from '../../app/import.ts';
import { FONT } from '../../app/theme.ts';
import { Button, Inline } from '../../kit/index.ts';

const Field = styled.label`
  display: grid;
  gap: 3px;
  font-size: 14px;
  margin: 8px 0;
  input,
  textarea {
    font-family: ${FONT.figures};
    background: transparent;
    border: 1px solid var(--line);
    border-radius: 4px;
    padding: 6px 8px;
    width: 100%;
  }
`;

/** A file of terrain or survey points, or levels typed by hand. */
export function ImportTerrain({ onDone }: { readonly onDone?: () => void }): ReactNode {
  const [crs, setCrs] = useState('');
  const [typed, setTyped] = useState('');
  const take = async (file: File): Promise<void> => {
    if (await bringIn(file, { crs: crs.trim() === '' ? null : crs.trim() })) onDone?.();
  };
  return (
    <>
      <Field>
        Coordinate system, if the file does not say (leave empty for local metres)
        <input value={crs} onChange={(e) => setCrs(e.target.value)} placeholder="EPSG:32633" />
      </Field>
      <FileTrigger
        acceptedFileTypes={['.tif', '.tiff', '.asc', '.grd', '.csv', '.txt', '.xyz', '.gpx', '.kml', '.kmz', '.geojson', '.dxf', '.zip']}
        onSelect={(files) => files?.[0] && void take(files[0])}
      >
        <Button look="strong">
          <Upload size={16} aria-hidden />
          Choose ground, a track or a map
        </Button>
      </FileTrigger>
      <Field>
        or type levels, one point a line: x, y, level in metres; or a level book, its first line x, y, bs, is, fs, level
        <textarea
          rows={4}
          value={typed}
          onChange={(e) => setTyped(e.target.value)}
          placeholder={'0, 0, 100.00\n20, 0, 99.40\n0, 20, 101.10'}
        />
      </Field>
      <Inline>
        <Button isDisabled={typed.trim() === ''} onPress={() => void take(typedLevels(typed))}>
          Use these levels
        </Button>
      </Inline>
    </>
  );
}
