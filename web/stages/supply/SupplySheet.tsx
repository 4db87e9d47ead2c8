import { useState, type ReactNode } from 'react';
import { SheetTitle, TabParts, type TabOf } from '../../kit/index.ts';
import { useProject } from '../../app/selectors.ts';
import { hasDays } from '../../app/season.ts';
import { LivePart } from './LivePart.tsx';
import { NeedsPart } from './NeedsPart.tsx';
import { PlacePart } from './PlacePart.tsx';
import { QuickPart } from './QuickPart.tsx';
import { SizesPart } from './SizesPart.tsx';
import { YearPart } from './YearPart.tsx';

type Shown = 'year' | 'needs' | 'size' | 'quick' | 'place' | 'live';

const TABS: readonly TabOf<Shown>[] = [
  { id: 'year', name: 'The year', show: () => <YearPart /> },
  { id: 'needs', name: 'Needs', show: () => <NeedsPart /> },
  { id: 'size', name: 'How big', show: () => <SizesPart /> },
  { id: 'quick', name: 'Quick answer', show: () => <QuickPart /> },
  { id: 'place', name: 'The place', show: () => <PlacePart /> },
  { id: 'live', name: 'Live', show: () => <LivePart /> },
];

/** Water through the year: what is asked and met, how large a store should be, and what is known of the place. */
export function SupplySheet(): ReactNode {
  const project = useProject();
  const hasWorks = project.options.some((o) => o.works.length > 0);
  const [shown, show] = useState<Shown>(!hasDays(project) ? 'place' : hasWorks ? 'year' : 'quick');
  return (
    <>
      <SheetTitle>Supply</SheetTitle>
      <TabParts label="Parts of Supply" tabs={TABS} shown={shown} onShow={show} />
    </>
  );
}
