import { Popover } from 'react-aria-components';
import styled from 'styled-components';

/** What opens under a button, over the page. */
export const Pop = styled(Popover)`
  background: var(--paper);
  border: 1px solid var(--ink);
  border-radius: 4px;
  width: min(440px, 94vw);
  max-height: 76vh;
  overflow: auto;
  padding: 14px 18px;
  box-shadow: 0 8px 26px rgb(0 0 0 / 20%);
`;
