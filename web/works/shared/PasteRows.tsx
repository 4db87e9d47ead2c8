import { ClipboardPaste } from 'lucide-react';
import { type ReactNode, useState } from 'react';
import { notify } from '../../app/store.ts';
import { Button, Inline } from '../../kit/index.ts';
import { Paste } from '../../kit/paste.tsx';

type Read<T> =
  | { readonly ok: true; readonly rows: readonly T[] }
  | { readonly ok: false; readonly problems: readonly { readonly row: number; readonly what: string }[] };

interface Rows<T> {
  /** What they are, for several of them. */
  readonly what: string;
  readonly columns: string;
  readonly placeholder: string;
  /** Code of what is wrong with a row. */
  readonly code: string;
  readonly read: (text: string) => Read<T>;
  /** Whether they were kept. */
  readonly keep: (rows: readonly T[]) => boolean;
}

/** Rows of a field book or a sheet, pasted: all of them are taken in, or none. */
export function PasteRows<T>({ what, columns, placeholder, code, read, keep }: Rows<T>): ReactNode {
  const [text, type] = useState('');
  const take = (): void => {
    const found = read(text);
    if (!found.ok) {
      const problems = found.problems.map(({ row, what: is }) => ({
        code,
        what: `row ${row}: ${is}`,
        where: { line: row },
        do: `Give ${columns}.`,
      }));
      notify({ tone: 'mend', title: `The pasted ${what} were not taken in; nothing has changed`, problems });
      return;
    }
    if (!keep(found.rows)) return;
    type('');
    notify({ tone: 'fine', title: `${found.rows.length} measured ${what} are in.`, problems: [] });
  };
  const named = `${what[0].toUpperCase()}${what.slice(1)}`;
  return (
    <>
      <Paste label={`${named} as measured, in metres: ${columns}`} value={text} onChange={type} rows={4} placeholder={placeholder} />
      <Inline>
        <Button look="strong" isDisabled={text.trim() === ''} onPress={take}>
          <ClipboardPaste size={15} aria-hidden />
          Take them in
        </Button>
      </Inline>
    </>
  );
}
