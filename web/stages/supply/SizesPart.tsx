import { useState, type ReactNode } from 'react';
import type { Season, Sizes, Tried } from '#core/derive';
import { useFormat, useProject } from '../../app/selectors.ts';
import { hasDays, setSupply, useSeason } from '../../app/season.ts';
import { useApp } from '../../app/store.ts';
import { Button, Choose, Fact, FoldPart, Muted, Part, Quantity, Table } from '../../kit/index.ts';
import { SizeChart } from './SizeChart.tsx';

const TRIED: Readonly<Record<Tried['id'], string>> = {
  now: 'as it is',
  'more-roof': 'half as much roof or ground again',
  'less-use': 'a quarter less used',
  twice: 'a second one beside it',
  before: 'used before it spills',
};

/** What size is best, in a sentence. */
function Answer({ sizes }: { readonly sizes: Sizes }): ReactNode {
  const format = useFormat();
  const { bend, rows, now, nowM3, name } = sizes;
  const kind = rows[rows.length - 1].roomM3 < 500 ? 'liquid' : 'volume';
  const share = (v: number | null): string => `${Math.round(100 * (v ?? 0))} %`;
  const row = bend === null ? null : rows[bend];
  const isLess = row && row.roomM3 < 0.8 * nowM3;
  return (
    <p role="status">
      {name} holds {format(nowM3, kind)} and meets <strong>{share(now.suppliedShare)}</strong> of what is asked.{' '}
      {row && (
        <>
          {isLess ? 'Already from ' : 'Up to '}
          <strong>{format(row.roomM3, kind)}</strong> ({share(row.suppliedShare)}) room pays well; beyond that each further litre brings little.
        </>
      )}
    </p>
  ); // prettier-ignore
}

function PricePart({ sizes }: { readonly sizes: Sizes }): ReactNode {
  const { supply } = useProject();
  const price = supply?.price;
  const { now, paidBackYears, years } = sizes;
  return (
    <FoldPart title="Is it worth it?">
      {price ? (
        <>
          <Quantity label="A tank costs, whatever its size" kind="number" value={price.fixed} min={0} onChange={(fixed) => setSupply({ price: { ...price, fixed } })} />
          <Quantity label="And for each 1000 L of room" kind="number" value={price.perM3} min={0} onChange={(perM3) => setSupply({ price: { ...price, perM3 } })} />
        </>
      ) : (
        <Button onPress={() => setSupply({ price: { fixed: 200, perM3: 100 } })}>Say what tanks cost</Button>
      )}
      {supply?.boughtPer1000L === undefined ? (
        <Button onPress={() => setSupply({ boughtPer1000L: 4 })}>Say what bought water costs</Button>
      ) : (
        <Quantity label="1000 L cost from the mains or by truck" kind="number" value={supply.boughtPer1000L} min={0} onChange={(v) => setSupply({ boughtPer1000L: v })} />
      )}
      {now.cost !== null && <Fact label="It costs" value={now.cost.toFixed(0)} />}
      {now.costPer1000L !== null && <Fact label="For each 1000 L it gives in a year" value={now.costPer1000L.toFixed(1)} />}
      <Fact label="It gives in a mean year" value={`${(now.suppliedM3 / years).toFixed(1)} m³`} />
      <Fact label="Paid back against bought water in" value={paidBackYears === null ? 'not known' : `${paidBackYears.toFixed(1)} years`} />
    </FoldPart>
  ); // prettier-ignore
}

function Sized({ store }: { readonly store: string }): ReactNode {
  const format = useFormat();
  const system = useApp((s) => s.system);
  const sizes = useSeason('sizes', { store });
  if (sizes === undefined) return <Muted role="status">Trying sizes…</Muted>;
  if (sizes === null) return <Muted>Its sizes cannot be told: see what is missing under The year.</Muted>;
  if (sizes.demandAYearM3 <= 0) return <Muted>Nothing is asked of it: say under Needs what is drawn from it.</Muted>;
  const kind = sizes.rows[sizes.rows.length - 1].roomM3 < 500 ? 'liquid' : 'volume';
  const share = (v: number | null): string => (v === null ? '–' : `${Math.round(100 * v)} %`);
  return (
    <>
      <Answer sizes={sizes} />
      <SizeChart sizes={sizes} system={system} />
      <Table
        caption="Other ways beside it"
        head={['What if', 'Met', 'Gives a year', 'Short']}
        rows={sizes.tried.map((t) => [
          TRIED[t.id],
          share(t.suppliedShare),
          format(t.suppliedAYearM3, t.suppliedAYearM3 < 50 ? 'liquid' : 'volume'),
          t.dryDaysAYear === null ? '–' : `${t.dryDaysAYear.toFixed(0)} days`,
        ])}
      />
      <PricePart sizes={sizes} />
      <FoldPart title="Size by size">
        <Table
          caption="Size against supply"
          head={['Room', 'Met', 'Short', 'Runs over a year', 'Per 1000 L']}
          rows={sizes.rows.filter((_, k) => k % 2 === 0).map((r) => [
            format(r.roomM3, kind),
            share(r.suppliedShare),
            r.dryDaysAYear === null ? '–' : `${r.dryDaysAYear.toFixed(0)} days`,
            format(r.spilledM3 / sizes.years, 'volume'),
            r.costPer1000L === null ? '–' : r.costPer1000L.toFixed(1),
          ])}
        />
      </FoldPart>
    </>
  ); // prettier-ignore
}

const askedFirst = ({ stores, demands }: Season): string =>
  demands.find((d) => stores.some((s) => s.id === d.store))?.store ?? stores.find((s) => s.roomM3 > 0)?.id ?? '';

/** How large a store should be, and what else would help. */
export function SizesPart(): ReactNode {
  const project = useProject();
  const season = useSeason('season', {});
  const [shown, show] = useState<string | null>(null);
  if (!hasDays(project)) return <Muted>Bring in a gauge’s record under Rain, or give monthly rain under The place.</Muted>;
  if (!season) return <Muted>{season === undefined ? 'Following the water day by day…' : 'Draw a tank or a pond first.'}</Muted>;
  const keeping = season.stores.filter((s) => s.roomM3 > 0);
  if (keeping.length === 0) return <Muted>Draw a tank or a pond first.</Muted>;
  const id = keeping.some((s) => s.id === shown) && shown !== null ? shown : askedFirst(season);
  return (
    <Part title="Size against supply">
      <Choose label="Of" value={id} choices={keeping.map((s) => ({ id: s.id, name: s.name }))} onChange={show} />
      <Sized store={id} />
    </Part>
  );
}
