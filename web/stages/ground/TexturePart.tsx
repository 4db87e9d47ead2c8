import { useState, type ReactNode } from 'react';
import {
  type Feel,
  GRITS,
  type Jar,
  RIBBONS,
  type Shares,
  type Soil,
  TEXTURES,
  type TextureId,
  type TextureTold,
  sharesByJar,
  sharesProblem,
  textureByFeel,
  textureByShares,
  textureFor,
  textureOf,
} from '#core/ground';
import { setSoil } from '../../app/ground.ts';
import { Button, ChooseRow, Inline, Muted, Quantity } from '../../kit/index.ts';

const WAYS: readonly { readonly id: TextureTold['by']; readonly name: string }[] = [
  { id: 'class', name: 'its name' },
  { id: 'shares', name: 'percentages' },
  { id: 'feel', name: 'feel in the hand' },
  { id: 'jar', name: 'layers in a jar' },
];
const RIBBON_WORDS: Readonly<Record<Feel['ribbon'], string>> = {
  'no-ball': 'will not stay a ball',
  none: 'a ball, but no ribbon',
  short: 'a ribbon under 25 mm',
  medium: 'a ribbon of 25 to 50 mm',
  long: 'a ribbon over 50 mm',
};
const GRIT_WORDS: Readonly<Record<Feel['grit'], string>> = { gritty: 'very gritty', smooth: 'very smooth', neither: 'neither' };

const PERCENT: readonly (readonly [keyof Shares, string])[] = [
  ['sand', 'Sand'],
  ['silt', 'Silt'],
  ['clay', 'Clay'],
];
const LAYERS: readonly (readonly [keyof Jar, string])[] = [
  ['sandMm', 'Sand, settled in a minute'],
  ['siltMm', 'Silt, settled in two hours'],
  ['clayMm', 'Clay, settled in days'],
];

/** What the answers say the texture is, or why they do not. */
function toldBy(by: TextureTold['by'], on: { shares: Shares; jar: Jar; feel: Feel }): TextureTold | string {
  if (by === 'feel') return { id: textureByFeel(on.feel), by, feel: on.feel };
  if (by === 'jar') {
    if (on.jar.sandMm + on.jar.siltMm + on.jar.clayMm <= 0) return 'Measure the layers first.';
    return { id: textureByShares(sharesByJar(on.jar)), by, jar: on.jar };
  }
  const problem = sharesProblem(on.shares);
  return problem ?? { id: textureByShares(on.shares), by: 'shares', shares: on.shares };
}

/** The texture, told in whichever way is at hand. */
export function TexturePart({ zone, soil }: { readonly zone: string | null; readonly soil: Soil }): ReactNode {
  const known = soil.texture;
  const [by, chooseWay] = useState<TextureTold['by']>(known?.by ?? 'class');
  const [shares, setShares] = useState<Shares>(known?.shares ?? { sand: 40, silt: 40, clay: 20 });
  const [jar, setJar] = useState<Jar>(known?.jar ?? { sandMm: 0, siltMm: 0, clayMm: 0 });
  const [feel, setFeel] = useState<Feel>(known?.feel ?? { ribbon: 'short', grit: 'neither' });
  const told = by === 'class' ? null : toldBy(by, { shares, jar, feel });
  const take = (texture: TextureTold): boolean => setSoil(zone, { texture });
  return (
    <>
      <ChooseRow label="Texture told by" title="Texture, told by" value={by} choices={WAYS} onChange={chooseWay} />
      {by === 'class' && (
        <ChooseRow<TextureId | 'none'>
          label="Texture"
          value={known?.id ?? 'none'}
          choices={[{ id: 'none', name: 'not told' }, ...TEXTURES.map((t) => ({ id: t.id, name: t.name }))]}
          onChange={(id) => (id === 'none' ? setSoil(zone, { texture: undefined }) : take({ id, by }))}
        />
      )}
      {by === 'shares' &&
        PERCENT.map(([id, label]) => (
          <Quantity
            key={id}
            label={label}
            value={shares[id]}
            kind="percent"
            min={0}
            max={100}
            onChange={(v) => setShares({ ...shares, [id]: v })}
          />
        ))}
      {by === 'jar' &&
        LAYERS.map(([id, label]) => (
          <Quantity key={id} label={label} value={jar[id]} kind="rain" min={0} max={500} onChange={(v) => setJar({ ...jar, [id]: v })} />
        ))}
      {by === 'feel' && (
        <>
          <ChooseRow
            label="Ribbon"
            title="A moist handful makes"
            value={feel.ribbon}
            choices={RIBBONS.map((id) => ({ id, name: RIBBON_WORDS[id] }))}
            onChange={(ribbon) => setFeel({ ...feel, ribbon })}
          />
          <ChooseRow
            label="Grit"
            title="A wet pinch feels"
            value={feel.grit}
            choices={GRITS.map((id) => ({ id, name: GRIT_WORDS[id] }))}
            onChange={(grit) => setFeel({ ...feel, grit })}
          />
        </>
      )}
      {typeof told === 'string' && <Muted style={{ color: 'var(--strawText)' }}>Not yet: {told}</Muted>}
      {told !== null && typeof told !== 'string' && (
        <Inline>
          <Muted>
            That is <strong>{textureOf(told.id).name}</strong>.
          </Muted>
          {told.id !== known?.id && (
            <Button look="quiet" onPress={() => take(told)}>
              Take it
            </Button>
          )}
        </Inline>
      )}
      <Muted>
        {known ? `Taken as ${textureOf(known.id).name}` : `Not told: ${textureFor(soil).name} stands for group ${soil.soilGroup}`}; it
        matters for Green-Ampt and for soil loss. Disturbed, it would be group {textureFor(soil).group}.
      </Muted>
    </>
  );
}
