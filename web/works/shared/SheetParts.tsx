import type { ReactNode } from 'react';
import type { SheetPart } from '#core/contract';
import { spoken } from '#core/units';
import { useView } from '../../app/selectors.ts';
import { useApp } from '../../app/store.ts';
import { FoldPart } from '../../kit/index.ts';

/** Titles, each with what is said under it. */
export function SheetParts({ parts }: { readonly parts: readonly SheetPart[] }): ReactNode {
  const system = useApp((s) => s.system);
  return parts.map(({ title, says }) => (
    <div key={title}>
      <strong>{title}</strong>
      <ul style={{ paddingLeft: 18, margin: '4px 0 10px' }}>
        {says.map((one) => {
          const text = spoken(one, system);
          return <li key={text}>{text}</li>;
        })}
      </ul>
    </div>
  ));
}

/** Why a work that is there does not work, what to look at next, and what mends it. */
export function DiagnosisPart({ id }: { readonly id: string }): ReactNode {
  const parts = useView()?.diagnoses[id];
  return parts ? (
    <FoldPart title="Why it may not work">
      <SheetParts parts={parts} />
    </FoldPart>
  ) : null;
}
