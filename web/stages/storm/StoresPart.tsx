import type { ReactNode } from 'react';
import { WAY_WORDS, endName, useDerived, useFormat, useView, useWorks } from '../../app/selectors.ts';
import { Muted, Part, Table } from '../../kit/index.ts';

const hour = (seconds: number, format: (v: number, kind: 'hours') => string): string => format(seconds / 3600, 'hours');

/** What the storm does to every store, way out and exit. */
export function StoresPart(): ReactNode {
  const derived = useDerived();
  const order = useView()?.order ?? [];
  const works = useWorks();
  const format = useFormat();
  if (!derived || derived.stores.every((s) => s.peakLevelM === null)) {
    return <Muted>Draw a work and give rain and ground: then the storm is followed through all of them.</Muted>;
  }
  const stores = order.flatMap((id) => derived.stores.filter((s) => s.id === id));
  const nameOf = (id: string): string => works.find((w) => w.id === id)?.name ?? id;
  const ran = derived.outlets.filter((o) => o.peakM3s > 0);
  return (
    <>
      <Part title="Every store, in the order water meets them">
        <Table
          caption="Every store in the storm"
          head={['', 'highest', 'left', 'spills at', 'for', 'peak out']}
          rows={stores.map((s) => [
            nameOf(s.id),
            format(s.peakLevelM, 'level'),
            s.freeboardM !== null && s.freeboardM < 0 ? `OVER ${format(-s.freeboardM, 'difference')}` : format(s.freeboardM, 'difference'),
            s.firstSpillS === null ? 'dry' : hour(s.firstSpillS, format),
            s.firstSpillS === null ? '–' : format(s.spillsH, 'hours'),
            format(s.peakOutM3s, 'flow'),
          ])}
        />
      </Part>
      <Part title="Every way that ran">
        <Table
          caption="Every way out in the storm"
          head={['', 'peak', 'speed', 'stands', 'to']}
          rows={ran.map((o) => [
            o.role === 'way' ? nameOf(o.work) : `${nameOf(o.work)}: ${WAY_WORDS[o.role]}`,
            format(o.peakM3s, 'flow'),
            format(o.velocityMs, 'velocity'),
            o.lining === 'unknown' ? '–' : o.lining === 'stands' ? 'yes' : 'NO',
            endName(works, derived.links.find((l) => l.outlet === o.id)?.to),
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
