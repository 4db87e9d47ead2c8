import type { ReactNode } from 'react';
import { Tab, TabList, TabPanel, Tabs } from 'react-aria-components';
import styled from 'styled-components';

const Strip = styled(TabList)`
  display: flex;
  flex-wrap: wrap;
  gap: 0 16px;
  margin: 10px 0 2px;
  border-bottom: 1px solid var(--line);
` as typeof TabList;
const Name = styled(Tab)`
  padding: 6px 0;
  cursor: pointer;
  color: var(--muted);
  border-bottom: 2.5px solid transparent;
  margin-bottom: -1px;
  outline: none;
  font-weight: 500;
  &[data-hovered] {
    color: var(--ink);
  }
  &[data-selected] {
    color: var(--ink);
    border-color: var(--water);
    font-weight: 700;
  }
  &[data-focus-visible] {
    outline: 2px solid var(--water);
    outline-offset: 2px;
  }
  @media (max-width: 700px) {
    min-height: 44px;
    display: flex;
    align-items: center;
  }
`;

export interface TabOf<T extends string> {
  readonly id: T;
  readonly name: string;
  readonly show: () => ReactNode;
}

/** Parts of a sheet of which one is shown. */
export function TabParts<T extends string>({
  label,
  tabs,
  shown,
  onShow,
}: {
  readonly label: string;
  readonly tabs: readonly TabOf<T>[];
  readonly shown: T;
  readonly onShow: (id: T) => void;
}): ReactNode {
  return (
    <Tabs selectedKey={shown} onSelectionChange={(key) => onShow(key as T)}>
      <Strip aria-label={label}>
        {tabs.map((t) => (
          <Name key={t.id} id={t.id}>
            {t.name}
          </Name>
        ))}
      </Strip>
      {tabs.map((t) => (
        <TabPanel key={t.id} id={t.id}>
          {t.show()}
        </TabPanel>
      ))}
    </Tabs>
  );
}
