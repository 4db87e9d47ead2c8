import type { ReactNode } from 'react';
import { formatAlike, spoken } from '#core/units';
import { useView } from '../../app/selectors.ts';
import { useApp } from '../../app/store.ts';
import { FoldPart, Muted, Table } from '../../kit/index.ts';

/** How much of what a work takes, and how it is made, first to last. */
export function MakingPart({ id }: { readonly id: string }): ReactNode {
  const made = useView()?.making[id];
  const system = useApp((s) => s.system);
  if (!made) return null;
  return (
    <>
      <FoldPart title="What it takes">
        <Table
          caption="What it takes"
          head={['', 'likely', 'at least', 'at most']}
          rows={made.quantities.map((q) => [q.label, ...formatAlike([q.likely, q.low, q.high], q.kind, system)])}
        />
        <Muted>By the ground between survey points and by hand placing: common practice.</Muted>
      </FoldPart>
      <FoldPart title="How it is made">
        <ol style={{ paddingLeft: 20, margin: '6px 0' }}>
          {made.steps.map((s) => (
            <li key={s.id} style={{ margin: '8px 0' }}>
              {spoken(s.does, system)}
              {s.hold !== undefined && (
                <div>
                  <strong>Look before you go on:</strong> {s.hold}
                </div>
              )}
              {s.cautions.map((c) => (
                <div key={c} style={{ color: 'var(--alarm)' }}>
                  {c}
                </div>
              ))}
            </li>
          ))}
        </ol>
      </FoldPart>
    </>
  );
}
