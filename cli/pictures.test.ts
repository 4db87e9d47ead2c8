import { join } from 'node:path';
import { expect, it } from '@jest/globals';
import { UserError } from '#core/project';
import { COMMANDS } from './commands.ts';

const fixture = (name: string): string => join(process.cwd(), 'core/formats/fixtures', name);
const told = async (...words: string[]): Promise<Record<string, unknown>> => JSON.parse(await COMMANDS.import(words)) as Record<string, unknown>; // prettier-ignore

it('a picture is told with where it lies; a part or a band of it is refused', async () => {
  expect(await told(fixture('photo.zip'))).toEqual({ kind: 'picture', type: 'image/png', widthPx: 120, heightPx: 80, laying: [0.5, 0, 410_000, 0, -0.5, 4_095_040], crs: 'EPSG:32610', warnings: [] }); // prettier-ignore
  expect(await told(fixture('photo.tif'), '--crs', 'EPSG:32610')).toMatchObject({ kind: 'picture', crs: 'EPSG:32610' });
  const refused = await told(fixture('photo.zip'), '--part', '0,0,1,1').catch((e: unknown) => e);
  expect(refused).toBeInstanceOf(UserError);
});
