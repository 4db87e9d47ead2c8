import LineString from 'ol/geom/LineString.js';
import type { ReactNode } from 'react';
import type { Headcut } from '#core/works';
import { useAskNetwork } from '../../app/network.ts';
import { useFormat } from '../../app/selectors.ts';
import { FoldPart, Muted, Table } from '../../kit/index.ts';
import type { PlanItem } from '../../plan/types.ts';
import { WorkSheet } from '../shared/WorkSheet.tsx';
import type { WorkUi } from '../types.ts';

/** What comes over the lip as the ground above rests. */
function AsItRests({ id }: { readonly id: string }): ReactNode {
  const rows = useAskNetwork('resting', { of: id });
  const format = useFormat();
  return (
    <FoldPart title="If the ground above rests">
      {rows === undefined && <Muted>Working it out…</Muted>}
      {rows === null && <Muted>Say on the Ground page how the ground is to heal: by rest, the ripper or both, and to what cover.</Muted>}
      {rows && (
        <Table
          caption="What comes over the lip in the worst storm, by years of rest"
          head={['rest', 'peak', 'water']}
          rows={rows.map((r) => [r.years === 0 ? 'now' : `${r.years} years`, format(r.peakM3s, 'flow'), format(r.volumeM3, 'volume')])}
        />
      )}
    </FoldPart>
  );
}

const HeadSheet = ({ work }: { readonly work: Headcut }): ReactNode => (
  <WorkSheet work={work}>
    <AsItRests id={work.id} />
  </WorkSheet>
);

/** As wide as a lip is drawn [m]. */
const LIP_M = 0.8;

export const headcutUi: WorkUi<Headcut> = {
  kind: 'headcut',
  Sheet: HeadSheet,
  drag: () => null,
  planItems: (head, { selected }): PlanItem[] => {
    const look = { role: 'gully-lip', label: head.name, isSelected: head.id === selected, width: LIP_M };
    return [{ id: head.id, version: JSON.stringify([head.line, look]), geometry: new LineString(head.line.map(([x, y]) => [x, y])), look }];
  },
};
