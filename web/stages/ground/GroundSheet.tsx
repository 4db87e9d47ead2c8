import type { ReactNode } from 'react';
import { COVERS, SOIL_GROUPS, type SoilGroup, coverOf, curveNumberOf, runoffCoefficientOf } from '#core/ground';
import type { Ground } from '#core/project';
import { dispatch } from '../../app/store.ts';
import { useDerived, useFormat, useProject } from '../../app/selectors.ts';
import { Button, Choose, Fact, Inline, Muted, Part, Quantity, Row, SheetTitle } from '../../kit/index.ts';
import { Working } from '../../works/Working.tsx';

/** A start to correct, never used unless the user takes it. */
const START: Ground = { soilGroup: 'C', cover: 'pasture-fair', curveNumber: null, runoffC: null, infiltrationMmPerHour: 10, soilDepthM: 1 };

const GROUPS: Readonly<Record<SoilGroup, string>> = {
  A: 'A: sand, soaks fast',
  B: 'B: loam',
  C: 'C: clayey loam, soaks slowly',
  D: 'D: clay or shallow, hardly soaks',
};

/** One zone of ground: what it sheds and what it takes in. */
export function GroundSheet(): ReactNode {
  const { ground, pins } = useProject();
  const derived = useDerived();
  const format = useFormat();
  const set = (part: Partial<Ground>): void => {
    dispatch({ type: 'ground.set', payload: { ground: { ...(ground ?? START), ...part } } });
  };
  if (!ground) {
    return (
      <>
        <SheetTitle>Ground</SheetTitle>
        <Muted>Say what covers the ground and how it takes in water. Begin with fair pasture on clayey loam and correct each line.</Muted>
        <Inline>
          <Button look="strong" onPress={() => set({})}>
            Describe the ground
          </Button>
        </Inline>
      </>
    );
  }
  const cover = coverOf(ground.cover);
  const runoff = derived?.runoff[0];
  const slope = derived?.catchments[0]?.meanSlope ?? 0.08;
  const subject = derived?.runoff[0]?.of ?? pins[0]?.id ?? '';
  return (
    <>
      <SheetTitle>Ground</SheetTitle>
      <Muted>One kind of ground for the whole property.</Muted>
      <Part title="What it is">
        <Row>
          <span>Soil group</span>
          <Choose<SoilGroup>
            label="Soil group"
            isLabelHidden
            value={ground.soilGroup}
            choices={SOIL_GROUPS.map((id) => ({ id, name: GROUPS[id] }))}
            onChange={(soilGroup) => set({ soilGroup })}
          />
        </Row>
        <Row>
          <span>Cover</span>
          <Choose
            label="Cover"
            isLabelHidden
            value={ground.cover}
            choices={COVERS.map((c) => ({ id: c.id, name: c.name }))}
            onChange={(id) => set({ cover: id })}
          />
        </Row>
        <Quantity
          label="Soaks in, after its safety factor"
          value={ground.infiltrationMmPerHour}
          kind="intensity"
          min={0}
          max={5000}
          onChange={(infiltrationMmPerHour) => set({ infiltrationMmPerHour })}
        />
        <Quantity
          label="Soil depth to rock or water"
          value={ground.soilDepthM}
          kind="length"
          min={0}
          max={100}
          onChange={(soilDepthM) => set({ soilDepthM })}
        />
      </Part>
      <Part title="What it sheds">
        <Quantity
          label="Curve number"
          value={ground.curveNumber ?? curveNumberOf(cover, ground.soilGroup)}
          kind="number"
          min={1}
          max={100}
          onChange={(curveNumber) => set({ curveNumber })}
        />
        <Quantity
          label="Runoff coefficient"
          value={ground.runoffC ?? runoffCoefficientOf(cover, ground.soilGroup, slope)}
          kind="number"
          min={0}
          max={1}
          onChange={(runoffC) => set({ runoffC })}
        />
        {(ground.curveNumber !== null || ground.runoffC !== null) && (
          <Inline>
            <Button look="quiet" onPress={() => set({ curveNumber: null, runoffC: null })}>
              Take both from the tables again
            </Button>
          </Inline>
        )}
        <Muted>
          {ground.curveNumber === null ? 'Curve number from TR-55 Table 2-2 for this cover and soil group.' : 'Curve number set by you.'}{' '}
          {ground.runoffC === null
            ? 'Coefficient from the rural table of Schwab et al. at the catchment’s slope.'
            : 'Coefficient set by you.'}
        </Muted>
      </Part>
      {runoff && (
        <Part title="In the design storm">
          <Fact label="Rain" value={format(runoff.rainMm, 'rain')} />
          <Fact label="Runs off" value={format(runoff.runoffMm, 'rain')} />
          <Fact label="Time of concentration" value={format(runoff.tcMin, 'minutes')} />
        </Part>
      )}
      {runoff && (
        <Part title="Working">
          <Working ids={[subject]} />
        </Part>
      )}
    </>
  );
}
