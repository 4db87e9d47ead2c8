import type { ReactNode } from 'react';
import {
  type FieldTest,
  HARMS,
  type Harm,
  LEAST_SAFETY,
  designRateOf,
  isSettledBy,
  reduceTest,
  safetyFor,
  settledBy,
  soilGroupBy,
  testKind,
} from '#core/ground';
import { useState } from 'react';
import { setSoil } from '../../app/ground.ts';
import { useFormat, useProject } from '../../app/selectors.ts';
import { dispatch } from '../../app/store.ts';
import { Button, Choose, ChooseRow, Fact, Inline, Muted, Part, Quantity, Row } from '../../kit/index.ts';
import { LineSteps } from '../../works/Working.tsx';
import { PasteReadings } from './PasteReadings.tsx';
import { RateChart } from './RateChart.tsx';
import { Readings } from './Readings.tsx';

const HARM_WORDS: Readonly<Record<Harm, string>> = { none: 'nobody minds', nuisance: 'it is a nuisance', damage: 'something is damaged' };

/** Which safety factor fits. */
function SafetyPart({ test }: { readonly test: FieldTest }): ReactNode {
  const [areaM2, setArea] = useState(1000);
  const [harm, setHarm] = useState<Harm>('nuisance');
  const safety = test.safety ?? LEAST_SAFETY;
  const advised = safetyFor(areaM2, harm);
  const set = (value: number): boolean => dispatch({ type: 'test.change', payload: { id: test.id, set: { safety: value } } });
  return (
    <Part title="Safety factor">
      <Quantity label="Ground drained to the work" value={areaM2} kind="area" min={1} max={1e7} onChange={setArea} />
      <ChooseRow<Harm>
        label="If it overflows"
        value={harm}
        choices={HARMS.map((id) => ({ id, name: HARM_WORDS[id] }))}
        onChange={setHarm}
      />
      <Quantity label="Divide the tested rate by" value={safety} kind="number" min={1} max={20} onChange={set} />
      <Inline>
        <Muted>
          {advised} is advised here (CIRIA 753), {LEAST_SAFETY} the least in use: one test in one place, silt to come, another season.
        </Muted>
        {advised !== safety && (
          <Button look="quiet" onPress={() => set(advised)}>
            Divide by {advised}
          </Button>
        )}
      </Inline>
    </Part>
  );
}

/** What the test comes to, and for which ground it is used. */
function ResultPart({ test }: { readonly test: FieldTest }): ReactNode {
  const { ground } = useProject();
  const format = useFormat();
  const found = reduceTest(test);
  const design = designRateOf(test);
  const zone = ground?.zones?.find((z) => z.id === test.zone);
  const soil = zone ?? ground;
  if (!soil) return null;
  const rate = (v: number): string => format(v, 'intensity');
  const isUsed = isSettledBy(test, soil);
  const settled = settledBy(test, soil);
  const group = soilGroupBy({ ...soil, rateFrom: test.id }, [test]);
  const use = (withGroup: boolean): void => {
    if (settled) setSoil(test.zone, withGroup ? settled : { ...settled, soilGroup: soil.soilGroup });
  };
  return (
    <Part title="What it says">
      {design ? (
        <p role="status" style={{ fontSize: 17, margin: '2px 0 6px' }}>
          This ground takes in <strong>{rate(design.testedMmPerHour)}</strong>; design with <strong>{rate(design.rateMmPerHour)}</strong>.
        </p>
      ) : null}
      <Muted>{found.says}</Muted>
      {design && <Fact label={`Soil group, by ${group.why}`} value={group.group} />}
      {design && (
        <Inline>
          <Button look={isUsed ? 'plain' : 'strong'} isDisabled={isUsed} onPress={() => use(true)}>
            {isUsed ? `Used for ${zone?.name ?? 'the property'}` : `Use it for ${zone?.name ?? 'the property'}`}
          </Button>
          {!isUsed && group.group !== soil.soilGroup && (
            <Button look="quiet" onPress={() => use(false)}>
              Rate only, keep group {soil.soilGroup}
            </Button>
          )}
        </Inline>
      )}
      <RateChart found={found} />
      {found.lines.length > 0 && (
        <>
          <Muted style={{ marginTop: 8 }}>Working of the last interval:</Muted>
          <LineSteps lines={found.lines} />
        </>
      )}
    </Part>
  );
}

/** One test, as it is read and what it comes to. */
export function TestPage({ test }: { readonly test: FieldTest }): ReactNode {
  const { ground } = useProject();
  const kind = testKind(test.kind);
  if (!kind) return null;
  const zones = ground?.zones ?? [];
  return (
    <>
      <Part title={`${test.name}: ${kind.title.toLowerCase()}`}>
        <Muted>{kind.says}</Muted>
        {zones.length > 0 && (
          <Row>
            <Choose
              label="It speaks for"
              value={test.zone ?? 'all'}
              choices={[{ id: 'all', name: 'the property' }, ...zones.map((z) => ({ id: z.id, name: z.name }))]}
              onChange={(id) => dispatch({ type: 'test.change', payload: { id: test.id, set: { zone: id === 'all' ? null : id } } })}
            />
          </Row>
        )}
        {kind.sizes.map((s) => (
          <Quantity
            key={s.id}
            label={s.label}
            help={s.help}
            kind={s.kind}
            min={s.min}
            max={s.max}
            value={test.sizes[s.id] ?? null}
            onChange={(v) => dispatch({ type: 'test.change', payload: { id: test.id, set: { [`sizes.${s.id}`]: v } } })}
          />
        ))}
      </Part>
      <Readings test={test} reads={kind.reads} />
      <PasteReadings test={test} />
      <ResultPart test={test} />
      <SafetyPart test={test} />
    </>
  );
}
