import { Trash2 } from 'lucide-react';
import type { ReactNode } from 'react';
import styled from 'styled-components';
import { WORK_STATUSES, type WorkBase, type WorkStatus } from '#core/contract';
import { spoken } from '#core/units';
import { dispatch, select, useApp } from '../app/store.ts';
import { Button, Choose, Inline } from '../kit/index.ts';
import { FONT } from '../app/theme.ts';
import { change } from './levels.ts';

const Name = styled.input`
  font: 700 21px/1.2 ${FONT.heading};
  border: 0;
  background: transparent;
  padding: 0;
  width: 100%;
  &:hover {
    background: var(--paperDeep);
  }
`;

const NotComputed = styled.p`
  border-left: 4px solid var(--alarm);
  background: var(--paperDeep);
  padding: 8px 12px;
  margin: 8px 0;
  font-size: 14.5px;
`;

const STATUS = WORK_STATUSES.map((id) => ({ id, name: id }));

/** Name, status and removal: the same for every work. */
export function WorkHead({ work, children }: { readonly work: WorkBase; readonly children?: ReactNode }): ReactNode {
  const system = useApp((s) => s.system);
  const why = useApp((s) =>
    s.result?.derived.uncomputed.some((u) => u.work === work.id)
      ? s.result.derived.checks.find((c) => c.on === work.id && c.id.startsWith('work.'))
      : undefined,
  );
  return (
    <>
      <Name
        aria-label="Name"
        defaultValue={work.name}
        key={`${work.id}${work.name}`}
        onBlur={(e) =>
          e.target.value.trim() !== '' && e.target.value !== work.name && dispatch(change(work.id, { name: e.target.value.trim() }))
        }
      />
      {why && (
        <NotComputed role="note">
          <strong>Not computed.</strong> {spoken(why.said.title, system)}. {spoken(why.said.do, system)}
        </NotComputed>
      )}
      <Inline>
        <Choose<WorkStatus>
          label="Status"
          isLabelHidden
          value={work.status}
          choices={STATUS}
          onChange={(status) => dispatch(change(work.id, { status }))}
        />
        {children}
        <Button
          look="quiet"
          aria-label={`Remove ${work.name}`}
          onPress={() => {
            if (dispatch({ type: 'works.remove', payload: { ids: [work.id] } })) select(null);
          }}
        >
          <Trash2 size={15} aria-hidden />
        </Button>
      </Inline>
    </>
  );
}
