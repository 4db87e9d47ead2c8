import { type ReactNode, memo, useMemo } from 'react';
import { useApp, select } from '../../app/store.ts';
import { useWorks } from '../../app/selectors.ts';
import { Choose, Muted } from '../../kit/index.ts';

interface Choice {
  readonly id: string;
  readonly name: string;
}

/** Names of works, the same list as long as none of them changes: a level that is dragged changes none. */
function useNames(): readonly Choice[] {
  const works = useWorks();
  const text = JSON.stringify(works.map(({ id, name }): Choice => ({ id, name })));
  return useMemo(() => JSON.parse(text) as readonly Choice[], [text]);
}

/** Hundreds of names are not gone through again at every edit. */
const ChooseName = memo(function ChooseName({
  value,
  choices,
}: {
  readonly value: string;
  readonly choices: readonly Choice[];
}): ReactNode {
  return <Choose label="Work" value={value} choices={choices} onChange={select} />;
});

/** Which work the sheet is about: the list that mirrors the plan. */
export function ChooseWork(): ReactNode {
  const names = useNames();
  const selected = useApp((s) => s.selected);
  if (names.length === 0) return <Muted>There is no work yet. Choose “Draw a swale” on the plan.</Muted>;
  return (
    <div style={{ margin: '6px 0 12px' }}>
      <ChooseName value={names.some((w) => w.id === selected) ? (selected ?? '') : ''} choices={names} />
    </div>
  );
}
