// The form of any work, from what its technique says of its members.
import { Plus, Trash2, Undo2 } from 'lucide-react';
import { type ReactNode, useState } from 'react';
import type { BoundList, FieldSpec, ReferenceSpec, WorkBase } from '#core/contract';
import { capitalised, displayUnit, formatNumber } from '#core/units';
import { isShown, catalogue, valueAt } from '#core/works';
import { useDerived, useWorks } from '../../app/selectors.ts';
import { dispatch, useApp } from '../../app/store.ts';
import { Button, ChooseRow, FoldPart, Inline, Muted, Quantity, Table } from '../../kit/index.ts';
import { change } from '../levels.ts';
import { ownPipes } from './LeadsTo.tsx';

/** A number the user decides; where it may be left out, an offer to note it. */
function Field({ work, field }: { readonly work: WorkBase; readonly field: FieldSpec }): ReactNode {
  const { path, label, help, kind, min, max, optional } = field;
  const value = valueAt(work, path);
  const set = (v: number | null): boolean => dispatch(change(work.id, { [path]: v }));
  if (typeof value !== 'number') {
    return optional ? (
      <Inline>
        <Button look="quiet" onPress={() => set(optional.start)}>
          <Plus size={15} aria-hidden />
          {optional.offer}
        </Button>
      </Inline>
    ) : null;
  }
  return (
    <>
      <Quantity label={label} help={help} kind={kind} min={min} max={max} value={value} onChange={set} />
      {optional && (
        <Inline>
          <Button look="quiet" aria-label={`Take away: ${label}`} onPress={() => set(null)}>
            <Undo2 size={15} aria-hidden />
            Not known
          </Button>
        </Inline>
      )}
    </>
  );
}

/** Which other store a work leads to. */
function Reference({ work, spec }: { readonly work: WorkBase; readonly spec: ReferenceSpec }): ReactNode {
  const { hostId } = catalogue.describe(work);
  const derived = useDerived();
  const works = useWorks();
  const channels = works.filter((w) => w.id !== work.id && catalogue.describe(w).traits.isChannel === true);
  const keeping = (derived?.stores ?? []).filter((s) => s.id === s.work && s.id !== work.id && s.id !== hostId);
  const stores = spec.among === 'channels' ? channels : [...keeping, ...ownPipes(derived?.conduits ?? [], work.id)];
  const named = valueAt(work, spec.path);
  const none = spec.none === undefined ? [] : [{ id: '', name: spec.none }];
  const choices = [...none, ...stores.map((s) => ({ id: s.id, name: s.name }))];
  return (
    <FoldPart title={spec.title}>
      <ChooseRow
        label={spec.label}
        value={typeof named === 'string' ? named : ''}
        choices={choices}
        onChange={(id) => dispatch(change(work.id, { [spec.path]: id === '' ? null : id }))}
      />
    </FoldPart>
  );
}

/** What is chosen, or what it is while nothing is. */
const said = (value: unknown, usual = ''): string => (typeof value === 'string' ? value : usual);

type Entry = Readonly<Record<string, number>>;

const isEntry = (value: unknown): value is Entry =>
  typeof value === 'object' && value !== null && Object.values(value).every((v) => typeof v === 'number');

/** One thing noted along a work: its numbers, and a way to take it away. */
function EntryFields({ entry, list, on }: { readonly entry: Entry; readonly list: BoundList; readonly on: { readonly keep: (next: Entry | null) => void } }): ReactNode {
  return (
    <>
      {list.fields.map(({ path, label, help, kind, min, max }) => (
        <Quantity key={path} label={label} help={help} kind={kind} min={min} max={max} value={entry[path]} onChange={(v) => on.keep({ ...entry, [path]: v })} />
      ))}
      <Inline>
        <Button look="quiet" onPress={() => on.keep(null)}>
          <Trash2 size={15} aria-hidden />
          {list.words.remove}
        </Button>
      </Inline>
    </>
  );
} // prettier-ignore

/** What each of a list is called. */
const calledOf = ({ each }: BoundList, k: number): string => (each === undefined ? `${k + 1}` : `${each} ${k + 1}`);

