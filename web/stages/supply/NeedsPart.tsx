import { Plus, Trash2 } from 'lucide-react';
import type { ReactNode } from 'react';
import { Input, Label, TextField } from 'react-aria-components';
import styled from 'styled-components';
import type { Need } from '#core/season';
import { catalogue } from '#core/works';
import { useDerived, useProject, useWorks } from '../../app/selectors.ts';
import { addNeed, changeNeed, removeNeed, replaceNeed, setSupply } from '../../app/season.ts';
import { ActionMenu, Button, ChooseRow, FoldPart, Inline, Muted, Part, Quantity, Row } from '../../kit/index.ts';
import { Toggle } from '../../kit/toggle.tsx';
import { MONTHS } from '../rain/words.ts';

const Name = styled(Input)`
  width: 15em;
  text-align: right;
  color: var(--water);
  background: transparent;
  border: 0;
  border-bottom: 1.5px solid var(--water);
  padding: 3px 0;
`;

/** What people and animals use in a day [L], and a garden [mm]: middle of what handbooks tell. */
const USUAL: readonly { readonly id: string; readonly name: string; readonly kind: Need['kind']; readonly count: number; readonly each: number }[] = [
  { id: 'people', name: 'People', kind: 'daily', count: 4, each: 50 },
  { id: 'cattle', name: 'Cattle or horses', kind: 'daily', count: 10, each: 50 },
  { id: 'sheep', name: 'Sheep or goats', kind: 'daily', count: 20, each: 8 },
  { id: 'garden', name: 'Garden', kind: 'garden', count: 50, each: 4 },
  { id: 'other', name: 'Something else', kind: 'daily', count: 1, each: 100 },
]; // prettier-ignore

function NeedRow({
  need,
  stores,
}: {
  readonly need: Need;
  readonly stores: readonly { readonly id: string; readonly name: string }[];
}): ReactNode {
  const { id, name, kind, count, each, months, store } = need;
  const isAll = months === undefined;
  const isGarden = kind === 'garden';
  const toggle = (m: number, isOn: boolean): void => {
    const now = months ?? [];
    changeNeed(id, { months: isOn ? [...now, m].sort((a, b) => a - b) : now.filter((v) => v !== m) });
  };
  return (
    <Part
      title={name}
      action={
        <Button look="quiet" aria-label={`Remove ${name}`} onPress={() => removeNeed(id)}>
          <Trash2 size={15} aria-hidden />
        </Button>
      }
    >
      <TextField value={name} onChange={(v) => v.trim() !== '' && changeNeed(id, { name: v })}>
        <Row>
          <Label>Called</Label>
          <Name />
        </Row>
      </TextField>
      <ChooseRow
        title="Drawn from"
        label={`${name} is drawn from`}
        value={store}
        choices={stores.some((s) => s.id === store) ? stores : [{ id: store, name: 'a store that is gone' }, ...stores]}
        onChange={(v) => changeNeed(id, { store: v })}
      />
      {isGarden ? (
        <Quantity label="Area watered" kind="area" value={count} min={0} onChange={(v) => changeNeed(id, { count: v })} />
      ) : (
        <Quantity label="How many" kind="count" value={count} min={0} onChange={(v) => changeNeed(id, { count: v })} />
      )}
      {isGarden ? (
        <Quantity label="Needs in a day" kind="rainFine" value={each} min={0} onChange={(v) => changeNeed(id, { each: v })} help="3 to 6 mm: litres on each square metre, less what rains." />
      ) : (
        <Quantity label="Each uses in a day" kind="liquid" value={each / 1000} min={0} onChange={(v) => changeNeed(id, { each: v * 1000 })} help="To survive 7 to 15, basic 20 to 50, all uses 100." />
      )}
      <Toggle label="All the year" isOn={isAll} onChange={(isOn) => setMonths(need, isOn ? undefined : [4, 5, 6, 7, 8, 9])} />
      {!isAll && (
        <Inline>
          {MONTHS.map((month, k) => (
            <Toggle key={month} label={month.slice(0, 3)} isOn={months.includes(k + 1)} onChange={(isOn) => toggle(k + 1, isOn)} />
          ))}
        </Inline>
      )}
    </Part>
  ); // prettier-ignore
}

