import { useState, type ReactNode } from 'react';
import { useAskNetwork } from '../../app/network.ts';
import { useDerived, useFormat, nameAmong, useNamed } from '../../app/selectors.ts';
import { ChooseRow, Fact, Muted, Part, Quantity } from '../../kit/index.ts';

/** What storm left a debris line at a level. */
export function MarkPart(): ReactNode {
  const derived = useDerived();
  const named = useNamed();
  const format = useFormat();
  const stores = derived?.stores.filter((s) => s.peakLevelM !== null) ?? [];
  const [wanted, choose] = useState<string | null>(null);
  const [mark, setMark] = useState<number | null>(null);
  const store = stores.find((s) => s.id === wanted) ?? stores[0];
  const nameOf = (id: string): string => nameAmong(named, id);
  const levelM = mark ?? Math.round(100 * (store?.peakLevelM ?? 0)) / 100;
  const told = useAskNetwork('whichStorm', store && levelM > store.floorM ? { store: store.id, levelM } : null);
  if (!store) return <Muted>Give rain, ground and a work first.</Muted>;
  const years = (v: number | null): string => (v === null ? '–' : format(Math.max(1, v), 'years'));
  return (
    <Part title="A debris line, silt or a mark on the cut face">
      <ChooseRow
        label="Found at"
        value={store.id}
        choices={stores.map((s) => ({ id: s.id, name: nameOf(s.id) }))}
        onChange={(id) => {
          choose(id);
          setMark(null);
        }}
      />
      <Quantity
        label="Level of the mark"
        help="The highest line, levelled from the same zero"
        value={levelM}
        kind="level"
        onChange={setMark}
      />
      {told === undefined && <Muted role="status">Looking for it…</Muted>}
      {levelM <= store.floorM && (
        <Muted role="alert">That is under the floor of {nameOf(store.id)}: level it again from the same zero.</Muted>
      )}
      {told && (
        <>
          <p role="status" style={{ fontSize: 17, margin: '10px 0 6px' }}>
            {told.isUnreached ? (
              <>No storm tried leaves a mark so high: was something blocked, or did a bank give way?</>
            ) : told.years === null ? (
              <>A storm beyond any your table can name left it.</>
            ) : (
              <>
                About a <strong>1 in {years(told.years)}</strong> storm left it, between {years(told.lowYears)} and {years(told.highYears)}{' '}
                for a mark read to 30 mm
                {told.isBeyondTable ? '; beyond your table, so a guess' : ''}.
              </>
            )}
          </p>
          <Fact label="Rain in that storm" value={format(told.rainMm, 'rain')} />
          <Fact label="Peak coming in" value={format(told.peakInM3s, 'flow')} />
          <Fact label="Peak going out" value={format(told.peakOutM3s, 'flow')} />
          {told.left.map((l) => (
            <Fact key={l.store} label={`${nameOf(l.store)} had left`} value={format(l.freeboardM, 'difference')} />
          ))}
        </>
      )}
    </Part>
  );
}
