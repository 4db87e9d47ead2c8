import type { ReactNode } from 'react';
import type { SheetPart } from '#core/contract';
import { type UnitSystem, spoken } from '#core/units';
import { download, fileName } from '../../app/export.ts';
import { useView, useWorks } from '../../app/selectors.ts';
import { useApp } from '../../app/store.ts';
import { Button, FoldPart, Muted } from '../../kit/index.ts';
import { SheetParts } from './SheetParts.tsx';

/** Signs a line on paper holds. */
const WIDE = 76;

/** A sentence in lines that fit on paper. */
function wrapped(text: string): string[] {
  const lines = [''];
  for (const word of text.split(' ')) {
    const last = lines[lines.length - 1];
    if (last !== '' && last.length + word.length + 1 > WIDE) lines.push(word);
    else lines[lines.length - 1] = last === '' ? word : `${last} ${word}`;
  }
  return lines;
}

/** The sheet as plain text, to print and hang up. */
export function sheetText(name: string, parts: readonly SheetPart[], system: UnitSystem): string {
  const rule = '='.repeat(Math.min(WIDE, name.length));
  const body = parts.flatMap(({ title, says }) => [
    '',
    title.toUpperCase(),
    ...says.flatMap((one) => wrapped(spoken(one, system)).map((text, k) => `${k === 0 ? '- ' : '  '}${text}`)),
  ]);
  return [name, rule, ...body, ''].join('\n');
}

/** What whoever lives with a work must know, to read here and to leave with them on paper. */
export function HandOverPart({ id }: { readonly id: string }): ReactNode {
  const parts = useView()?.handOvers[id];
  const name = useWorks().find((w) => w.id === id)?.name;
  const system = useApp((s) => s.system);
  if (!parts || name === undefined) return null;
  const save = (): void =>
    download(`${fileName(name)}-sheet.txt`, new Blob([sheetText(name, parts, system)], { type: 'text/plain;charset=utf-8' }));
  return (
    <FoldPart title="Hand it over">
      <Muted>For whoever lives with it: print it, fill in names and days, and hang it beside it.</Muted>
      <SheetParts parts={parts} />
      <Button onPress={save}>Save the sheet</Button>
    </FoldPart>
  );
}
