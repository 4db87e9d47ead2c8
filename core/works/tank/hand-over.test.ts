import { describe, expect, it } from '@jest/globals';
import { derived, planeProject } from '../../testing/projects.ts';
import { words } from '../../testing/rules.ts';
import { handOverOf } from './hand-over.ts';
import { type Tank, newTank } from './index.ts';
import { daysToFull } from './mortar.ts';

const MORTAR = newTank('m', 'Mortar', { how: 'mortar-tank', at: [60, 60] });
const CRATES = newTank('c', 'Crates', { how: 'crate-tank', at: [60, 60] });
const BARREL = newTank('b', 'Barrel', { how: 'barrel', at: [60, 60] });
const sheet = (tank: Tank): string => handOverOf(tank).map(({ title, says }) => [title, ...says.map(words)].join('\n')).join('\n'); // prettier-ignore

describe('the sheet left with whoever lives with a tank', () => {
  it('of mortar: its days are those of the steps, and the last is the day it may be full', () => {
    const text = sheet(MORTAR);
    // 2 of slab, 2 of cage, 3 coats, 2 of its top: wet from the tenth, 14 days.
    expect(text).toMatch(/From day 10 to day 24: wet sacks/);
    expect(text).toMatch(new RegExp(`It may be full on day ${daysToFull(MORTAR)}:`));
    expect(daysToFull(MORTAR)).toBe(24 + 3);
    expect(text).toMatch(/stands on its dome/);
    expect(sheet({ ...MORTAR, lid: 'open' })).toMatch(/From day 8 to day 22/);
    expect(sheet({ ...MORTAR, lid: 'open' })).not.toMatch(/dome/);
  });
  it('says what it holds and what stays in it: shape by hand', () => {
    const text = sheet({ ...BARREL, count: 3 });
    const { diameterM, overflowM, tapM } = BARREL.dimensions;
    const litres = (hM: number): number => Math.round(3000 * Math.PI * (diameterM / 2) ** 2 * hM);
    expect(text.replaceAll(/(\d)[\s\u202f\u00a0]+(?=\d)/g, '$1')).toContain(`${litres(overflowM)}`);
    expect(text.replaceAll(/(\d)[\s\u202f\u00a0]+(?=\d)/g, '$1')).toContain(`The lowest ${litres(tapM)}`);
    expect(text).toMatch(/in 3 vessels/);
    expect(text).not.toMatch(/wet sacks|shaft|drives over/);
  });
  it('warns by what it is: frost as it was said, water as it is treated, what may stand over crates', () => {
    const frost = (['not-said', 'none', 'emptied', 'stays'] as const).map((one) => /frost|freezes/.exec(sheet({ ...BARREL, frost: one })) !== null); // prettier-ignore
    expect(frost).toEqual([true, false, true, true]);
    expect(sheet(BARREL)).toMatch(/not for drinking/);
    expect(sheet({ ...BARREL, use: 'drinking', treated: 'none' })).toMatch(/not for drinking/);
    expect(sheet({ ...BARREL, use: 'drinking', treated: 'filtered' })).not.toMatch(/not for drinking/);
    expect(sheet(CRATES)).toMatch(/Nothing drives over it, and no tree/);
    expect(sheet({ ...CRATES, crates: { ...CRATES.crates, over: 'vehicle' } })).toMatch(/Nothing heavier/);
    expect(sheet({ ...BARREL, lid: 'open' })).toMatch(/mosquitoes/);
    expect(sheet({ ...BARREL, lid: 'closed', screen: 'mesh' })).not.toMatch(/mosquitoes/);
    for (const tank of [MORTAR, CRATES, BARREL]) expect(sheet(tank)).toMatch(/its air may kill[^]*Whom to ask/);
  });
  it('is there for what stands as for what is planned, where steps to build are not; for works nobody lives with there is none', () => {
    const built = derived(planeProject({}, [{ ...MORTAR, status: 'built' }]));
    expect(Object.keys(built.view.handOvers)).toEqual(['m']);
    expect(built.view.making).toEqual({});
    const planned = derived(planeProject({}, [MORTAR]));
    expect(Object.keys(planned.view.making)).toEqual(['m']);
    expect(planned.view.handOvers).toEqual(built.view.handOvers);
  });
});