/** Months of a need; without them it is asked all the year. */
const setMonths = ({ months: _, ...need }: Need, months: readonly number[] | undefined): boolean =>
  replaceNeed(months ? { ...need, months } : need);

/** Stores something can be drawn from. */
function useDrawn(): readonly { readonly id: string; readonly name: string }[] {
  const works = useWorks();
  const derived = useDerived();
  const stores = derived?.stores.filter((s) => s.heldM3 > 0).map(({ id, name, work }) => ({ id, name: name ?? works.find((w) => w.id === (work ?? id))?.name ?? id })); // prettier-ignore
  // Before any terrain is known nothing is derived: what stands without it can be drawn from all the same.
  return stores && stores.length > 0 ? stores : works.filter((w) => catalogue.describe(w).traits.retains === 'vessel').map(({ id, name }) => ({ id, name })); // prettier-ignore
}

function TopUpsPart({ stores }: { readonly stores: readonly { readonly id: string; readonly name: string }[] }): ReactNode {
  const { supply } = useProject();
  const topUps = supply?.topUps ?? [];
  const free = stores.filter((s) => !topUps.some((t) => t.store === s.id));
  const change = (store: string, part: Partial<(typeof topUps)[number]>): boolean =>
    setSupply({ topUps: topUps.map((t) => (t.store === store ? { ...t, ...part } : t)) });
  return (
    <FoldPart title="Brought in when it stands low">
      <Muted>From the mains, a well or a truck: filled up in the morning to so much. Keep an air gap before any mains.</Muted>
      {topUps.map((t) => (
        <div key={t.store}>
          <Row>
            <span>{stores.find((s) => s.id === t.store)?.name ?? 'a store that is gone'}</span>
            <Button look="quiet" aria-label="Bring nothing in" onPress={() => setSupply({ topUps: topUps.filter((o) => o !== t) })}>
              <Trash2 size={15} aria-hidden />
            </Button>
          </Row>
          <Quantity label="Filled up to" kind="liquid" value={t.toM3} min={0} onChange={(v) => change(t.store, { toM3: v })} />
          <Quantity label="In a day, at the most" kind="liquid" value={t.mostM3PerDay} min={0} onChange={(v) => change(t.store, { mostM3PerDay: v })} />
        </div>
      ))}
      {free.length > 0 && (
        <ActionMenu
          label="Bring water in"
          icon={<Plus size={16} aria-hidden />}
          choices={free}
          onChoose={(store) => setSupply({ topUps: [...topUps, { store, toM3: 1, mostM3PerDay: 1 }] })}
        />
      )}
    </FoldPart>
  ); // prettier-ignore
}

/** Who needs water, from which store, and how much. */
export function NeedsPart(): ReactNode {
  const { supply } = useProject();
  const stores = useDrawn();
  const needs = supply?.needs ?? [];
  if (stores.length === 0) return <Muted>Draw a tank or a pond first: a need is drawn from a store.</Muted>;
  const add = (what: string): void => {
    const usual = USUAL.find((u) => u.id === what) ?? USUAL[0];
    const { name, kind, count, each } = usual;
    const id = `need-${crypto.randomUUID().slice(0, 8)}`;
    const last = needs[needs.length - 1]?.store;
    const store = stores.find((s) => s.id === last)?.id ?? stores[0].id;
    addNeed({ id, name, store, kind, count, each, ...(kind === 'garden' ? { months: [4, 5, 6, 7, 8, 9] } : {}) });
  };
  return (
    <>
      {needs.length === 0 && <Muted>Nobody draws on a store yet.</Muted>}
      <ActionMenu label="Add a need" icon={<Plus size={16} aria-hidden />} choices={USUAL} onChoose={add} />
      {needs.length > 1 && <Muted>Those that draw from one store come in this order: the first is met first.</Muted>}
      {needs.map((need) => (
        <NeedRow key={need.id} need={need} stores={stores} />
      ))}
      <TopUpsPart stores={stores} />
    </>
  );
}
