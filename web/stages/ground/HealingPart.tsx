import type { ReactNode } from 'react';
import { COVERS, type Healing, REST_FACTOR, type Soil, TREATMENTS, type Treatment, soilFacts } from '#core/ground';
import { healedYearsOf } from '#core/project';
import { setGround, setSoil } from '../../app/ground.ts';
import { useFormat, useProject } from '../../app/selectors.ts';
import { ChooseRow, Muted, Part, Quantity } from '../../kit/index.ts';
import { Slide } from '../../kit/toggle.tsx';

const WORDS: Readonly<Record<Treatment | 'none', string>> = {
  none: 'nothing is planned',
  rest: 'rest it',
  rip: 'rip it',
  'rip-and-rest': 'rip it and rest it',
};

/** What is planned for this ground, and what it would take in by then. */
export function HealingPart({ zone, soil }: { readonly zone: string | null; readonly soil: Soil }): ReactNode {
  const { ground } = useProject();
  const format = useFormat();
  const { healing } = soil;
  const years = healedYearsOf(ground ?? {});
  const set = (change: { readonly [K in keyof Healing]?: Healing[K] | undefined }): void => {
    const next = Object.fromEntries(Object.entries({ ...healing, ...change }).filter(([, v]) => v !== undefined));
    setSoil(zone, { healing: next as unknown as Healing });
  };
  const [now, then] = [soilFacts(soil), soilFacts(soil, { as: 'healed', years })];
  return (
    <Part title="Healing it">
      <ChooseRow<Treatment | 'none'>
        label="Plan for this ground"
        title="The plan is to"
        value={healing?.treatment ?? 'none'}
        choices={(['none', ...TREATMENTS] as const).map((id) => ({ id, name: WORDS[id] }))}
        onChange={(id) => (id === 'none' ? setSoil(zone, { healing: undefined }) : set({ treatment: id }))}
      />
      {healing && (
        <>
          <ChooseRow
            label="Cover once healed"
            title="It will be"
            value={healing.cover ?? 'same'}
            choices={[
              { id: 'same', name: 'covered as now' },
              ...COVERS.filter((c) => !c.isSealed).map((c) => ({ id: c.id, name: c.name })),
            ]}
            onChange={(id) => set({ cover: id === 'same' ? undefined : id })}
          />
          <Quantity
            label="Times its rate once healed"
            help="Left alone, it follows how compacted it is now"
            value={healing.factor ?? REST_FACTOR[soil.compaction ?? 'none']}
            kind="number"
            min={1}
            max={20}
            onChange={(factor) => set({ factor })}
          />
          <Slide
            label="Years of healing"
            value={years}
            min={1}
            max={20}
            step={1}
            words={(v) => `${v} yr`}
            onChange={(healedYears) => setGround({ healedYears }, 'healed-years')}
          />
          <p style={{ margin: '4px 0' }}>
            In {years} years it takes in <strong>{format(then.infiltrationMmPerHour, 'intensity')}</strong> instead of{' '}
            {format(now.infiltrationMmPerHour, 'intensity')}; its curve number is <strong>{then.curveNumber.toFixed(0)}</strong> instead of{' '}
            {now.curveNumber.toFixed(0)}.
          </p>
          <Muted>Common practice, no promise. At the top of the page you switch every figure between now and healed.</Muted>
        </>
      )}
    </Part>
  );
}
