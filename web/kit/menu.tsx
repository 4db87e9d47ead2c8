import type { ReactNode } from 'react';
import { Menu, MenuItem, MenuTrigger, Popover } from 'react-aria-components';
import styled from 'styled-components';
import { Button, type Choice } from './controls.tsx';

const List = styled(Popover)`
  background: var(--paper);
  border: 1px solid var(--ink);
  border-radius: 4px;
  padding: 4px;
  max-height: 420px;
  overflow: auto;
  box-shadow: 0 6px 20px rgb(0 0 0 / 18%);
`;
const Item = styled(MenuItem)`
  padding: 7px 12px;
  border-radius: 3px;
  cursor: pointer;
  outline: none;
  &[data-focused] {
    background: var(--paperDeep);
  }
  @media (max-width: 700px) {
    min-height: 44px;
  }
` as typeof MenuItem;

/** A button that opens a list of things to do. */
export function ActionMenu(props: {
  readonly label: string;
  readonly icon: ReactNode;
  readonly choices: readonly Choice<string>[];
  readonly onChoose: (id: string) => void;
}): ReactNode {
  const { label, icon, choices, onChoose } = props;
  return (
    <MenuTrigger>
      <Button>
        {icon}
        {label} <span aria-hidden="true">▾</span>
      </Button>
      <List>
        <Menu items={choices} onAction={(key) => onChoose(String(key))}>
          {(c) => <Item id={c.id}>{c.name}</Item>}
        </Menu>
      </List>
    </MenuTrigger>
  );
}
