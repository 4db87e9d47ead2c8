import { Plus } from 'lucide-react';
import type { ReactNode } from 'react';
import type { WorkBase } from '#core/contract';
import { catalogue, valueAt } from '#core/works';
import { useFormat, useWorks, hostIdOf } from '../../app/selectors.ts';
import { select, useApp } from '../../app/store.ts';
import { ActionMenu, Button, Figures, Muted, Part, Row } from '../../kit/index.ts';
import { beginWork } from '../../plan/begin.ts';

/** Ways out that can be added, as their techniques have them. */
const WAYS = catalogue.draws.filter((d) => d.what === 'on-host');

/** Everything that lets a store out, lowest first, and how to add another. */
export function WaysOut({ host }: { readonly host: WorkBase }): ReactNode {
  const works = useWorks();
  const format = useFormat();
  const guests = works.filter((w) => hostIdOf(w) === host.id);
  const levelOf = (w: WorkBase): number | null => {
    const level = valueAt(w, 'levels.sillM');
    return typeof level === 'number' ? level : null;
  };
  const sorted = [...guests].sort((a, b) => (levelOf(a) ?? Infinity) - (levelOf(b) ?? Infinity));
  const isReadOnly = useApp((s) => s.saved === 'read-only');
  return (
    <Part title="Ways out, lowest first">
      {sorted.length === 0 && <Muted>None yet. The way out is designed first, and built first.</Muted>}
      {sorted.map((w) => (
        <Row key={w.id}>
          <Button look="quiet" aria-label={`Open ${w.name}`} onPress={() => select(w.id)}>
            {w.name}
          </Button>
          <Figures>{format(levelOf(w), 'level')}</Figures>
        </Row>
      ))}
      {!isReadOnly && (
        <div style={{ margin: '10px 0' }}>
          <ActionMenu
            label="Add a way out"
            icon={<Plus size={15} aria-hidden />}
            choices={WAYS.map((w) => ({ id: w.kind, name: w.name }))}
            onChoose={(kind) => void beginWork(kind, { points: [], host: host.id })}
          />
        </div>
      )}
    </Part>
  );
}
