import type { ReactNode } from 'react';
import { type Reach, SECTION_COLUMNS, sectionsFromRows } from '#core/works';
import { dispatch } from '../../app/store.ts';
import { FoldPart } from '../../kit/index.ts';
import { change } from '../levels.ts';
import { PasteRows } from '../shared/PasteRows.tsx';
import { WorkSheet } from '../shared/WorkSheet.tsx';

/** Everything about a channel as it is; its sections as they stand in a field book, all at once. */
export const ReachSheet = ({ work }: { readonly work: Reach }): ReactNode => (
  <WorkSheet work={work}>
    <FoldPart title="All of them as booked">
      <PasteRows
        what="sections"
        columns={SECTION_COLUMNS}
        placeholder={'0\t104.21\t0.9\t1.1\t1.0\t1.4\t0.9'}
        code="reach.row"
        read={sectionsFromRows}
        keep={(sections) => dispatch(change(work.id, { sections, known: 'levelled' }))}
      />
    </FoldPart>
  </WorkSheet>
);
