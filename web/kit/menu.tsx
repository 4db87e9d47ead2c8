import type { ReactNode } from 'react';
import { Collection, Header, Menu, MenuItem, MenuSection, MenuTrigger } from 'react-aria-components';
import styled from 'styled-components';
import { Button, type Choice, DropList, dropLine } from './controls.tsx';

const Item = styled(MenuItem)`
  ${dropLine}
` as typeof MenuItem;

const Head = styled(Header)`
  padding: 10px 11px 2px;
  font-size: 13px;
  font-weight: 700;
  color: var(--muted);
`;

/** Things to do under one head. */
export interface ChoicesUnder {
  readonly id: string;
  readonly head: string;
  readonly choices: readonly Choice<string>[];
}

/** A button that opens a list of things to do. */
export function ActionMenu(props: {
  readonly label: string;
  readonly icon: ReactNode;
  readonly choices: readonly Choice<string>[] | readonly ChoicesUnder[];
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
        <Menu<Choice<string> | ChoicesUnder> items={choices} onAction={(key) => onChoose(String(key))}>
          {(c) =>
            'head' in c ? (
              <MenuSection id={c.id}>
                <Head>{c.head}</Head>
                <Collection items={c.choices}>{(one) => <Item id={one.id}>{one.name}</Item>}</Collection>
              </MenuSection>
            ) : (
              <Item id={c.id}>{c.name}</Item>
            )
          }
        </Menu>
      </DropList>
    </MenuTrigger>
  );
}
