import { describe, expect, it } from '@jest/globals';
import { unzipSync } from 'fflate';
import { together } from './together.ts';

const file = (name: string, text = name): File => new File([text], name);
const names = async (...given: string[]): Promise<string[]> => (await together(given.map((n) => file(n)))).map((f) => f.name);

describe('files that come together', () => {
  it('are packed with their parts, whatever their case, and ground comes first', async () => {
    expect(await names('track.gpx', 'Hill.ASC', 'hill.prj')).toEqual(['Hill.zip', 'track.gpx']);
    expect(await names('houses.dbf', 'houses.shp', 'houses.shx', 'hill.tif')).toEqual(['hill.tif', 'houses.zip']);
    const [zip] = await together([file('Hill.ASC', 'levels'), file('hill.PRJ', 'system')]);
    const parts = unzipSync(new Uint8Array(await zip.arrayBuffer()));
    expect(Object.entries(parts).map(([n, b]) => [n, new TextDecoder().decode(b)])).toEqual([['Hill.asc', 'levels'], ['Hill.prj', 'system']]); // prettier-ignore
  });
  it('pictures are packed with what lays them; a map of the same name keeps its own parts', async () => {
    expect(await names('air.PNG', 'air.pgw', 'air.prj')).toEqual(['air.zip']);
    const [zip] = await together([file('air.jpg'), file('air.jgw')]);
    expect(Object.keys(unzipSync(new Uint8Array(await zip.arrayBuffer())))).toEqual(['air.jpg', 'air.jgw']);
    expect(await names('air.png', 'air.prj')).toEqual(['air.png', 'air.prj']);
    expect(await names('farm.png', 'farm.shp', 'farm.prj')).toEqual(['farm.zip', 'farm.png']);
  });
  it('that have nothing to do with each other stay as they are', async () => {
    expect(await names('a.csv', 'b.kml')).toEqual(['a.csv', 'b.kml']);
    expect(await names('alone.prj')).toEqual(['alone.prj']);
    expect(await names('hill.tif', 'hill.csv')).toEqual(['hill.tif', 'hill.csv']);
    // A world file belongs to a TIFF, and to no other grid.
    expect(await names('hill.tfw', 'hill.tif', 'low.asc', 'low.tfw')).toEqual(['low.asc', 'hill.zip', 'low.tfw']);
    expect(await names()).toEqual([]);
  });
});
