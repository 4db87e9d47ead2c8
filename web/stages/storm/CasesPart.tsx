import { ListPlus, Plus, Trash2 } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import type { Traits, WorkBase } from '#core/contract';
import { CASE_GROUNDS, type Case, nextName } from '#core/project';
import { catalogue } from '#core/works';
import { useAskNetwork, usualCasesNow } from '../../app/network.ts';
import { useDerived, useProject, useWorks, newId, nameAmong, useNamed } from '../../app/selectors.ts';
import { type UnitSystem, displayUnit, formatNumber } from '#core/units';
import { dispatch, useApp } from '../../app/store.ts';
import { Button, ChooseRow, Inline, Muted, Part, Quantity, Table } from '../../kit/index.ts';
import { Toggle } from '../../kit/toggle.tsx';

/** Adds the cases worth asking that are not there yet. */
async function addUsual(known: readonly Case[]): Promise<void> {
  const usual = await usualCasesNow();
  for (const one of usual ?? []) if (!known.some((c) => c.id === one.id)) dispatch({ type: 'case.add', payload: { case: one } });
}

const GROUNDS = { now: 'as it is now', healed: 'healed', bare: 'bare' } as const;

/** What one case is made of. */
function CaseForm({ one }: { readonly one: Case }): ReactNode {
  const works = useWorks();
  const named = useNamed();
  const stores = useDerived()?.stores ?? [];
  const set = (values: Readonly<Record<string, unknown>>): boolean =>
    dispatch({ type: 'case.change', payload: { id: one.id, set: values } });
  const nameOf = (id: string): string => nameAmong(named, id);
  const share = (member: 'blockedPercent' | 'siltedPercent' | 'morePercent', id: string, value: number): boolean => {
    const rest = Object.fromEntries(Object.entries(one[member] ?? {}).filter(([key]) => key !== id));
    const next = value > 0 ? { ...rest, [id]: value } : rest;
    return set({ [member]: Object.keys(next).length > 0 ? next : null });
  };
  const traitsOf = (w: WorkBase): Traits => catalogue.describe(w).traits;
  const ways = works.filter((w) => traitsOf(w).canBlock);
  return (
    <Part title={`The case “${one.name}”`}>
      <Quantity
        label="More rain"
        value={one.stormPercent ?? 0}
        kind="percent"
        min={-90}
        max={1000}
        onChange={(v) => set({ stormPercent: v === 0 ? null : v })}
      />
      <Quantity
        label="A second storm after (0: none)"
        value={one.againAfterH ?? 0}
        kind="hours"
        min={0}
        max={240}
        onChange={(v) => set({ againAfterH: v > 0 ? v : null })}
      />
      <ChooseRow
        label="Ground"
        value={one.ground ?? 'same'}
        choices={[{ id: 'same', name: 'as in the project' }, ...CASE_GROUNDS.map((id) => ({ id, name: GROUNDS[id] }))]}
        onChange={(v) => set({ ground: v === 'same' ? null : v })}
      />
      <Toggle label="All full when it begins" isOn={one.startsFull === true} onChange={(on) => set({ startsFull: on ? true : null })} />
      {ways.map((w) => (
        <Quantity
          key={w.id}
          label={`${w.name} blocked`}
          value={one.blockedPercent?.[w.id] ?? 0}
          kind="percent"
          min={0}
          max={100}
          onChange={(v) => share('blockedPercent', w.id, v)}
        />
      ))}
      {ways
        .filter((w) => traitsOf(w).isCut)
        .map((w) => (
          <Toggle
            key={w.id}
            label={`${w.name} not cut yet`}
            isOn={one.uncut?.includes(w.id) === true}
            onChange={(on) => {
              const next = [...(one.uncut ?? []).filter((id) => id !== w.id), ...(on ? [w.id] : [])];
              return set({ uncut: next.length > 0 ? next : null });
            }}
          />
        ))}
      {stores.map((s) => (
        <Quantity
          key={s.id}
          label={`${nameOf(s.id)} silted up`}
          value={one.siltedPercent?.[s.id] ?? 0}
          kind="percent"
          min={0}
          max={95}
          onChange={(v) => share('siltedPercent', s.id, v)}
        />
      ))}
      {stores.map((s) => (
        <Quantity
          key={s.id}
          label={`More sent to ${nameOf(s.id)}`}
          value={one.morePercent?.[s.id] ?? 0}
          kind="percent"
          min={0}
          max={1000}
          onChange={(v) => share('morePercent', s.id, v)}
        />
      ))}
      {stores.map((s) => {
        const low = one.lowBanks?.find((b) => b.work === s.id);
        const others = (one.lowBanks ?? []).filter((b) => b.work !== s.id);
        const keep = (byM: number): boolean => {
          const next = byM > 0 ? [...others, { work: s.id, lengthM: low?.lengthM ?? 5, byM }] : others;
          return set({ lowBanks: next.length > 0 ? next : null });
        };
        return (
          <Quantity
            key={s.id}
            label={`Bank of ${nameOf(s.id)} low by, over 5 m`}
            value={low?.byM ?? 0}
            kind="difference"
            min={0}
            max={20}
            onChange={keep}
          />
        );
      })}
      <Inline>
        <Button look="quiet" onPress={() => dispatch({ type: 'case.remove', payload: { id: one.id } })}>
          <Trash2 size={15} aria-hidden />
          Take this case away
        </Button>
      </Inline>
    </Part>
  );
}

