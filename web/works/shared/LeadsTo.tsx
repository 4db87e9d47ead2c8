import type { ReactNode } from 'react';
import { optionOf } from '#core/project';
import { WAY_WORDS, useDerived, useProject, useWorks } from '../../app/selectors.ts';
import { dispatch } from '../../app/store.ts';
import { ChooseRow } from '../../kit/index.ts';

const FOLLOWED = 'followed';

/** Where a work's ways out lead: down the ground as it lies, unless the user says otherwise. */
export function LeadsTo({ id }: { readonly id: string }): ReactNode {
  const project = useProject();
  const works = useWorks();
  const derived = useDerived();
  const said = optionOf(project).links ?? {};
  // Mouths and pumps lead where they were made to.
  const own = (derived?.outlets ?? []).filter((o) => o.work === id && o.role !== 'mouth' && o.role !== 'lift');
  const stores = (derived?.stores ?? []).filter((s) => !own.some((o) => o.store === s.id));
  return (
    <>
      {own.map((o) => (
        <ChooseRow
          key={o.id}
          label={own.length > 1 ? `Water over ${WAY_WORDS[o.role]} leads` : 'Its water leads'}
          value={said[o.id] ?? FOLLOWED}
          choices={[
            { id: FOLLOWED, name: 'where the ground takes it' },
            ...stores.map((s) => ({ id: s.id, name: works.find((w) => w.id === s.id)?.name ?? s.id })),
            { id: 'property-edge', name: 'out of the property' },
          ]}
          onChange={(to) => dispatch({ type: 'link.set', payload: { outlet: o.id, to: to === FOLLOWED ? null : to } })}
        />
      ))}
    </>
  );
}
