import type { ReactNode } from 'react';
import { Dialog, Modal, ModalOverlay } from 'react-aria-components';
import styled from 'styled-components';

/** What darkens the page under a question. */
export const Shade = styled(ModalOverlay)`
  position: fixed;
  inset: 0;
  background: rgb(0 0 0 / 40%);
  display: grid;
  place-items: center;
  z-index: 10;
`;

/** The sheet a question stands on, over the page. */
export const OverSheet = styled(Modal)`
  background: var(--paper);
  border: 1px solid var(--ink);
  border-radius: 4px;
  padding: 20px 26px;
  max-width: 94vw;
  max-height: 86vh;
  overflow: auto;
  [role='dialog'] {
    outline: none;
  }
  p {
    margin: 8px 0;
  }
`;

/** The same for a question about a file, so many pixels wide; its title may be a long name. */
export const FileSheet = styled(OverSheet)<{ $width: number }>`
  width: min(${({ $width }) => $width}px, 96vw);
  h2 {
    margin: 0 0 6px;
    overflow-wrap: anywhere;
  }
`;

/** A question about a file over the page, so wide; left by a click beside it, or by Escape. */
export function FileQuestion({ width, onLeave, children }: { readonly width: number; readonly onLeave: () => void; readonly children: ReactNode }): ReactNode {
  return (
    <Shade isOpen onOpenChange={(isOpen) => !isOpen && onLeave()} isDismissable>
      <FileSheet $width={width}>
        <Dialog>{children}</Dialog>
      </FileSheet>
    </Shade>
  );
} // prettier-ignore
