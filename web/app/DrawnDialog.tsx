import { useState, type ReactNode } from 'react';
import { Dialog, Heading } from 'react-aria-components';
import styled from 'styled-components';
import { Button, Choose, Inline, Muted, FileSheet, Problems, Shade } from '../kit/index.ts';
import { type Group, countOf, countWords, groupsOf, kindOf, kindsFor, offWords, takenAs } from './drawn.ts';
import { bringIn } from './import.ts';
import { newId } from './selectors.ts';
import type { DrawnFile } from './asked.ts';
import { dispatch, notify, useApp } from './store.ts';

const Rows = styled.table`
  width: 100%;
  border-collapse: collapse;
  margin: 14px 0;
  th {
    text-align: left;
    font-size: 14px;
    font-weight: 600;
    color: var(--muted);
  }
  td,
  th {
    padding: 5px 12px 5px 0;
    border-bottom: 1px solid var(--line);
    overflow-wrap: anywhere;
  }
  td:nth-child(2) {
    white-space: nowrap;
  }
`;

/** Puts the question away, and tells whether anything was taken. */
function close(isTaken: boolean): void {
  useApp.getState().drawnFile?.done(isTaken);
  useApp.setState({ drawnFile: null });
}

function Row({ group, kind, onChange }: { readonly group: Group; readonly kind: string; readonly onChange: (kind: string) => void }): ReactNode {
  return (
    <tr>
      <td>
        {group.title}
        {group.names !== '' && <Muted>{group.names}</Muted>}
      </td>
      <td>{countWords(group)}</td>
      <td>
        <Choose isLabelHidden label={`${group.title}, taken as`} value={kind} choices={kindsFor(group)} onChange={onChange} />
      </td>
    </tr>
  );
} // prettier-ignore

function Asked({ file, imported, done }: DrawnFile): ReactNode {
  const [groups] = useState(() => groupsOf(imported));
  const [kinds, setKinds] = useState<ReadonlyMap<string, string>>(new Map());
  const hasGround = useApp((s) => s.history?.project.terrain != null);
  const frame = useApp((s) => s.terrain?.frame ?? null);
  const refused = useApp((s) => (s.notice?.tone === 'mend' ? s.notice : null));
  const { taken: count, off } = countOf(groups, kinds, frame);
  const take = (): void => {
    const { features, outline } = takenAs(groups, kinds, newId);
    const crs = imported.crs === null ? {} : { crs: imported.crs };
    const isDone = dispatch({ type: 'features.add', payload: { features, ...(outline ? { outline } : {}), ...crs } });
    // Refused, the question stays with what was said.
    if (!isDone) return;
    close(true);
    notify({ tone: 'fine', title: `${count} of ${imported.shapes.length} shapes of ${imported.source} are in.`, problems: [] });
  };
  const asGround = (): void => {
    useApp.setState({ drawnFile: null });
    void bringIn(file, { as: 'terrain' }).then(done);
  };
  return (
    <>
      <Heading slot="title">What is drawn in {imported.source}</Heading>
      <Muted>{imported.notes.join(' ')}</Muted>
      {imported.canBeGround && (
        <p>
          It bears levels: they can be joined into ground{hasGround ? ', which then stands in place of what is here' : ''}. A phone tells
          levels to 5 or 10 m only; what was levelled or drawn as contours is worth more.
        </p>
      )}
      <Rows>
        <thead>
          <tr>
            <th>Filed under</th>
            <th>Drawn as</th>
            <th>Taken as</th>
          </tr>
        </thead>
        <tbody>
          {groups.map((group) => (
            <Row
              key={group.key}
              group={group}
              kind={kindOf(group, kinds)}
              onChange={(kind) => setKinds(new Map([...kinds, [group.key, kind]]))}
            />
          ))}
        </tbody>
      </Rows>
      {off > 0 && (
        <p>
          <strong>{offWords(off, count)} off the ground of this project.</strong> Is it another place, or another coordinate system?
        </p>
      )}
      {refused && <Problems {...refused} />}
      <Inline>
        <Button look={off < count && (hasGround || !imported.canBeGround) ? 'strong' : undefined} isDisabled={count === 0} onPress={take}>
          {count === 1 ? 'Take this one in' : `Take these ${count} in`}
        </Button>
        {imported.canBeGround && (
          <Button look={hasGround ? undefined : 'strong'} onPress={asGround}>
            Make ground of its levels
          </Button>
        )}
        <Button look="quiet" onPress={() => close(false)}>
          Leave it
        </Button>
      </Inline>
    </>
  );
}

/** What is drawn in a file that was brought in, and what each of it is taken as. */
export function DrawnDialog(): ReactNode {
  const drawn = useApp((s) => s.drawnFile);
  return (
    <Shade isOpen={drawn !== null} onOpenChange={(isOpen) => !isOpen && close(false)} isDismissable>
      <FileSheet $width={660}>
        <Dialog>{drawn && <Asked key={drawn.imported.source} {...drawn} />}</Dialog>
      </FileSheet>
    </Shade>
  );
}
