import { Upload } from 'lucide-react';
import { useEffect, useState, type ReactNode } from 'react';
import { FileTrigger } from 'react-aria-components';
import styled from 'styled-components';
import { PICTURE_ENDINGS, WORLD_ENDINGS } from '#core/project';
import { useDropped } from '../../app/dropped.ts';
import { systemsFor } from '../../app/find-system.ts';
import { bringInAll, typedLevels } from '../../app/import.ts';
import { FONT } from '../../app/theme.ts';
import { Button, Inline } from '../../kit/index.ts';
import { SearchField } from '../../kit/search.tsx';
import { MadeUpLand } from './MadeUpLand.tsx';

const Field = styled.label`
  display: grid;
  gap: 3px;
  font-size: 14px;
  margin: 8px 0;
  textarea {
    font-family: ${FONT.figures};
    background: transparent;
    border: 1px solid var(--line);
    border-radius: 4px;
    padding: 6px 8px;
    width: 100%;
  }
`;

/** What is read, and the parts that come beside it. */
const ENDINGS = [
  ...'tif tiff asc grd las laz csv txt xyz gpx kml kmz geojson dxf gpkg zip prj shp dbf shx cpg'.split(' '),
  ...PICTURE_ENDINGS,
  ...WORLD_ENDINGS,
].map((ending) => `.${ending}`);

/** Files of terrain or survey points, or levels typed by hand. */
export function ImportTerrain({ onDone }: { readonly onDone?: () => void }): ReactNode {
  // Another place, another system: none is meant until it is said here.
  useEffect(() => () => useDropped.setState({ crs: null }), []);
  const [typed, setTyped] = useState('');
  const take = async (files: readonly File[]): Promise<void> => {
    if (await bringInAll(files, { crs: useDropped.getState().crs })) onDone?.();
  };
  return (
    <>
      <SearchField
        label="Where it lies, if the file does not say: a country and zone, or latitude and longitude"
        placeholder="left empty: somewhere, in metres"
        search={systemsFor}
        onChoose={(system) => useDropped.setState({ crs: system?.id ?? null })}
      />
      <FileTrigger acceptedFileTypes={ENDINGS} allowsMultiple onSelect={(files) => files && void take([...files])}>
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
        <Button isDisabled={typed.trim() === ''} onPress={() => void take([typedLevels(typed)])}>
          Use these levels
        </Button>
      </Inline>
      <MadeUpLand onDone={onDone} />
    </>
  );
}
