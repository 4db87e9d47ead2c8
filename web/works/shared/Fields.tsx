// The form of any work, from what its technique says of its members.
import { Plus, Trash2, Undo2 } from 'lucide-react';
import type { ReactNode } from 'react';
import type { BoundList, FieldSpec, ReferenceSpec, WorkBase } from '#core/contract';
import { isShown, catalogue, valueAt } from '#core/works';
import { useDerived } from '../../app/selectors.ts';
import { dispatch } from '../../app/store.ts';
import { Button, ChooseRow, FoldPart, Inline, Muted, Quantity } from '../../kit/index.ts';
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
  const keeping = (derived?.stores ?? []).filter((s) => s.id === s.work && s.id !== work.id && s.id !== hostId);
  const stores = [...keeping, ...ownPipes(derived?.conduits ?? [], work.id)];
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

/** Things noted along a work, each with its few numbers. */
function List({ work, list }: { readonly work: WorkBase; readonly list: BoundList }): ReactNode {
  const found = valueAt(work, list.path);
  const entries = Array.isArray(found) ? found.filter(isEntry) : [];
  const keep = (next: readonly Entry[]): boolean => dispatch(change(work.id, { [list.path]: next.length > 0 ? next : null }));
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
      {entries.map((entry, i) => (
        <div key={i}>
          <Muted>{list.each === undefined ? `${i + 1}` : `${list.each} ${i + 1}`}</Muted>
          {list.fields.map(({ path, label, help, kind, min, max }) => (
            <Quantity
              key={path}
              label={label}
              help={help}
              kind={kind}
              min={min}
              max={max}
              value={entry[path]}
              onChange={(v) => keep(entries.map((e, k) => (k === i ? { ...e, [path]: v } : e)))}
            />
          ))}
          <Inline>
            <Button look="quiet" onPress={() => keep(entries.filter((_, k) => k !== i))}>
              <Trash2 size={15} aria-hidden />
              {list.words.remove}
            </Button>
          </Inline>
        </div>
      ))}
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