/** Many of many numbers: a row each, and one of them to change. */
function EntryTable({ entries, list, keepAt }: { readonly entries: readonly Entry[]; readonly list: BoundList; readonly keepAt: (k: number, next: Entry | null) => void }): ReactNode {
  const system = useApp((s) => s.system);
  const [chosen, choose] = useState(0);
  const at = Math.min(chosen, entries.length - 1);
  const unit = (kind: FieldSpec['kind']): string => displayUnit(kind, system).unit;
  const told = list.fields.flatMap(({ path, kind }, k) => {
    const head = list.heads?.[k];
    return head ? [{ path, kind, head: `${head} ${unit(kind)}` }] : [];
  });
  return (
    <>
      <Table
        caption={list.title}
        head={['', ...told.map((t) => t.head)]}
        rows={entries.map((entry, k) => [`${k + 1}`, ...told.map(({ path, kind }) => formatNumber(entry[path], kind, system))])}
      />
      <ChooseRow
        label={`Change ${list.each ?? 'one'}`}
        value={String(at)}
        choices={entries.map((_, k) => ({ id: String(k), name: capitalised(calledOf(list, k)) }))}
        onChange={(id) => choose(Number(id))}
      />
      <EntryFields entry={entries[at]} list={list} on={{ keep: (next) => keepAt(at, next) }} />
    </>
  );
} // prettier-ignore

/** Things noted along a work, each with its few numbers. */
function List({ work, list }: { readonly work: WorkBase; readonly list: BoundList }): ReactNode {
  const found = valueAt(work, list.path);
  const entries = Array.isArray(found) ? found.filter(isEntry) : [];
  const keep = (next: readonly Entry[]): boolean => dispatch(change(work.id, { [list.path]: next.length > 0 ? next : null }));
  const keepAt = (at: number, next: Entry | null): boolean =>
    keep(entries.flatMap((e, k) => (k === at ? (next === null ? [] : [next]) : [e])));
  return (
    <FoldPart
      title={list.title}
      action={
        <Button look="quiet" onPress={() => keep([...entries, list.start()])}>
          <Plus size={15} aria-hidden />
          {list.words.add}
        </Button>
      }
    >
      {entries.length === 0 && <Muted>{list.words.none}</Muted>}
      {list.heads !== undefined && entries.length > 0 ? (
        <EntryTable entries={entries} list={list} keepAt={keepAt} />
      ) : (
        entries.map((entry, i) => (
          <div key={i}>
            <Muted>{calledOf(list, i)}</Muted>
            <EntryFields entry={entry} list={list} on={{ keep: (next) => keepAt(i, next) }} />
          </div>
        ))
      )}
    </FoldPart>
  );
}

/** What is noted along a work, list by list. */
export const WorkLists = ({ work }: { readonly work: WorkBase }): ReactNode =>
  catalogue.describe(work).lists.map((list) => <List key={list.path} work={work} list={list} />);

/** Choices, levels, shape, references and lists of a work, as it is. */
export function WorkFields({ work }: { readonly work: WorkBase }): ReactNode {
  const { fields, choices, references } = catalogue.describe(work);
  const shown = fields.filter((f) => isShown(f, work));
  const asked = choices.filter((c) => isShown(c, work));
  const levels = shown.filter((f) => f.kind === 'level');
  const rest = shown.filter((f) => f.kind !== 'level');
  return (
    <>
      {asked.length > 0 && (
        <FoldPart title="Kind">
          {asked.map((c) => (
            <ChooseRow
              key={c.path}
              label={c.label}
              value={said(valueAt(work, c.path), c.usual)}
              choices={c.options}
              onChange={(v) => dispatch(change(work.id, { [c.path]: v }))}
            />
          ))}
        </FoldPart>
      )}
      {levels.length > 0 && (
        <FoldPart title="Levels">
          {levels.map((f) => (
            <Field key={f.path} work={work} field={f} />
          ))}
        </FoldPart>
      )}
      {rest.length > 0 && (
        <FoldPart title="Shape">
          {rest.map((f) => (
            <Field key={f.path} work={work} field={f} />
          ))}
        </FoldPart>
      )}
      {references.flatMap((r) => (isShown(r, work) ? [<Reference key={r.path} work={work} spec={r} />] : []))}
      <WorkLists work={work} />
    </>
  );
}