/** What is left, or by how much a crest is passed; the unit stands in the heading. */
const leftText = (freeboardM: number | null, system: UnitSystem): string =>
  freeboardM !== null && freeboardM < 0
    ? `over\u00a0${formatNumber(-freeboardM, 'difference', system)}`
    : formatNumber(freeboardM, 'difference', system);

/** Greatest peak at one place; along the whole line where there is no such place. */
const leavesAt = (exits: readonly { readonly isPlace: boolean; readonly peakM3s: number }[]): number => {
  const places = exits.filter((e) => e.isPlace);
  return Math.max(0, ...(places.length > 0 ? places : exits).map((e) => e.peakM3s));
};

/** The works as designed and under every case, side by side. */
export function CasesPart(): ReactNode {
  const { cases = [], rain, ground } = useProject();
  const works = useWorks();
  const named = useNamed();
  const canAsk = rain !== null && ground !== null && works.length > 0;
  const system = useApp((s) => s.system);
  const rows = useAskNetwork('cases', {});
  const [open, setOpen] = useState<string | null>(null);
  const shown = cases.find((c) => c.id === open) ?? null;
  const nameOf = (id: string): string => nameAmong(named, id);
  const add = (): void => {
    const id = newId('case');
    if (dispatch({ type: 'case.add', payload: { case: { id, name: nextName('Case', cases), stormPercent: 20 } } })) setOpen(id);
  };
  const stores = rows?.[0]?.stores ?? [];
  return (
    <>
      <Part title={`Freeboard left, case by case [${displayUnit('difference', system).unit}]`}>
        {rows && rows.length > 0 && stores.length > 0 ? (
          <>
            <Table
              caption="Freeboard left in every case"
              head={['', ...stores.map((s) => nameOf(s.store)), `leaves, ${displayUnit('flow', system).unit}`]}
              rows={rows.map((r) => [
                r.name,
                ...r.stores.map((s) => leftText(s.freeboardM, system)),
                formatNumber(leavesAt(r.exits), 'flow', system),
              ])}
            />
            <Muted>Each row is the whole storm routed again. “Leaves” is the greatest peak at any one place.</Muted>
          </>
        ) : (
          <Muted role="status">
            {rows === undefined && canAsk ? 'Routing the storm, case by case…' : 'Give rain, ground and a work first.'}
          </Muted>
        )}
        <Inline>
          <Button look={cases.length === 0 ? 'strong' : 'plain'} onPress={() => void addUsual(cases)}>
            <ListPlus size={15} aria-hidden />
            Add the usual cases
          </Button>
          <Button onPress={add}>
            <Plus size={15} aria-hidden />A case of your own
          </Button>
        </Inline>
      </Part>
      {cases.length > 0 && (
        <ChooseRow
          label="Look at"
          value={shown?.id ?? 'none'}
          choices={[{ id: 'none', name: 'no case' }, ...cases.map((c) => ({ id: c.id, name: c.name }))]}
          onChange={(id) => setOpen(id === 'none' ? null : id)}
        />
      )}
      {shown && <CaseForm one={shown} />}
    </>
  );
}
