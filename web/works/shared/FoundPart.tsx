import type { ReactNode } from 'react';
import { CONDITION_NAMES, hours } from '#core/derive';
import { optionOf } from '#core/project';
import { capitalised } from '#core/units';
import { useDerived, useFormat, useLeft, useProject, useView } from '../../app/selectors.ts';
import { dispatch } from '../../app/store.ts';
import { Button, Inline, Muted, Quantity, Table } from '../../kit/index.ts';

/** How high water stands as things may be found, each in its worst storm. */
export function FoundPart({ id }: { readonly id: string }): ReactNode {
  const store = useDerived()?.stores.find((s) => s.id === id);
  const found = useView()?.found[id] ?? [];
  const format = useFormat();
  const left = useLeft();
  if (!store || found.length === 0) return null;
  const rows = found.map((f) => [
    capitalised(CONDITION_NAMES[f.condition]),
    format(f.peakLevelM, 'level'),
    left(f.leftM),
    hours(f.durationMin),
  ]);
  return (
    <>
      <Table caption="Highest water as things may be found" head={['', 'highest', 'left', 'in rain of']} rows={rows} />
      <StartLevel id={id} />
    </>
  );
}

/** Where the water stands when a storm begins: what it keeps, or the user's word. */
function StartLevel({ id }: { readonly id: string }): ReactNode {
  const store = useDerived()?.stores.find((s) => s.id === id);
  const said = optionOf(useProject()).starts?.[id];
  const format = useFormat();
  if (!store || store.startM === null) return null;
  const depth = store.startM - store.floorM;
  const set = (levelM: number | null): boolean => dispatch({ type: 'start.set', payload: { store: id, levelM } });
  return (
    <>
      <Quantity
        label="Water when a storm begins"
        value={store.startM}
        kind="level"
        min={store.floorM}
        max={store.crestM}
        onChange={(levelM) => set(levelM)}
      />
      <Muted>
        {said !== undefined
          ? 'Set by you.'
          : depth < 0.005
            ? 'It is found empty: what a storm leaves is gone before the next.'
            : store.startM >= store.wayOutM - 1e-6
              ? 'It is found full: it keeps its water, or loses it too slowly to be empty when the next storm comes.'
              : `It is found with ${format(depth, 'difference')} in it: what a storm like this leaves behind.`}
      </Muted>
      {said !== undefined && (
        <Inline>
          <Button look="quiet" onPress={() => set(null)}>
            As it keeps by itself
          </Button>
        </Inline>
      )}
    </>
  );
}
