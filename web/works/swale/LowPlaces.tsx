import { Plus, Trash2 } from 'lucide-react';
import type { ReactNode } from 'react';
import type { Swale } from '#core/works';
import { dispatch } from '../../app/store.ts';
import { Button, Inline, Muted, Part, Quantity } from '../../kit/index.ts';
import { change } from '../levels.ts';

type LowPlace = NonNullable<Swale['lowPlaces']>[number];

/** Stretches of bank found lower than designed: each is a way out. */
export function LowPlaces({ swale }: { readonly swale: Swale }): ReactNode {
  const places = swale.lowPlaces ?? [];
  const keep = (next: readonly LowPlace[]): void => {
    dispatch(change(swale.id, { lowPlaces: next.length > 0 ? next : null }));
  };
  const set = (at: number, part: Partial<LowPlace>): void => keep(places.map((p, i) => (i === at ? { ...p, ...part } : p)));
  return (
    <Part
      title="Bank as found"
      action={
        <Button
          look="quiet"
          onPress={() => keep([...places, { atM: 20, lengthM: 5, levelM: Math.round((swale.levels.bankCrestM - 0.1) * 1000) / 1000 }])}
        >
          <Plus size={15} aria-hidden />
          Add a low place
        </Button>
      }
    >
      {places.length === 0 && <Muted>No low place noted. Walk the bank with a level after its first season.</Muted>}
      {places.map((p, i) => (
        <div key={i}>
          <Quantity label="Low place at" value={p.atM} kind="length" min={0} onChange={(atM) => set(i, { atM })} />
          <Quantity label="Along the bank" value={p.lengthM} kind="length" min={0.1} onChange={(lengthM) => set(i, { lengthM })} />
          <Quantity label="Its level" value={p.levelM} kind="level" onChange={(levelM) => set(i, { levelM })} />
          <Inline>
            <Button look="quiet" onPress={() => keep(places.filter((_, k) => k !== i))}>
              <Trash2 size={15} aria-hidden />
              Mended: take it away
            </Button>
          </Inline>
        </div>
      ))}
    </Part>
  );
}
