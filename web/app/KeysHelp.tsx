import type { ReactNode } from 'react';
import { Dialog, Heading } from 'react-aria-components';
import styled from 'styled-components';
import { Button, OverSheet, Shade } from '../kit/index.ts';

const Sheet = styled(OverSheet)`
  dl {
    display: grid;
    grid-template-columns: auto 1fr;
    gap: 6px 18px;
    margin: 14px 0;
  }
  dt {
    font-weight: 700;
  }
  dd {
    margin: 0;
  }
`;

const KEYS: readonly (readonly [string, string])[] = [
  ['Tab to the plan, then arrows', 'move the crosshair by a cell; with Shift by ten'],
  ['Enter', 'place a point; again on the same place to finish'],
  ['Backspace', 'take the last point back'],
  ['Escape', 'put the tool away'],
  ['+ and −', 'zoom'],
  ['Arrows on a level mark', 'raise or lower it by 10 mm; Page Up and Down by 100 mm'],
  ['Arrows on a long section', 'move along it; Page Up and Down by a tenth'],
  ['Ctrl Z, Ctrl Shift Z', 'undo, redo'],
  ['?', 'this list'],
];

/** The list of keys, on ? and from the header. */
export function KeysHelp({ onChange }: { readonly onChange: (open: boolean) => void }): ReactNode {
  return (
    <Shade isOpen onOpenChange={onChange} isDismissable>
      <Sheet>
        <Dialog>
          <Heading slot="title">Keys</Heading>
          <dl>
            {KEYS.map(([key, what]) => (
              <div key={key} style={{ display: 'contents' }}>
                <dt>{key}</dt>
                <dd>{what}</dd>
              </div>
            ))}
          </dl>
          <Button onPress={() => onChange(false)}>Close</Button>
        </Dialog>
      </Sheet>
    </Shade>
  );
}
