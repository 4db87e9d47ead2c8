import type { ReactNode } from 'react';
import {
  Button as AriaButton,
  type ButtonProps,
  Label,
  ListBox,
  ListBoxItem,
  Popover,
  Select as AriaSelect,
  SelectValue,
} from 'react-aria-components';
import styled, { css } from 'styled-components';
import { Row } from './layout.tsx';

const pressable = css`
  border: 1px solid var(--ink);
  background: transparent;
  color: var(--ink);
  border-radius: 4px;
  padding: 6px 12px;
  min-height: 34px;
  font-weight: 500;
  cursor: pointer;
  display: inline-flex;
  align-items: center;
  gap: 7px;
  &[data-hovered] {
    background: var(--paperDeep);
  }
  &[data-disabled] {
    opacity: 0.45;
    cursor: default;
  }
  @media (max-width: 700px) {
    min-height: 44px;
  }
`;

const Plain = styled(AriaButton)`
  ${pressable}
  border-color: var(--line);
`;
const Strong = styled(AriaButton)`
  ${pressable}
  background: var(--deepWater);
  border-color: var(--deepWater);
  color: var(--onDeep);
  &[data-hovered] {
    background: var(--water);
  }
`;
const Quiet = styled(AriaButton)`
  ${pressable}
  border-color: transparent;
  padding: 4px 6px;
  min-height: 28px;
  color: var(--water);
`;

export function Button({ look = 'plain', ...props }: ButtonProps & { readonly look?: 'plain' | 'strong' | 'quiet' }): ReactNode {
  const Look = look === 'strong' ? Strong : look === 'quiet' ? Quiet : Plain;
  return <Look {...props} />;
}

const Field = styled(AriaSelect)`
  display: inline-flex;
  align-items: center;
  gap: 7px;
` as typeof AriaSelect;
const Trigger = styled(AriaButton)`
  border: 0;
  border-bottom: 1.5px solid var(--water);
  background: transparent;
  color: var(--ink);
  padding: 3px 2px;
  min-height: 28px;
  display: inline-flex;
  align-items: center;
  gap: 4px;
  max-width: 250px;
  cursor: pointer;
  text-align: left;
  font-weight: 600;
  @media (max-width: 700px) {
    min-height: 44px;
  }
`;
/** The list that opens below a button, and one of its lines. */
export const DropList = styled(Popover)`
  background: var(--paper);
  border: 1px solid var(--ink);
  border-radius: 4px;
  padding: 4px;
  max-height: 420px;
  overflow: auto;
  box-shadow: 0 6px 20px rgb(0 0 0 / 18%);
`;
export const dropLine = css`
  padding: 7px 12px;
  border-radius: 3px;
  cursor: pointer;
  outline: none;
  &[data-focused] {
    background: var(--paperDeep);
  }
  &[data-selected] {
    font-weight: 700;
  }
  @media (max-width: 700px) {
    min-height: 44px;
  }
`;
const Item = styled(ListBoxItem)`
  ${dropLine}
` as typeof ListBoxItem;
const SmallLabel = styled(Label)`
  color: var(--muted);
`;

export interface Choice<T extends string> {
  readonly id: T;
  readonly name: string;
}

/** One of a few. */
export function Choose<T extends string>(props: {
  readonly label: string;
  readonly value: T;
  readonly choices: readonly Choice<T>[];
  readonly onChange: (value: T) => void;
  readonly isLabelHidden?: boolean;
}): ReactNode {
  const { label, value, choices, onChange, isLabelHidden } = props;
  return (
    <Field selectedKey={value} onSelectionChange={(key) => onChange(key as T)} {...(isLabelHidden === true ? { 'aria-label': label } : {})}>
      {isLabelHidden === true ? null : <SmallLabel>{label}</SmallLabel>}
      <Trigger>
        <SelectValue /> <span aria-hidden="true">▾</span>
      </Trigger>
      <DropList>
        <ListBox items={choices}>{(c) => <Item id={c.id}>{c.name}</Item>}</ListBox>
      </DropList>
    </Field>
  );
}

/** One of a few on a line of its own; `title` shows where the line says less than the label a screen reader needs. */
export function ChooseRow<T extends string>({
  title,
  ...choose
}: Omit<Parameters<typeof Choose<T>>[0], 'isLabelHidden'> & { readonly title?: string }): ReactNode {
  return (
    <Row>
      <span>{title ?? choose.label}</span>
      <Choose {...choose} isLabelHidden />
    </Row>
  );
}
