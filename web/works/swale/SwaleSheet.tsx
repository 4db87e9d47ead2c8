import { Suspense, type ReactNode } from 'react';
import type { FieldSpec } from '#core/contract';
import { type Swale, type SwalePurpose, SWALE_PURPOSES } from '#core/works';
import { figureOf, useChain, useDerived, useFormat, useView } from '../../app/selectors.ts';
import { dispatch } from '../../app/store.ts';
import { Choose, Fact, FoldPart, InSight, Muted, Quantity } from '../../kit/index.ts';
import { lazily } from '../../kit/lazily.ts';
import { RunOnPart } from '../../stages/land/RunOnPart.tsx';
import { WorkLists } from '../shared/Fields.tsx';
import { MakingPart } from '../shared/MakingPart.tsx';
import { WaysOut } from '../shared/WaysOut.tsx';
import { BelowPart } from '../shared/BelowPart.tsx';
import { FoundPart } from '../shared/FoundPart.tsx';
import { FineChecks, StoreFacts, ToMend } from '../shared/WorkSheet.tsx';
import { WorkHead } from '../WorkHead.tsx';
import { WorkingPart } from '../Working.tsx';
import { change, crestsAmong, firstSill } from '../levels.ts';
import { withBankAbove, withDepth } from './depth.ts';
import { JoinPart } from './JoinPart.tsx';
import { SectionDrawing } from './SectionDrawing.tsx';

const { View: StormChart } = lazily(() => import('./StormChart.tsx'), 'StormChart');

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
          {store.soilShortM3 !== null && store.soilShortM3 > 0 ? (
            <Fact label="Stays when the soil below is full" value={format(store.soilShortM3, 'volume')} />
          ) : (
            <Fact label="Empty again after" value={format(store.drainDownH, 'hours')} />
          )}
          <Suspense fallback={null}>
            <StormChart id={id} />
          </Suspense>
        </>
      )}
    </>
  );
}

/** Depth and freeboard as views of levels, and what the shape comes to. */
function Shape({ swale }: { readonly swale: Swale }): ReactNode {
  const { guests } = useChain();
  const figures = useView()?.figures[swale.id];
  const format = useFormat();
  const sills = crestsAmong(guests);
  const sill = firstSill(sills);
  const run = (command: ReturnType<typeof withDepth>): void => {
    if (command) dispatch(command);
  };
  return (
    <FoldPart title="Shape">
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
          onChange={(v) => dispatch(change(swale.id, { [`dimensions.${key}`]: v }))}
        />
      ))}
      <Fact label="Cut" value={format(figureOf(figures, 'cutM3'), 'volume')} />
      <Fact label="Bank" value={format(figureOf(figures, 'bankM3'), 'volume')} />
      <Fact label="Crest that uses all the cut" value={format(figureOf(figures, 'balancedCrestM'), 'level')} />
    </FoldPart>
  );
}

/** Everything about one swale. */
export function SwaleSheet({ work: swale }: { readonly work: Swale }): ReactNode {
  const { id } = swale;
  const { guests } = useChain();
  const figures = useView()?.figures[id];
  const format = useFormat();
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
      <InSight>
        <SectionDrawing swale={swale} sills={crestsAmong(guests)} />
      </InSight>
      <WaysOut host={swale} />
      <ToMend id={id} />
      <Shape swale={swale} />
      <JoinPart swale={swale} />
      <WorkLists work={swale} />
      <FoldPart title="As it may be found">
        <FoundPart id={swale.id} />
      </FoldPart>
      <BelowPart id={id} />
      <FoldPart title="In this storm">
        <Storm id={id} />
      </FoldPart>
      <RunOnPart line={swale.line} />
      <MakingPart id={id} />
      <FineChecks id={id} />
      <WorkingPart id={id} />
    </>
  );
}
