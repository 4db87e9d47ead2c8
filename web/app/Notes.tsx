import { X } from 'lucide-react';
import type { ReactNode } from 'react';
import styled from 'styled-components';
import { spoken } from '#core/units';
import { Button, Inline, Problems } from '../kit/index.ts';
import { notify, useAppPick } from './store.ts';

const Note = styled.div`
  padding: 8px 18px;
  background: var(--paperDeep);
  border-bottom: 1px solid var(--line);
  display: flex;
  justify-content: space-between;
  gap: 10px;
  align-items: start;
  max-height: 42vh;
  overflow-y: auto;
  > :first-child {
    flex: 1;
    min-width: 0;
    overflow-wrap: anywhere;
  }
`;

/** What has just happened, or what was refused and why, with the answers it asks for. */
export function Notes(): ReactNode {
  const { notice, system } = useAppPick('notice', 'system');
  if (!notice) return null;
  return (
    <Note>
      <div>
        {notice.tone === 'mend' ? (
          <Problems title={notice.title} problems={notice.problems} />
        ) : (
          <p role="status">{spoken(notice.title, system)}</p>
        )}
        {notice.choices && (
          <Inline style={{ marginTop: 10 }}>
            {notice.choices.map(({ name, choose }) => (
              <Button key={name} onPress={choose}>
                {name}
              </Button>
            ))}
          </Inline>
        )}
      </div>
      <Button look="quiet" aria-label="Close this note" onPress={() => notify(null)}>
        <X size={15} aria-hidden />
      </Button>
    </Note>
  );
}
