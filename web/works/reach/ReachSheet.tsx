import { ClipboardPaste } from 'lucide-react';
import { type ReactNode, useState } from 'react';
import { type Reach, SECTION_COLUMNS, sectionsFromRows } from '#core/works';
import { dispatch, notify } from '../../app/store.ts';
import { Button, FoldPart, Inline, Paste } from '../../kit/index.ts';
import { change } from '../levels.ts';
import { WorkSheet } from '../shared/WorkSheet.tsx';

/** Sections as they stand in a field book, all at once. */
function AsBooked({ work }: { readonly work: Reach }): ReactNode {
  const [text, type] = useState('');
  const take = (): void => {
    const read = sectionsFromRows(text);
    if (!read.ok) {
      const problems = read.problems.map(({ row, what }) => ({
        code: 'reach.row',
        what: `row ${row}: ${what}`,
        where: { line: row },
        do: `Give ${SECTION_COLUMNS}.`,
      }));
      notify({ tone: 'mend', title: 'The pasted sections were not taken in; nothing has changed', problems });
      return;
    }
    if (!dispatch(change(work.id, { sections: read.rows, known: 'levelled' }))) return;
    type('');
    notify({ tone: 'fine', title: `${read.rows.length} measured sections are in.`, problems: [] });
  };
  return (
    <FoldPart title="All of them as booked">
      <Paste
        label={`Sections as measured, in metres: ${SECTION_COLUMNS}`}
        value={text}
        onChange={type}
        rows={4}
        placeholder={'0\t104.21\t0.9\t1.1\t1.0\t1.4\t0.9'}
      />
      <Inline>
        <Button look="strong" isDisabled={text.trim() === ''} onPress={take}>
          <ClipboardPaste size={15} aria-hidden />
          Take them in
        </Button>
      </Inline>
    </FoldPart>
  );
}

/** Everything about a channel as it is. */
export const ReachSheet = ({ work }: { readonly work: Reach }): ReactNode => (
  <WorkSheet work={work}>
    <AsBooked work={work} />
  </WorkSheet>
);
