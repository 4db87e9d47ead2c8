import { readAsciiGrid } from './ascii-grid.ts';
import { readRows, sheetOf } from './columns.ts';
import { requireCrs } from './crs.ts';
import { readGeoTiff } from './geotiff.ts';
import { type Imported, type InputFile, refuseFile } from './imported.ts';
import { isGauge, readGauge } from './gauge-csv.ts';
import { isRain, readRainTable } from './rain-csv.ts';
import { isSurvey, readSurvey } from './survey-csv.ts';

const isTiff = (b: Uint8Array): boolean => (b[0] === 0x49 && b[1] === 0x49) || (b[0] === 0x4d && b[1] === 0x4d);

/**
 * Understands a terrain, survey or rain file by what is in it. `crs` is the system the user says it is in.
 * @throws UserError saying what is wrong, where and what to do.
 */
export async function importFile(file: InputFile, crs: string | null = null): Promise<Imported> {
  const { name, bytes } = file;
  if (bytes.length === 0) refuseFile(name, 'file.empty', { what: 'the file is empty', do: 'Choose another file.' });
  const wanted = crs === null || crs.trim() === '' ? null : (await requireCrs(crs, name)).code;
  const ending = name.toLowerCase().split('.').pop() ?? '';
  if (isTiff(bytes) || ending === 'tif' || ending === 'tiff') return readGeoTiff(file, wanted);
  if (ending === 'asc' || ending === 'grd') return readAsciiGrid(file, wanted);
  if (ending === 'csv' || ending === 'txt' || ending === 'tsv' || ending === 'xyz') {
    const rows = readRows(file);
    const sheet = sheetOf(rows, name);
    if (/^ncols\b/.test(sheet.headers[0])) return readAsciiGrid(file, wanted);
    if (isGauge(sheet)) return readGauge(sheet);
    if (isRain(rows)) return readRainTable(rows, name);
    if (isSurvey(sheet)) return readSurvey(sheet, wanted);
    return refuseFile(name, 'csv.columns', {
      what: `its header is "${sheet.headers.join(', ').slice(0, 80)}"`,
      line: 1,
      do: 'For a survey name the columns x, y, z or lat, lon, z; for rain duration_min and the return periods; for a gauge date and precipitation.',
    });
  }
  return refuseFile(name, 'file.kind', {
    what: `files ending in .${ending} are not read`,
    do: 'Bring in a GeoTIFF (.tif), an ASCII grid (.asc) or a CSV of survey points, rain depths or a rain gauge.',
  });
}
