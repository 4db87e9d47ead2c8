import type { ReactNode } from 'react';
import { CRACK_STORE, type SeenGround, type Soil } from '#core/ground';
import { setSoil } from '../../app/ground.ts';
import { useFormat } from '../../app/selectors.ts';
import { Button, Inline, Muted, Part, Quantity } from '../../kit/index.ts';

const FIELDS: readonly {
  readonly id: keyof SeenGround;
  readonly label: string;
  readonly kind: 'percent' | 'rain';
  readonly max: number;
}[] = [
  { id: 'barePercent', label: 'Bare soil, seen from above', kind: 'percent', max: 100 },
  { id: 'grassMm', label: 'Height of the grass', kind: 'rain', max: 5000 },
  { id: 'thatchMm', label: 'Dead grass and litter on it', kind: 'rain', max: 1000 },
  { id: 'crackWidthMm', label: 'Cracks: width', kind: 'rain', max: 500 },
  { id: 'crackDepthMm', label: 'Cracks: depth', kind: 'rain', max: 5000 },
  { id: 'crackSpacingMm', label: 'Cracks: distance apart', kind: 'rain', max: 10_000 },
];

/** What a walk over it shows. */
export function SeenPart({ zone, soil }: { readonly zone: string | null; readonly soil: Soil }): ReactNode {
  const format = useFormat();
  const { seen = {} } = soil;
  const { crackWidthMm: w, crackDepthMm: h, crackSpacingMm: s } = seen;
  const cracks = w !== undefined && h !== undefined && s !== undefined && s > 0 ? CRACK_STORE.evaluate({ w, h, s }) : null;
  return (
    <Part title="As it stands there">
      {FIELDS.map(({ id, label, kind, max }) => (
        <Quantity
          key={id}
          label={label}
          value={seen[id] ?? null}
          kind={kind}
          min={0}
          max={max}
          onChange={(v) => setSoil(zone, { seen: { ...seen, [id]: v } })}
        />
      ))}
      {cracks !== null && (
        <Muted>
          Open cracks take in {format(cracks, 'rain')} at first. They close with the first wetting, so no storm is designed with them.
        </Muted>
      )}
      <Muted>The bare share sets the condition of the cover and how it shields the soil; height tells how fast a flow it stands.</Muted>
      {soil.seen && (
        <Inline>
          <Button look="quiet" onPress={() => setSoil(zone, { seen: undefined })}>
            Forget what was seen
          </Button>
        </Inline>
      )}
    </Part>
  );
}
