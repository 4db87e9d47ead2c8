import type { ReactNode } from 'react';
import type { FieldSpec } from '#core/contract';
import { type Swale, type SwalePurpose, SWALE_PURPOSES } from '#core/works';
import { asSwale, checksOf, figureOf, useChain, useDerived, useFormat, useView, useWorks } from '../../app/selectors.ts';
import { dispatch } from '../../app/store.ts';
import { CheckItem, Choose, Fact, Muted, Part, Quantity } from '../../kit/index.ts';
import { RunOnPart } from '../../stages/land/RunOnPart.tsx';
import { WaysOut } from '../shared/WaysOut.tsx';
import { StoreFacts } from '../shared/WorkSheet.tsx';
import { WorkHead } from '../WorkHead.tsx';
import { Working } from '../Working.tsx';
import { change, firstSill, withBankAbove, withDepth } from '../levels.ts';
import { JoinPart } from './JoinPart.tsx';
import { LowPlaces } from './LowPlaces.tsx';
import { SectionDrawing } from './SectionDrawing.tsx';
import { StormChart } from './StormChart.tsx';

const PURPOSES: readonly { readonly id: SwalePurpose; readonly name: string }[] = SWALE_PURPOSES.map((id) => ({
  id,
  name: id === 'spillway' ? 'be a spillway' : id,
}));

const SHAPE: readonly { readonly key: keyof Swale['dimensions']; readonly label: string; readonly kind: FieldSpec['kind'] }[] = [
  { key: 'floorWidthM', label: 'Floor width', kind: 'length' },
  { key: 'sideSlopeHV', label: 'Ditch sides, out : up', kind: 'number' },
  { key: 'bankTopM', label: 'Bank top width', kind: 'length' },
  { key: 'bankSlopeHV', label: 'Bank sides, out : up', kind: 'number' },
];

function Storm({ id }: { readonly id: string }): ReactNode {
  const derived = useDerived();
  const format = useFormat();
  const store = derived?.stores.find((s) => s.id === id);
  const runoff = derived?.runoff.find((r) => r.of === id);
  return (
    <>
      <StoreFacts id={id} />
      {store && runoff && (
        <>
          <Fact label="Its own peak, by hydrograph" value={format(runoff.hydrographPeakM3s, 'flow')} />
          <Fact label="Its own peak, rational" value={format(runoff.rationalPeakM3s, 'flow')} />
          <Fact label="Empty again after" value={format(store.drainDownH, 'hours')} />
          <StormChart id={id} />
        </>
      )}
    </>
  );
}

/** Everything about one swale. */
export function SwaleSheet({ id }: { readonly id: string }): ReactNode {
  const swale = asSwale(useWorks().find((w) => w.id === id));
  const { sills } = useChain();
  const derived = useDerived();
  const figures = useView()?.figures[id];
  const format = useFormat();
  if (!swale) return null;
  const sill = firstSill(sills);
  const run = (command: ReturnType<typeof withDepth>): void => {
    if (command) dispatch(command);
  };
  const checks = checksOf(derived, [id]);
  const lip = figureOf(figures, 'groundM');
  return (
    <>
      <WorkHead work={swale}>
        <span>to</span>
        <Choose<SwalePurpose>
          label="Purpose"
          isLabelHidden
          value={swale.purpose}
          choices={PURPOSES}
          onChange={(purpose) => dispatch(change(id, { purpose }))}
        />
      </WorkHead>
      {lip !== null && (
        <Muted>
          Level swale, {format(figureOf(figures, 'lengthM'), 'length')} on the {format(lip, 'level')} contour
        </Muted>
      )}
      <SectionDrawing swale={swale} sills={sills} />
      <Part title="Shape">
        {sill && (
          <Quantity
            label="Water depth at the sill"
            value={sill.levels.sillM - swale.levels.floorM}
            kind="length"
            min={0.05}
            max={3}
            onChange={(v) => run(withDepth(swale, sills, v))}
            help="Typing moves sill and bank together."
          />
        )}
        {sill && (
          <Quantity
            label="Bank above the sill"
            value={swale.levels.bankCrestM - sill.levels.sillM}
            kind="length"
            min={0.01}
            max={3}
            onChange={(v) => run(withBankAbove(swale, sills, v))}
          />
        )}
        {SHAPE.map(({ key, label, kind }) => (
          <Quantity
            key={key}
            label={label}
            value={swale.dimensions[key]}
            kind={kind}
            min={0}
            onChange={(v) => dispatch(change(id, { [`dimensions.${key}`]: v }))}
          />
        ))}
        <Fact label="Cut" value={format(figureOf(figures, 'cutM3'), 'volume')} />
        <Fact label="Bank" value={format(figureOf(figures, 'bankM3'), 'volume')} />
        <Fact label="Crest that uses all the cut" value={format(figureOf(figures, 'balancedCrestM'), 'level')} />
      </Part>
      <WaysOut host={swale} />
      <JoinPart swale={swale} />
      <LowPlaces swale={swale} />
      <Part title="In this storm">
        <Storm id={id} />
      </Part>
      <RunOnPart line={swale.line} />
      <Part title="Checks">
        {checks.map((c, i) => (
          <CheckItem key={`${c.id}${i}`} check={c} />
        ))}
      </Part>
      <Part title="Working">
        <Working ids={[id]} />
      </Part>
    </>
  );
}
