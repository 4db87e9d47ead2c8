import { useState, type ReactNode } from 'react';
import { START, setGround } from '../../app/ground.ts';
import { useProject } from '../../app/selectors.ts';
import { Button, Inline, Muted, SheetTitle, TabParts, type TabOf } from '../../kit/index.ts';
import { ErosionPart } from './ErosionPart.tsx';
import { LeavesPart } from './LeavesPart.tsx';
import { RainOnIt } from './RainOnIt.tsx';
import { RunoffPart } from './RunoffPart.tsx';
import { SoilPart } from './SoilPart.tsx';
import { TestsPart } from './TestsPart.tsx';

type Shown = 'soil' | 'tests' | 'rain' | 'runoff' | 'leaves' | 'erosion';

const TABS: readonly TabOf<Shown>[] = [
  { id: 'soil', name: 'Ground', show: () => <SoilPart /> },
  { id: 'tests', name: 'Tests', show: () => <TestsPart /> },
  { id: 'rain', name: 'Rain on it', show: () => <RainOnIt /> },
  { id: 'runoff', name: 'Runoff', show: () => <RunoffPart /> },
  { id: 'leaves', name: 'Leaves', show: () => <LeavesPart /> },
  { id: 'erosion', name: 'Soil loss', show: () => <ErosionPart /> },
];

/** The ground: what it is, how it was tested, what rain does on it, what runs off and leaves, and what soil goes with it. */
export function GroundSheet(): ReactNode {
  const { ground } = useProject();
  const [shown, show] = useState<Shown>('soil');
  if (!ground) {
    return (
      <>
        <SheetTitle>Ground</SheetTitle>
        <Muted>Say what covers the ground and how it takes in water. Begin with fair pasture on clayey loam and correct each line.</Muted>
        <Inline>
          <Button look="strong" onPress={() => setGround(START)}>
            Describe the ground
          </Button>
        </Inline>
      </>
    );
  }
  return (
    <>
      <SheetTitle>Ground</SheetTitle>
      {ground.isExample && (
        <Inline>
          <Button onPress={() => setGround({})}>My ground is so</Button>
          <Muted style={{ color: 'var(--alarm)' }}>This ground is not yours yet: correct what is different.</Muted>
        </Inline>
      )}
      <TabParts label="Parts of Ground" tabs={TABS} shown={shown} onShow={show} />
    </>
  );
}
