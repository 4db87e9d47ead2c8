import type { ReactNode } from 'react';
import { Menu, MenuItem, MenuTrigger } from 'react-aria-components';
import styled from 'styled-components';
import { Button, type Choice, DropList, dropLine } from './controls.tsx';

const Item = styled(MenuItem)`
  ${dropLine}
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
      <DropList>
        <Menu items={choices} onAction={(key) => onChoose(String(key))}>
          {(c) => <Item id={c.id}>{c.name}</Item>}
        </Menu>
      </DropList>
    </MenuTrigger>
  );
}
