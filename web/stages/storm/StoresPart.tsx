import { useState, type ReactNode } from 'react';
import { endName, useDerived, useFormat, useLeft, useView, nameAmong, useNamed } from '../../app/selectors.ts';
import { CONDITION_WORDS, type Derived, WAY_WORDS, hours } from '#core/derive';
import { ShownStorm } from '../../app/StormWords.tsx';
import { useApp } from '../../app/store.ts';
import { Choose, Muted, Part, Table } from '../../kit/index.ts';
import { PeaksChart } from './PeaksChart.tsx';

interface StoresShown {
  readonly stores: Derived['stores'];
  readonly nameOf: (id: string) => string;
}

/** The storm that decides for one store, and how high it stands in all others: of the store selected, else of that with least left. */
function OneStore({ stores, nameOf }: StoresShown): ReactNode {
  const selected = useApp((s) => s.selected);
  const [chosen, choose] = useState<string | null>(null);
  const format = useFormat();
  const nearest = stores.reduce((a, b) => ((b.least?.value ?? Infinity) < (a.least?.value ?? Infinity) ? b : a));
  const store = stores.find((s) => s.id === chosen) ?? stores.find((s) => s.id === selected) ?? nearest;
  const { least } = store;
  return (
    <>
      <Choose label="Store" value={store.id} choices={stores.map((s) => ({ id: s.id, name: nameOf(s.id) }))} onChange={choose} />
      {least && (
        <p style={{ margin: '8px 0' }}>
          {nameOf(store.id)} {least.value < 0 ? 'is passed by ' : 'has least left, '}
          <strong>{format(Math.abs(least.value), 'difference')}</strong>, in {hours(least.durationMin)} of rain
          {least.condition === 'found' ? ', as usually found' : `, ${CONDITION_WORDS[least.condition]}`}.
        </p>
      )}
      <PeaksChart id={store.id} />
    </>
  );
}

/** What the storm does to every store, way out and exit. */
export function StoresPart(): ReactNode {
  const derived = useDerived();
  const left = useLeft();
  const view = useView();
  const order = view?.order ?? [];
  const governs = view?.governs ?? {};
  const named = useNamed();
  const format = useFormat();
  if (!derived || derived.stores.every((s) => s.peakLevelM === null)) {
    return <Muted>Draw a work and give rain and ground: then the storm is followed through all of them.</Muted>;
  }
  const stores = order.flatMap((id) => derived.stores.filter((s) => s.id === id));
  const nameOf = (id: string): string => nameAmong(named, id);
  const ran = derived.outlets.filter((o) => o.peakM3s > 0);
  return (
    <>
      {derived.set && (
        <Part title="Which storm decides">
          <OneStore stores={stores} nameOf={nameOf} />
          <ShownStorm set={derived.set} />
        </Part>
      )}
      <Part title="Every store as usually found, in the order water meets them">
        <Table
          caption="Every store in the storm"
          head={['', 'highest', 'left', 'in', 'peak out']}
          rows={stores.map((s) => [
            nameOf(s.id),
            format(s.peakLevelM, 'level'),
            left(s.freeboardM),
            governs[s.id] === undefined ? '–' : hours(governs[s.id]),
            format(s.peakOutM3s, 'flow'),
          ])}
        />
      </Part>
      <Part title="Every way that ran">
        <Table
          caption="Every way out in the storm"
          head={['', 'peak', 'speed', 'stands', 'to']}
          rows={ran.map((o) => [
            o.role === 'way' ? nameOf(o.work) : `${nameOf(o.work)}: ${WAY_WORDS[o.role].name}`,
            format(o.peakM3s, 'flow'),
            format(o.velocityMs, 'velocity'),
            o.liningAtWorst === 'unknown' ? '–' : o.liningAtWorst === 'stands' ? 'yes' : 'NO',
            endName(named, derived.links.find((l) => l.outlet === o.id)?.to),
          ])}
        />
      </Part>
      {derived.exits.length > 0 && (
        <Part title="Where water leaves">
          <Table
            caption="Peaks at the exits, with and without the works"
            head={['', 'without', 'with', 'volume with']}
            rows={derived.exits.map((e, k) => [
              e.isPlace ? `Exit ${k + 1}` : 'Here and there',
              format(e.without.peakM3s, 'flow'),
              format(e.with.peakM3s, 'flow'),
              format(e.with.volumeM3, 'volume'),
            ])}
          />
        </Part>
      )}
    </>
  );
}
