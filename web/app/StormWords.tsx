import type { ReactNode } from 'react';
import { Dialog, DialogTrigger } from 'react-aria-components';
import styled from 'styled-components';
import { CONDITION_NAMES, type DerivedSet, hours, spanWords } from '#core/derive';
import type { Rain } from '#core/project';
import { isInvented, isSet, longestStorm, totalsOf } from '#core/rain';
import { Button, Choose, Muted, Pop, Table } from '../kit/index.ts';
import { useDerived, useFormat, useLeft, useView } from './selectors.ts';
import { lookAtStorm, useApp } from './store.ts';

const Quiet = styled.span`
  color: var(--muted);
`;
const Wide = styled.span`
  display: inline-flex;
  align-items: center;
  gap: 6px;
  @media (max-width: 1120px) {
    display: none;
  }
`;

/** The storm one designs for, in a few words. */
function Words({ rain, set }: { readonly rain: Rain; readonly set: DerivedSet | null }): ReactNode {
  const format = useFormat();
  const { depthMm, durationMin, isOwn, times } = totalsOf(rain.table, longestStorm(rain.table, rain.storm));
  const twice = times === 2 ? ', twice' : '';
  if (isSet(rain.storm)) {
    return (
      <>
        <Quiet>1 in</Quiet> {rain.storm.returnYears} <Quiet>years, worst of</Quiet> {set ? spanWords(set) : 'all lengths'}
        {twice}
      </>
    );
  }
  return (
    <>
      <Quiet>one storm:</Quiet> {isOwn ? 'of its own' : `1 in ${rain.storm.returnYears} yr`} · {hours(durationMin)} ·{' '}
      {format(depthMm, 'rain')}
      {twice}
    </>
  );
}

/** Chooses which storm is shown; what decides stays what it is. */
export function ShownStorm({ set }: { readonly set: DerivedSet }): ReactNode {
  const shownMin = useApp((s) => s.shownMin);
  const shown = set.durationsMin.includes(shownMin ?? -1) ? String(shownMin) : 'all';
  const choices = [{ id: 'all', name: 'the one that decides' }, ...set.durationsMin.map((d) => ({ id: String(d), name: hours(d) }))];
  return (
    <>
      <Choose label="Storm shown" value={shown} choices={choices} onChange={(id) => lookAtStorm(id === 'all' ? null : Number(id))} />
      {shown !== 'all' && (
        <Muted style={{ color: 'var(--strawText)' }}>
          Charts and tables show the storm of {hours(Number(shown))}. Checks and verdicts stay by the worst of all.
        </Muted>
      )}
    </>
  );
}

/** Which storm decides for each store, and how it must find things. */
function Decides({ set }: { readonly set: DerivedSet }): ReactNode {
  const derived = useDerived();
  const order = useView()?.order ?? [];
  const left = useLeft();
  const stores = order.flatMap((id) => derived?.stores.filter((s) => s.id === id && s.least !== null) ?? []);
  return (
    <>
      <h2 style={{ fontSize: 20, marginBottom: 8 }}>Which storm decides</h2>
      <Muted>
        1 in {set.returnYears} years at {set.durationsMin.length} lengths from {spanWords(set)}, each with ground and water{' '}
        {set.conditions.map((c) => CONDITION_NAMES[c]).join('; ')}. The worst counts; wet and bare ground only ask to be weighed.
      </Muted>
      {stores.length === 0 ? (
        <Muted>Draw a work: then each store tells its own.</Muted>
      ) : (
        <Table
          caption="The storm that decides for each store"
          head={['', 'in rain of', 'when', 'left']}
          rows={stores.map((s) => [
            s.name,
            s.least ? hours(s.least.durationMin) : '–',
            s.least ? CONDITION_NAMES[s.least.condition] : '–',
            left(s.least?.value),
          ])}
        />
      )}
      <ShownStorm set={set} />
    </>
  );
}

/** The storm everything is judged by; where it is a set, a press tells which of it decides where. */
export function StormWords(): ReactNode {
  const rain = useApp((s) => s.history?.project.rain ?? null);
  const isExample = useApp((s) => s.history?.project.ground?.isExample === true || s.history?.project.terrain?.isMadeUp === true);
  const set = useDerived()?.set ?? null;
  if (!rain) return null;
  const words = <Words rain={rain} set={set} />;
  const notYours = (isInvented(rain) || isExample) && <strong style={{ color: 'var(--alarm)' }}>not yours yet</strong>;
  if (!set)
    return (
      <>
        <Wide>{words}</Wide>
        {notYours}
      </>
    );
  return (
    <>
      <Wide>
        <DialogTrigger>
          <Button look="quiet">{words}</Button>
          <Pop>
            <Dialog aria-label="Which storm decides">
              <Decides set={set} />
            </Dialog>
          </Pop>
        </DialogTrigger>
      </Wide>
      {notYours}
    </>
  );
}
