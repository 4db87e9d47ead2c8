import type { ReactNode } from 'react';
import {
  COMPACTIONS,
  COVERS,
  type Compaction,
  SOIL_GROUPS,
  type Soil,
  type SoilGroup,
  conditionBy,
  soilFacts,
  soilGroupBy,
} from '#core/ground';
import { setSoil, useSoil } from '../../app/ground.ts';
import { useDerived, useFormat, useProject } from '../../app/selectors.ts';
import { Button, ChooseRow, Inline, Muted, Part, Quantity } from '../../kit/index.ts';
import { HealingPart } from './HealingPart.tsx';
import { SeenPart } from './SeenPart.tsx';
import { TexturePart } from './TexturePart.tsx';
import { WhichGround } from './WhichGround.tsx';

const GROUPS: Readonly<Record<SoilGroup, string>> = {
  A: 'A: sand, soaks fast',
  B: 'B: loam',
  C: 'C: clayey loam, soaks slowly',
  D: 'D: clay or shallow, hardly soaks',
};
const COMPACTED: Readonly<Record<Compaction, string>> = {
  none: 'loose: a rod goes in by hand',
  some: 'firm: the rod needs weight',
  severe: 'hard: the rod stops',
};

interface Of {
  readonly zone: string | null;
  readonly soil: Soil;
}

/** The soil group that rate and depth say, where it is another than the one chosen. */
function GroupAdvice({ zone, soil }: Of): ReactNode {
  const { ground } = useProject();
  const found = soilGroupBy(soil, ground?.tests ?? []);
  if (found.group === soil.soilGroup) return null;
  return (
    <Inline>
      <Muted>
        By {found.why} it is group {found.group}
        {found.isTested ? '.' : ', or better: the rate below is already divided by its safety factor.'}
      </Muted>
      <Button look="quiet" onPress={() => setSoil(zone, { soilGroup: found.group })}>
        Take {found.group}
      </Button>
    </Inline>
  );
}

function TakesIn({ zone, soil }: Of): ReactNode {
  const { ground } = useProject();
  const test = ground?.tests?.find((t) => t.id === soil.rateFrom);
  const range = soil.infiltrationRange;
  const setRange = (low: number, high: number): void => {
    setSoil(zone, { infiltrationRange: [Math.min(low, soil.infiltrationMmPerHour), Math.max(high, soil.infiltrationMmPerHour)] });
  };
  return (
    <Part title="What it takes in">
      <Quantity
        label="Soaks in, after its safety factor"
        value={soil.infiltrationMmPerHour}
        kind="intensity"
        min={0}
        max={5000}
        // A rate typed over a test's is no longer the test's, nor are its limits its own.
        onChange={(infiltrationMmPerHour) => setSoil(zone, { infiltrationMmPerHour, rateFrom: undefined, infiltrationRange: undefined })}
      />
      <Muted>
        {test ? `From ${test.name}. ` : 'Not tested yet: a ring or a hole, under Tests, tells it in an afternoon. '}
        {range ? 'Nine times in ten between:' : `Taken as known within ${test ? 'half' : 'three times'} either way.`}
      </Muted>
      {range ? (
        <>
          <Quantity label="at least" value={range[0]} kind="intensity" min={0} max={5000} onChange={(v) => setRange(v, range[1])} />
          <Quantity label="at most" value={range[1]} kind="intensity" min={0} max={5000} onChange={(v) => setRange(range[0], v)} />
        </>
      ) : (
        <Inline>
          <Button look="quiet" onPress={() => setRange(soil.infiltrationMmPerHour / 2, soil.infiltrationMmPerHour * 2)}>
            Give its limits
          </Button>
        </Inline>
      )}
      <ChooseRow<Compaction>
        label="Compacted"
        value={soil.compaction ?? 'none'}
        choices={COMPACTIONS.map((id) => ({ id, name: COMPACTED[id] }))}
        onChange={(compaction) => setSoil(zone, { compaction: compaction === 'none' ? undefined : compaction })}
      />
    </Part>
  );
}

