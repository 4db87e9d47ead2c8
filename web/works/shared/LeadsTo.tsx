import type { ReactNode } from 'react';
import type { ConduitStorm } from '#core/contract';
import { WAY_WORDS, isOf } from '#core/derive';
import { optionOf } from '#core/project';
import { capitalised } from '#core/units';
import { partWords, useDerived, useProject } from '../../app/selectors.ts';
import { dispatch } from '../../app/store.ts';
import { ChooseRow } from '../../kit/index.ts';

const FOLLOWED = 'followed';
const FIXED: ReadonlySet<string> = new Set(['mouth', 'lift', 'through', 'eaves']);

/** Works that are a pipe alone, without a store over it, other than one. */
export const ownPipes = (conduits: readonly ConduitStorm[], not: string): readonly { readonly id: string; readonly name: string }[] =>
  conduits.flatMap(({ id, work, name }) => (id === work && id !== not ? [{ id, name: name.replace(/, pipe 1$/, '') }] : []));

/** Every pipe of other works: a downspout may join any of them. */
const pipesOf = (conduits: readonly ConduitStorm[], not: string): readonly { readonly id: string; readonly name: string }[] => [
  ...ownPipes(conduits, not),
  ...conduits.flatMap(({ id, work, name }) => (work === not || id === work ? [] : [{ id, name }])),
];

/** Where a work's ways out lead: down the ground as it lies, unless the user says otherwise. */
export function LeadsTo({ id }: { readonly id: string }): ReactNode {
  const project = useProject();
  const derived = useDerived();
  const said = optionOf(project).links ?? {};
  const inside = new Set(derived?.stores.filter((s) => isOf(s, id)).map((s) => s.id));
  const pipes = derived?.conduits ?? [];
  const isPipe = new Set(pipes.map((c) => c.id));
  // Mouths, pumps and laid pipes lead where they were made to, what falls off eaves lies below them, what seeps through goes where the rest does;
  // one of several stores leads into the next.
  const own = (derived?.outlets ?? []).filter(
    (o) =>
      o.work === id && !FIXED.has(o.role) && !isPipe.has(o.store) && !inside.has(derived?.links.find((l) => l.outlet === o.id)?.to ?? ''),
  );
  const stores = [...(derived?.stores ?? []).filter((s) => !isOf(s, id) && !own.some((o) => o.store === s.id)), ...pipesOf(pipes, id)];
  return (
    <>
      {own.map((o) => (
        <ChooseRow
          key={o.id}
          label={own.length > 1 ? capitalised(`${partWords(derived, o.store)}water ${WAY_WORDS[o.role].by} leads`) : 'Its water leads'}
          value={said[o.id] ?? FOLLOWED}
          choices={[
            { id: FOLLOWED, name: 'where the ground takes it' },
            ...stores.map((s) => ({ id: s.id, name: s.name })),
            { id: 'property-edge', name: 'out of the property' },
          ]}
          onChange={(to) => dispatch({ type: 'link.set', payload: { outlet: o.id, to: to === FOLLOWED ? null : to } })}
        />
      ))}
    </>
  );
}
