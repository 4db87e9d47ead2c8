import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, it } from '@jest/globals';
import type { HowKnown } from '#core/derive';
import { writeProjectFile } from '#core/formats';
import { type Project, assetName, assetsOf, gridToBytes, workedAssetsOf } from '#core/project';
import { gridFromLevels } from '#core/terrain';
import { planeProject } from '../core/testing/projects.ts';
import { COMMANDS } from './commands.ts';

const FRAME = { ncols: 20, nrows: 10, cellM: 5, west: 0, south: 0 };
const ground = gridToBytes(
  gridFromLevels(
    FRAME,
    Float64Array.from({ length: 200 }, (_, i) => 100 + 0.1 * (i % 20)),
  ),
);
/** The western half was read by staff: its readings lie 3 m away, and tell 10 mm a metre between them. */
const away = gridToBytes(
  gridFromLevels(
    FRAME,
    Float64Array.from({ length: 200 }, (_, i) => (i % 20 < 10 ? 3 : NaN)),
  ),
);
const [groundName, awayName] = [assetName(ground), assetName(away)];

const project: Project = {
  ...planeProject(),
  terrain: {
    kind: 'asset',
    sha256: groundName,
    source: 'hill.tif, with yard.csv',
    surveys: [{ name: 'hill.tif' }, { name: 'yard.csv', levelsM: 0.04, growsBy: 0.01, away: awayName }],
  },
};

const put = (assets: Readonly<Record<string, Uint8Array>>): string => {
  const path = join(mkdtempSync(join(tmpdir(), 'outlet-known-')), 'p.outlet');
  writeFileSync(path, writeProjectFile(project, new Map(Object.entries(assets))));
  return path;
};

it('how near the ground is known is told from a project file, which carries where it was read', async () => {
  expect(assetsOf(project)).toEqual([groundName, awayName]);
  expect(workedAssetsOf(project)).toEqual([groundName, awayName]);
  const { answer: told } = JSON.parse(await COMMANDS.land([put({ [groundName]: ground, [awayName]: away }), 'known'])) as {
    readonly answer: HowKnown;
  };
  expect(told.share).toBeCloseTo(0.5, 9);
  // The root of 40 and 30 mm squared.
  for (const nearM of [told.halfM, told.mostM, told.worstM]) expect(nearM).toBeCloseTo(0.05, 6);
  await expect(COMMANDS.land([put({ [groundName]: ground }), 'known'])).rejects.toThrow(/what is known of yard\.csv is not in the file/);
});
