import { Layers } from 'lucide-react';
import type { ReactNode } from 'react';
import { RAIN_EROSIVITY, SILT_DENSITY } from '#core/runoff';
import { setGround } from '../../app/ground.ts';
import { setLand, useLand } from '../../app/land.ts';
import { useAskRain } from '../../app/rain.ts';
import { useDerived, useFormat, useProject, useWorks } from '../../app/selectors.ts';
import { Button, Inline, Muted, Part, Quantity, Table } from '../../kit/index.ts';
import { Toggle } from '../../kit/toggle.tsx';
import { Working } from '../../works/Working.tsx';

/** Loss many soils are held to bear for good [t/(ha yr)]: common practice. */
const BEARABLE_T = 10;

function yearsText(years: number | null, format: (v: number, kind: 'years') => string): string {
  if (years === null) return 'never';
  return years > 100 ? 'over 100 yr' : years < 1 ? 'under a year' : format(years, 'years');
}

/** Soil worn off in a mean year, where, and what of it reaches each work. */
export function ErosionPart(): ReactNode {
  const { ground, gauge } = useProject();
  const derived = useDerived();
  const works = useWorks();
  const format = useFormat();
  const overlay = useLand((s) => s.overlay);
  const seasons = useAskRain('seasons', gauge ? {} : null);
  const erosion = ground?.erosion;
  const told = derived?.erosion;
  const meanMm = seasons?.meanYearMm;
  const isGauged = meanMm !== undefined && meanMm !== null && erosion !== undefined && Math.abs(erosion.annualMm - meanMm) < 1;
  return (
    <>
      <Part title="Soil worn off in a year">
        <Quantity
          label="Rain of a mean year"
          value={erosion?.annualMm ?? null}
          kind="rain"
          min={0}
          max={15_000}
          onChange={(annualMm) => setGround({ erosion: { ...erosion, annualMm } })}
        />
        {meanMm !== undefined && meanMm !== null && !isGauged && (
          <Inline>
            <Button look={erosion ? 'quiet' : 'strong'} onPress={() => setGround({ erosion: { ...erosion, annualMm: meanMm } })}>
              Take {format(meanMm, 'rain')} from your gauge
            </Button>
          </Inline>
        )}
        {!erosion && <Muted>With the rain of a year, the terrain and each kind of ground tell how much soil is worn off, and where.</Muted>}
        {erosion && (
          <>
            <Quantity
              label="Erosivity of the rain (MJ·mm/ha·h·yr)"
              help="From the yearly rain unless a local figure is known"
              value={erosion.erosivity ?? RAIN_EROSIVITY.evaluate({ P: erosion.annualMm })}
              kind="number"
              min={0}
              max={100_000}
              onChange={(erosivity) => setGround({ erosion: { ...erosion, erosivity } })}
            />
            {erosion.erosivity !== undefined && (
              <Inline>
                <Button
                  look="quiet"
                  onPress={() =>
                    setGround({ erosion: { annualMm: erosion.annualMm, ...(erosion.onContour === true ? { onContour: true } : {}) } })
                  }
                >
                  Take it from the yearly rain again
                </Button>
              </Inline>
            )}
            <Toggle
              label="Worked along the contour"
              isOn={erosion.onContour === true}
              onChange={(onContour) => setGround({ erosion: { ...erosion, onContour } })}
            />
          </>
        )}
      </Part>
      {told && (
        <Part title="What it comes to">
          <p style={{ margin: '4px 0' }}>
            About <strong>{format(told.perHaT, 'soilLoss')}</strong> a year, <strong>{format(told.wholeT, 'mass')}</strong> from the
            property.{' '}
            {told.perHaT > BEARABLE_T
              ? `More than the ${format(BEARABLE_T, 'soilLoss')} many soils bear: cover it first.`
              : `Many soils bear ${format(BEARABLE_T, 'soilLoss')}.`}
          </p>
          <Table
            caption="Soil loss by kind of ground"
            head={['', 'a year']}
            rows={told.bySurface.map((s) => [s.name, s.perHaT === null ? 'none here' : format(s.perHaT, 'soilLoss')])}
          />
          <Inline>
            <Button onPress={() => setLand({ overlay: overlay === 'soil-loss' ? 'none' : 'soil-loss' })}>
              <Layers size={15} aria-hidden />
              {overlay === 'soil-loss' ? 'Hide it on the plan' : 'Show it on the plan'}
            </Button>
          </Inline>
          <Muted>
            Sheet and rill wash by the revised universal equation, slopes by the grid and cut short where a work catches water. No gullies,
            no single storm, and slopes over about 32 % are beyond what it was made for: compare by it.
          </Muted>
        </Part>
      )}
      {told && told.works.length > 0 && (
        <Part title="What reaches your works">
          <Table
            caption="Soil that reaches each work in a year"
            head={['', 'worn off', 'arrives', 'a fifth is silt in']}
            rows={told.works.map((w) => [
              works.find((x) => x.id === w.of)?.name ?? w.of,
              format(w.wornT, 'mass'),
              `${format(w.arrivesT, 'mass')}, ${format(w.arrivesM3, 'volume')}`,
              yearsText(w.yearsToFifth, format),
            ])}
          />
          <Muted>Silt is counted at {SILT_DENSITY} t/m³ as it settles.</Muted>
        </Part>
      )}
      {told && (
        <Part title="Working of one slope">
          <Muted>A slope of 22.1 m at 9 %, the plot the equation was made on; the map does the same cell by cell.</Muted>
          <Working ids={told.bySurface.map((s) => s.id)} />
        </Part>
      )}
    </>
  );
}
