import { useState, type ReactNode } from 'react';
import { SheetTitle, TabParts, type TabOf } from '../../kit/index.ts';
import { CasesPart } from './CasesPart.tsx';
import { MarkPart } from './MarkPart.tsx';
import { OrderPart } from './OrderPart.tsx';
import { StoresPart } from './StoresPart.tsx';

type Shown = 'stores' | 'cases' | 'order' | 'mark';

const TABS: readonly TabOf<Shown>[] = [
  { id: 'stores', name: 'In the storm', show: () => <StoresPart /> },
  { id: 'cases', name: 'What if', show: () => <CasesPart /> },
  { id: 'order', name: 'What goes first', show: () => <OrderPart /> },
  { id: 'mark', name: 'What storm was that', show: () => <MarkPart /> },
];

/** The storm through all works together: store by store, what if, in what order they fail, and what storm left a mark. */
export function StormSheet(): ReactNode {
  const [shown, show] = useState<Shown>('stores');
  return (
    <>
      <SheetTitle>Storm</SheetTitle>
      <TabParts label="Parts of Storm" tabs={TABS} shown={shown} onShow={show} />
    </>
  );
}
