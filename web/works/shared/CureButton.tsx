import { useState, type ReactNode } from 'react';
import { Wrench } from 'lucide-react';
import type { Cure } from '#core/contract';
import { capitalised, spoken } from '#core/units';
import { useAskNetwork } from '../../app/network.ts';
import { dispatch, useApp } from '../../app/store.ts';
import { Button, Inline, Muted } from '../../kit/index.ts';
import { change } from '../levels.ts';

/** What the change would bring and cost, before it is made. */
function Priced({ cure, leave }: { readonly cure: Cure; readonly leave: () => void }): ReactNode {
  const system = useApp((s) => s.system);
  const price = useAskNetwork('price', { work: cure.work, set: cure.set });
  return (
    <>
      <Muted role="status">
        {price === undefined
          ? 'Working out what it brings…'
          : price === null
            ? 'The document does not take that change.'
            : `${capitalised(spoken(price.said, system))}.`}
      </Muted>
      <Inline>
        <Button
          look="strong"
          isDisabled={!price}
          onPress={() => {
            leave();
            dispatch(change(cure.work, cure.set));
          }}
        >
          Do it
        </Button>
        <Button look="quiet" onPress={leave}>
          Leave it
        </Button>
      </Inline>
    </>
  );
}

/** A mend that can be worked out: what it would bring first, then done in one step that one undo takes back. */
export function CureButton({ cure }: { readonly cure: Cure }): ReactNode {
  const system = useApp((s) => s.system);
  const isReadOnly = useApp((s) => s.saved === 'read-only');
  const [isAsked, ask] = useState(false);
  if (isReadOnly) return null;
  return (
    <div style={{ margin: '0 0 8px 24px' }}>
      {isAsked ? (
        <Priced cure={cure} leave={() => ask(false)} />
      ) : (
        <Button look="quiet" onPress={() => ask(true)}>
          <Wrench size={15} aria-hidden />
          {spoken(cure.says, system)}
        </Button>
      )}
    </div>
  );
}
