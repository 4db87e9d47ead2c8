import { useState, type ReactNode } from 'react';
import { readTable, readRainTable, type TableHow } from '#core/formats';
import { problemsThrown } from '#core/project';
import { takeTable } from '../../app/rain.ts';
import { notify } from '../../app/store.ts';
import { Button, Choose, Inline, Muted } from '../../kit/index.ts';
import { Paste } from '../../kit/paste.tsx';

const NAME = 'pasted table';
const EXAMPLE = 'duration_min, 2, 10, 20\n10, 9.4, 15.1, 17.7\n60, 21.6, 34.8, 40.8';

const HOLDS = [
  { id: 'says', name: 'As it says itself' },
  { id: 'mm-depth', name: 'Depths in mm' },
  { id: 'in-depth', name: 'Depths in inches' },
  { id: 'mm-intensity', name: 'Intensities in mm/h' },
  { id: 'in-intensity', name: 'Intensities in in/h' },
] as const;

function howOf(id: string): TableHow {
  const [unit, holds] = id.split('-');
  return id === 'says' ? {} : { unit: unit as 'mm', holds: holds as 'depth' };
}

/** A table pasted from a spreadsheet, a report or a service's page. */
export function PasteTable({ onTaken }: { readonly onTaken: () => void }): ReactNode {
  const [text, type] = useState('');
  const [holds, choose] = useState<string>('says');
  const use = (): void => {
    try {
      const { rows, notes: assumed } = readTable({ name: NAME, bytes: new TextEncoder().encode(text) });
      const { table, limits, notes } = readRainTable(rows, NAME, howOf(holds));
      if (!takeTable({ table, source: NAME, basis: 'table', ...(limits ? { limits } : {}) })) return;
      notify({ tone: 'fine', title: ['The pasted table is in.', ...assumed, ...notes].join(' '), problems: [] });
      onTaken();
    } catch (error) {
      notify({
        tone: 'mend',
        title: 'The pasted table was not taken in; nothing has changed',
        problems: problemsThrown(error, 'reading the table'),
      });
    }
  };
  return (
    <section aria-label="Paste a table">
      <Paste label="One line a duration, one column a return period" value={text} onChange={type} placeholder={EXAMPLE} />
      <Muted>
        Commas, semicolons or tabs. A page of a public frequency service may be pasted whole, with its lines of words and its limits.
      </Muted>
      <Inline>
        <Choose label="It holds" value={holds} choices={HOLDS} onChange={choose} />
        <Button look="strong" isDisabled={text.trim() === ''} onPress={use}>
          Use this table
        </Button>
      </Inline>
    </section>
  );
}