function Sheds({ zone, soil }: Of): ReactNode {
  const derived = useDerived();
  const slope = derived?.catchments[0]?.meanSlope ?? 0.08;
  const facts = soilFacts(soil);
  const range = soil.curveNumberRange;
  return (
    <Part title="What it sheds">
      <Quantity
        label="Curve number"
        value={facts.curveNumber}
        kind="number"
        min={1}
        max={100}
        onChange={(curveNumber) => setSoil(zone, { curveNumber, curveNumberRange: undefined })}
      />
      <Quantity
        label="Runoff coefficient"
        value={facts.runoffC(slope)}
        kind="number"
        min={0}
        max={1}
        onChange={(runoffC) => setSoil(zone, { runoffC })}
      />
      {range && (
        <>
          <Quantity
            label="Curve number at least"
            value={range[0]}
            kind="number"
            min={1}
            max={range[1]}
            onChange={(v) => setSoil(zone, { curveNumberRange: [v, range[1]] })}
          />
          <Quantity
            label="Curve number at most"
            value={range[1]}
            kind="number"
            min={range[0]}
            max={100}
            onChange={(v) => setSoil(zone, { curveNumberRange: [range[0], v] })}
          />
        </>
      )}
      <Inline>
        {!range && (
          <Button
            look="quiet"
            onPress={() => setSoil(zone, { curveNumberRange: [Math.max(1, facts.curveNumber - 5), Math.min(100, facts.curveNumber + 5)] })}
          >
            Give limits of the curve number
          </Button>
        )}
        {(soil.curveNumber !== null || soil.runoffC !== null) && (
          <Button look="quiet" onPress={() => setSoil(zone, { curveNumber: null, runoffC: null })}>
            Take both from the tables again
          </Button>
        )}
      </Inline>
      <Muted>
        {soil.curveNumber === null ? 'Curve number from TR-55 Table 2-2 for this cover and soil group.' : 'Curve number set by you.'}{' '}
        {soil.runoffC === null ? 'Coefficient from the rural table of Schwab et al. at the catchment’s slope.' : 'Coefficient set by you.'}
      </Muted>
    </Part>
  );
}

/** What one kind of ground is: soil, cover, and what follows for water. */
export function SoilPart(): ReactNode {
  const { zone, soil } = useSoil();
  const format = useFormat();
  if (!soil) return null;
  const set = (change: Parameters<typeof setSoil>[1]): boolean => setSoil(zone, change);
  const bare = soil.seen?.barePercent;
  return (
    <>
      <WhichGround />
      <Part title="What it is">
        <ChooseRow
          label="Cover"
          value={soil.cover}
          choices={COVERS.map((c) => ({ id: c.id, name: c.name }))}
          onChange={(cover) => set({ cover })}
        />
        {bare !== undefined && (
          <Muted>
            Seen {Math.round(100 - bare)} % covered: {conditionBy(bare)} condition.
          </Muted>
        )}
        <ChooseRow<SoilGroup>
          label="Soil group"
          value={soil.soilGroup}
          choices={SOIL_GROUPS.map((id) => ({ id, name: GROUPS[id] }))}
          onChange={(soilGroup) => set({ soilGroup })}
        />
        <GroupAdvice zone={zone} soil={soil} />
        <TexturePart key={zone ?? 'all'} zone={zone} soil={soil} />
        <Quantity
          label="Soil depth to rock or a tight layer"
          value={soil.soilDepthM}
          kind="length"
          min={0}
          max={100}
          onChange={(soilDepthM) => set({ soilDepthM })}
        />
        <Quantity
          label="Depth to water in the wet season"
          value={soil.waterDepthM ?? null}
          kind="length"
          min={0}
          max={100}
          onChange={(waterDepthM) => set({ waterDepthM })}
        />
        {soil.waterDepthM !== undefined && (
          <Inline>
            <Button look="quiet" onPress={() => set({ waterDepthM: undefined })}>
              No water within reach
            </Button>
          </Inline>
        )}
        {soil.waterDepthM !== undefined && soil.waterDepthM < soil.soilDepthM && (
          <Muted>Works reach down to {format(soil.waterDepthM, 'length')}: water counts as rock does.</Muted>
        )}
      </Part>
      <SeenPart zone={zone} soil={soil} />
      <TakesIn zone={zone} soil={soil} />
      <HealingPart zone={zone} soil={soil} />
      <Sheds zone={zone} soil={soil} />
    </>
  );
}
