import type { ReactNode } from 'react';
import { type LabourRow, labourRows } from '#core/derive';
import { useFormat, useView, useWorks } from '../../app/selectors.ts';
import { FoldPart, Muted, Table } from '../../kit/index.ts';

const MORE = [
  { head: 'L/h a year', of: (r: LabourRow) => r.aYear },
  { head: 'L/h in silt', of: (r: LabourRow) => r.inSilt },
] as const;

/** Works held against each other by the water they hold for an hour of work, the best first. */
export function LabourPart({ id }: { readonly id: string }): ReactNode {
  const figures = useView()?.figures;
  const works = useWorks();
  const format = useFormat();
  const rows = figures ? labourRows(works, figures) : [];
  if (rows.length < 2 || !rows.some((r) => r.work === id)) return null;
  const more = MORE.filter(({ of }) => rows.some((r) => of(r) !== null));
  return (
    <FoldPart title="Against other works, by labour">
      <Table
        caption="Water held for an hour of one person’s work, a fill"
        head={['work', 'holds', 'hours', 'L/h a fill', ...more.map((m) => m.head)]}
        rows={rows.map((r) => [
          r.name,
          format(r.holdsM3, 'volume'),
          format(r.hours, 'hours'),
          format(r.aFill, 'count'),
          ...more.map(({ of }) => format(of(r), 'count')),
        ])}
      />
      <Muted>
        By what one person does in a day, as it stands on each sheet, walking included. A low one may still be right where it lies.
      </Muted>
    </FoldPart>
  );
}
