import { useEffect, useRef, useState, type ReactNode } from 'react';
import { Button as AriaButton, ComboBox, Input, Label, ListBox, ListBoxItem, Popover, Text } from 'react-aria-components';
import styled from 'styled-components';
import { dropLine } from './controls.tsx';

const Box = styled(ComboBox)`
  display: grid;
  gap: 3px;
  font-size: 14px;
  margin: 8px 0;
  .field {
    display: flex;
    border: 1px solid var(--line);
    border-radius: 4px;
  }
  input {
    flex: 1;
    min-width: 0;
    background: transparent;
    color: var(--ink);
    border: 0;
    padding: 6px 8px;
    font: inherit;
    min-height: 34px;
  }
  button {
    border: 0;
    background: transparent;
    color: var(--ink);
    padding: 0 10px;
  }
` as typeof ComboBox;
const Drop = styled(Popover)`
  background: var(--paper);
  border: 1px solid var(--ink);
  border-radius: 4px;
  width: min(460px, 92vw);
  max-height: 320px;
  overflow: auto;
`;
const Item = styled(ListBoxItem)`
  ${dropLine}
  display: grid;
  [slot='description'] {
    color: var(--muted);
    font-size: 13px;
  }
` as typeof ListBoxItem;

/** Something found by words. */
export interface Found {
  readonly id: string;
  readonly name: string;
  readonly more: string;
}

/** A field whose words are looked up as they are typed; what is chosen stands in it, and emptied nothing is chosen. */
export function SearchField(props: {
  readonly label: string;
  readonly placeholder: string;
  readonly search: (words: string) => Promise<readonly Found[]>;
  readonly onChoose: (found: Found | null) => void;
}): ReactNode {
  const { label, placeholder, search, onChoose } = props;
  const [words, setWords] = useState('');
  const [found, setFound] = useState<readonly Found[]>([]);
  const [isLooked, setLooked] = useState(false);
  const chosen = useRef<Found | null>(null);
  const choose = (one: Found | null): void => {
    if (chosen.current === one) return;
    chosen.current = one;
    onChoose(one);
  };
  useEffect(() => {
    let isLast = true;
    if (words.trim() !== '')
      void search(words).then((list) => {
        if (!isLast) return;
        setFound(list);
        setLooked(true);
      });
    return () => {
      isLast = false;
    };
  }, [words, search]);
  return (
    <Box<Found>
      items={words.trim() === '' ? [] : found}
      inputValue={words}
      allowsCustomValue
      allowsEmptyCollection={words.trim() !== ''}
      onInputChange={(text) => {
        setWords(text);
        setLooked(false);
        // Other words mean what was chosen no longer.
        if (chosen.current && text !== chosen.current.name) choose(null);
      }}
      onSelectionChange={(key) => {
        const one = found.find((f) => f.id === key);
        if (one) choose(one);
      }}
    >
      <Label>{label}</Label>
      <div className="field">
        <Input placeholder={placeholder} />
        <AriaButton aria-label="Show what was found">▾</AriaButton>
      </div>
      <Drop>
        <ListBox<Found>
          renderEmptyState={() => (
            <p style={{ padding: '7px 12px', margin: 0 }}>{isLooked ? 'Nothing is found by these words.' : 'Looking…'}</p>
          )}
        >
          {(one) => (
            <Item id={one.id} textValue={one.name}>
              <Text slot="label">{one.name}</Text>
              <Text slot="description">{one.more}</Text>
            </Item>
          )}
        </ListBox>
      </Drop>
    </Box>
  );
}
