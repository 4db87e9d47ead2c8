import { Link2, Scissors, Unlink } from 'lucide-react';
import type { ReactNode } from 'react';
import { lineLength } from '#core/geometry';
import type { Traits } from '#core/contract';
import { type Swale, catalogue } from '#core/works';
import { useDerived, useWorks } from '../../app/selectors.ts';
import { dispatch } from '../../app/store.ts';
import { Button, ChooseRow, Inline, Muted, Part, Quantity } from '../../kit/index.ts';
import { change } from '../levels.ts';

const round = (m: number): number => Math.round(m * 1000) / 1000;

/** Whether the swale opens into a pond, and where its bank is to go first. */
export function JoinPart({ swale }: { readonly swale: Swale }): ReactNode {
  const works = useWorks();
  const byId = new Map(works.map((w) => [w.id, w]));
  const traitsOf = (id: string): Traits | null => {
    const work = byId.get(id);
    return work ? catalogue.describe(work).traits : null;
  };
  const stores = (useDerived()?.stores ?? []).filter((s) => s.id !== swale.id && traitsOf(s.id)?.joinable === true);
  const { joins, fuse, line, levels } = swale;
  if (stores.length === 0 && !joins && !fuse) return null;
  // What a wall holds first: a swale that opens into another swale is the exception.
  const isBank = (id: string): boolean => traitsOf(id)?.retains === 'bank';
  const names = [...stores]
    .sort((a, b) => Number(isBank(a.id)) - Number(isBank(b.id)))
    .map((s) => ({ id: s.id, name: byId.get(s.id)?.name ?? s.id }));
  const set = (values: Readonly<Record<string, unknown>>): boolean => dispatch(change(swale.id, values));
  const length = lineLength(line);
  return (
    <Part title="Opens into">
      {joins ? (
        <>
          <ChooseRow
            label="Opens into"
            title="Pond or swale"
            value={joins.store}
            choices={names}
            onChange={(store) => set({ joins: { ...joins, store } })}
          />
          <ChooseRow
            label="By its"
            value={joins.end}
            choices={[
              { id: 'start', name: 'start' },
              { id: 'end', name: 'end' },
            ]}
            onChange={(end) => set({ joins: { ...joins, end } })}
          />
          <Inline>
            <Button look="quiet" onPress={() => set({ joins: null })}>
              <Unlink size={15} aria-hidden />
              Close its mouth
            </Button>
          </Inline>
        </>
      ) : (
        names.length > 0 && (
          <Inline>
            <Button look="quiet" onPress={() => set({ joins: { store: names[0].id, end: 'start' }, purpose: 'spillway' })}>
              <Link2 size={15} aria-hidden />
              Open it into {names[0].name}
            </Button>
          </Inline>
        )
      )}
      {fuse ? (
        <>
          <Quantity
            label="Fuse from"
            value={fuse.fromM}
            kind="length"
            min={0}
            max={length}
            onChange={(fromM) => set({ fuse: { ...fuse, fromM } })}
          />
          <Quantity
            label="Fuse to"
            value={fuse.toM}
            kind="length"
            min={0}
            max={length}
            onChange={(toM) => set({ fuse: { ...fuse, toM } })}
          />
          <Quantity label="Fuse crest level" value={fuse.crestM} kind="level" onChange={(crestM) => set({ fuse: { ...fuse, crestM } })} />
          <Inline>
            <Button look="quiet" onPress={() => set({ fuse: null })}>
              Take the fuse away
            </Button>
          </Inline>
        </>
      ) : (
        joins && (
          <Inline>
            <Button
              look="quiet"
              onPress={() =>
                set({ fuse: { fromM: round(length / 3), toM: round(length / 3 + 8), crestM: round(levels.bankCrestM - 0.1) } })
              }
            >
              <Scissors size={15} aria-hidden />
              Choose where its bank goes first
            </Button>
          </Inline>
        )
      )}
      {joins && <Muted>Both fill and empty each other; the water line tilts while it runs to a far sill.</Muted>}
    </Part>
  );
}
