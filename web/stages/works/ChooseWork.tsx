import type { ReactNode } from 'react';
import { useApp, select } from '../../app/store.ts';
import { useWorks } from '../../app/selectors.ts';
import { Choose, Muted } from '../../kit/index.ts';

/** Which work the sheet is about: the list that mirrors the plan. */
export function ChooseWork(): ReactNode {
  const works = useWorks();
  const selected = useApp((s) => s.selected);
  if (works.length === 0) return <Muted>There is no work yet. Choose “Draw a swale” on the plan.</Muted>;
  return (
    <div style={{ margin: '6px 0 12px' }}>
      <Choose
        label="Work"
        value={works.some((w) => w.id === selected) ? (selected ?? '') : ''}
        choices={works.map((w) => ({ id: w.id, name: w.name }))}
        onChange={select}
      />
    </div>
  );
}
