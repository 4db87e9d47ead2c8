import type { ReactNode } from 'react';
import type { EachTable } from '#core/contract';
import { type UnitSystem, displayUnit, formatNumber, shownAlike } from '#core/units';
import { useView } from '../../app/selectors.ts';
import { useApp } from '../../app/store.ts';
import { FoldPart, Table } from '../../kit/index.ts';

/** A table with the unit of each column in its head. */
function told({ of, columns, rows }: EachTable, system: UnitSystem): { readonly head: string[]; readonly rows: string[][] } {
  const kinds = columns.map(({ kind }, k) =>
    shownAlike(
      rows.map(({ values }) => values[k]),
      kind,
    ),
  );
  return {
    head: [of, ...columns.map(({ label }, k) => `${label} ${displayUnit(kinds[k], system).unit}`.trim())],
    rows: rows.map(({ name, values }) => [name, ...values.map((value, k) => formatNumber(value, kinds[k], system))]),
  };
}

/** What each of several things a work is made of takes and holds: to be looked up. */
export function EachPart({ id }: { readonly id: string }): ReactNode {
  const tables = useView()?.each[id] ?? [];
  const system = useApp((s) => s.system);
  return tables.map((table) => (
    <FoldPart key={table.title} title={table.title} sum={`${table.rows.length} of them`} isLookedUp>
      <Table caption={table.title} {...told(table, system)} />
    </FoldPart>
  ));
}
