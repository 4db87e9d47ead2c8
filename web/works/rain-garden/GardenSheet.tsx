import { type ReactNode, useState } from 'react';
import type { RainGarden } from '#core/works';
import { useFormat } from '../../app/selectors.ts';
import { dispatch } from '../../app/store.ts';
import { ChooseRow, FoldPart, Quantity, Table } from '../../kit/index.ts';
import { change } from '../levels.ts';
import { WorkSheet } from '../shared/WorkSheet.tsx';

/** Every basin in a line of figures, and one of them to change. */
function Basins({ work }: { readonly work: RainGarden }): ReactNode {
  const format = useFormat();
  const [chosen, choose] = useState(0);
  const { basins } = work;
  const at = Math.min(chosen, basins.length - 1);
  const basin = basins[at];
  const lower = (k: number): string => (k === 0 ? '' : format(basins[k - 1].overflowM - basins[k].overflowM, 'difference'));
  const put = (key: 'areaM2' | 'overflowM', value: number): boolean => dispatch(change(work.id, { [`basins.${at}.${key}`]: value }));
  return (
    <FoldPart title="The basins">
      <Table
        caption="Basins from the highest"
        head={['basin', 'water', 'overflow', 'lower by']}
        rows={basins.map((b, k) => [`${k + 1}`, format(b.areaM2, 'area'), format(b.overflowM, 'reading'), lower(k)])}
      />
      <ChooseRow
        label="Change basin"
        value={String(at)}
        choices={basins.map((_, k) => ({ id: String(k), name: `Basin ${k + 1}` }))}
        onChange={(id) => choose(Number(id))}
      />
      <Quantity label="Water when full" kind="area" min={0.5} max={2000} value={basin.areaM2} onChange={(v) => put('areaM2', v)} />
      <Quantity label="Overflow level" kind="level" min={-500} max={9000} value={basin.overflowM} onChange={(v) => put('overflowM', v)} />
    </FoldPart>
  );
}

/** Everything about a chain of rain gardens. */
export const GardenSheet = ({ work }: { readonly work: RainGarden }): ReactNode => (
  <WorkSheet work={work}>
    <Basins work={work} />
  </WorkSheet>
);
