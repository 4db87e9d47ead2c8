import { useState, type ReactNode } from 'react';
import { useProject } from '../../app/selectors.ts';
import { SheetTitle, TabParts, type TabOf } from '../../kit/index.ts';
import { GaugePart } from './GaugePart.tsx';
import { SeasonsPart } from './SeasonsPart.tsx';
import { StormPart } from './StormPart.tsx';
import { TablePart } from './TablePart.tsx';
import { WhichPart } from './WhichPart.tsx';

type Shown = 'storm' | 'table' | 'gauge' | 'seasons' | 'which';

const TABS: readonly TabOf<Shown>[] = [
  { id: 'storm', name: 'Storm', show: () => <StormPart /> },
  { id: 'table', name: 'Table', show: () => <TablePart /> },
  { id: 'gauge', name: 'Gauge', show: () => <GaugePart /> },
  { id: 'seasons', name: 'Seasons', show: () => <SeasonsPart /> },
  { id: 'which', name: 'How rare?', show: () => <WhichPart /> },
];

/** How hard it rains: the storm designed for, the table it comes from, the gauge behind that, when it rains, and how rare a reading was. */
export function RainSheet(): ReactNode {
  const { rain } = useProject();
  const [shown, show] = useState<Shown>(rain ? 'storm' : 'table');
  return (
    <>
      <SheetTitle>Rain</SheetTitle>
      <TabParts label="Parts of Rain" tabs={TABS} shown={shown} onShow={show} />
    </>
  );
}
