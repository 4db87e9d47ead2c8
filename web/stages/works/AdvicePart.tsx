// What suits a place: what was measured there, what only somebody there can say, and the works that fit, held against each other.
import { Check, X } from 'lucide-react';
import { type ReactNode, useState } from 'react';
import type { PlaceSaid } from '#core/contract';
import type { Advice, Advised } from '#core/derive';
import { type Said, amount, capitalised, say, spoken } from '#core/units';
import { type AskedPlace, setLand } from '../../app/land.ts';
import { useAdvice } from '../../app/network.ts';
import { useFormat } from '../../app/selectors.ts';
import { select, useApp } from '../../app/store.ts';
import { Button, ChooseRow, Fact, FoldPart, Inline, Muted, Part, Quantity, Table } from '../../kit/index.ts';
import { beginWork } from '../../plan/begin.ts';

type Choices = readonly { readonly id: string; readonly name: string }[];
const UNKNOWN = { id: 'unknown', name: 'not said' };
const STONE: Choices = [UNKNOWN, { id: 'none', name: 'none' }, { id: 'some', name: 'some' }, { id: 'plenty', name: 'plenty' }];
const MACHINE: Choices = [UNKNOWN, { id: 'no', name: 'none comes there' }, { id: 'yes', name: 'one comes there' }];
const BED: Choices = [UNKNOWN, { id: 'soil', name: 'soil' }, { id: 'rock', name: 'rock' }];
const PURPOSE: Choices = [
  { id: 'any', name: 'whatever fits' },
  { id: 'slow', name: 'slow it, keep the soil' },
  { id: 'soak', name: 'let it soak in' },
  { id: 'grow', name: 'grow something' },
  { id: 'hold', name: 'hold it for months' },
  { id: 'lead-off', name: 'lead it away' },
];

const close = (): void => setLand({ answer: null });

type Told = Partial<PlaceSaid>;

/** What no map tells of a place. */
function Asked({
  isChannel,
  told,
  tell,
}: {
  readonly isChannel: boolean;
  readonly told: Told;
  readonly tell: (change: Told) => void;
}): ReactNode {
  const row = (label: string, key: 'stone' | 'machine' | 'bed' | 'purpose', choices: Choices): ReactNode => (
    <ChooseRow label={label} value={told[key] ?? choices[0].id} choices={choices} onChange={(id) => tell({ [key]: id })} />
  );
  return (
    <FoldPart title="What you know of it">
      {row('Loose stone near', 'stone', STONE)}
      {isChannel ? row('Bed and banks are', 'bed', BED) : row('Machine', 'machine', MACHINE)}
      {row('It is to', 'purpose', PURPOSE)}
      <Quantity
        label="Weeks until the rains"
        kind="count"
        min={0}
        max={60}
        value={told.weeks ?? null}
        onChange={(weeks) => tell({ weeks })}
      />
      <Quantity
        label="An hour of work costs"
        kind="number"
        min={0}
        max={10_000}
        value={told.hourCosts ?? null}
        onChange={(hourCosts) => tell({ hourCosts })}
      />
    </FoldPart>
  );
}

/** What was measured there, in a sentence. */
function placeWords({
  form,
  areaM2,
  lengthM,
  slope,
  aboveM2,
  aboveIsCut,
  soilDepthM,
  rateMmPerHour,
  widthM,
  peakM3s,
}: Advice['place']): Said {
  const where =
    form === 'field'
      ? say`A field of ${amount(areaM2, 'area')} that falls ${amount(slope, 'slope')}`
      : say`A channel ${amount(lengthM, 'distance')} long that falls ${amount(slope, 'slope')}${widthM === null ? '' : say`, ${amount(widthM, 'length')} wide`}`;
  const ground =
    soilDepthM === null || rateMmPerHour === null
      ? '; its soil is not described'
      : say`; ${amount(soilDepthM, 'length')} of soil that takes in ${amount(rateMmPerHour, 'intensity')}`;
  const comes = peakM3s === null ? '' : say`; ${amount(peakM3s, 'flow')} at its peak`;
  return say`${where}${ground}; ${aboveIsCut ? 'at least ' : ''}${amount(aboveM2, 'land')} ${form === 'field' ? 'above it drains' : 'drains'} to it${comes}.`;
}

const FITS: Readonly<Record<Advised['fits'], string>> = { well: 'fits', perhaps: 'perhaps', not: 'not here' };

function List({ title, items }: { readonly title: string; readonly items: readonly Said[] }): ReactNode {
  const system = useApp((s) => s.system);
  if (items.length === 0) return null;
  return (
    <>
      <Muted>{title}</Muted>
      <ul style={{ margin: '2px 0 6px', paddingLeft: 18 }}>
        {items.map((item, k) => (
          <li key={k}>{capitalised(spoken(item, system))}</li>
        ))}
      </ul>
    </>
  );
}

/** One that fits, with its reasons, its figures as tried there, and a button that places it. */
function Choice({ one, place }: { readonly one: Advised; readonly place: (one: Advised) => void }): ReactNode {
  const format = useFormat();
  const isReadOnly = useApp((s) => s.saved === 'read-only');
  return (
    <FoldPart title={`${one.title}: ${FITS[one.fits]}`}>
      {one.holdsM3 !== null && <Fact label={one.isSlowed ? 'Would slow' : 'Would hold'} value={format(one.holdsM3, 'volume')} />}
      {one.hours !== null && <Fact label="Hours of one person" value={format(one.hours, 'hours')} />}
      {one.costs !== null && <Fact label="Would cost in work" value={format(one.costs, 'count')} />}
      <List title="For it" items={one.speaksFor} />
      <List title="Against it" items={one.against} />
      <List title="To be mended as first drawn" items={one.wrong} />
      <List title="To find out" items={one.asks} />
      {one.school !== null && <Muted>Begun with by those of “{one.school}”.</Muted>}
      {one.draw && !isReadOnly && (
        <Inline>
          <Button look="strong" onPress={() => place(one)}>
            <Check size={15} aria-hidden />
            Place {one.title.toLowerCase()}
          </Button>
        </Inline>
      )}
    </FoldPart>
  );
}

function Compared({ options }: { readonly options: readonly Advised[] }): ReactNode {
  const format = useFormat();
  const tried = options.filter((o) => o.holdsM3 !== null || o.hours !== null);
  if (tried.length < 2) return null;
  const hasCosts = tried.some((o) => o.costs !== null);
  return (
    <FoldPart title="Side by side, as tried there">
      <Table
        caption="Works that fit, the best first"
        head={['work', 'holds', 'hours', ...(hasCosts ? ['cost'] : []), 'L/h']}
        rows={tried.map((o) => [
          o.title,
          `${format(o.holdsM3, 'volume')}${o.isSlowed ? ' slowed' : ''}`,
          format(o.hours, 'hours'),
          ...(hasCosts ? [format(o.costs, 'count')] : []),
          format(o.litresAnHour, 'count'),
        ])}
      />
    </FoldPart>
  );
}

function Answer({ advice, place }: { readonly advice: Advice; readonly place: (one: Advised) => void }): ReactNode {
  const system = useApp((s) => s.system);
  const fitting = advice.options.filter((o) => o.fits !== 'not');
  const others = advice.options.filter((o) => o.fits === 'not');
  return (
    <>
      <p role="status">
        <strong>{spoken(advice.said, system)}</strong>
      </p>
      <Muted>{spoken(placeWords(advice.place), system)}</Muted>
      {advice.mendFirst.length > 0 && (
        <Part title="Mend first">
          {advice.mendFirst.map((m) => (
            <p key={m.work} style={{ margin: '4px 0' }}>
              <Button look="quiet" onPress={() => select(m.work)}>
                {m.name}
              </Button>{' '}
              {spoken(m.title, system)}: {spoken(m.do, system)}
            </p>
          ))}
        </Part>
      )}
      {advice.schools !== null && <p>{spoken(advice.schools, system)}</p>}
      {fitting.map((one) => (
        <Choice key={one.kind} one={one} place={place} />
      ))}
      <Compared options={fitting} />
      {others.length > 0 && (
        <FoldPart title="Not here">
          {others.map((o) => (
            <p key={o.kind} style={{ margin: '4px 0' }}>
              {o.title}: {spoken(o.not ?? o.against[0] ?? 'little speaks for it', system)}.
            </p>
          ))}
        </FoldPart>
      )}
    </>
  );
}

/** The advice in hand, until one is placed or it is put away. */
export function AdvicePart({ place }: { readonly place: AskedPlace }): ReactNode {
  const [told, tell] = useState<Told>({});
  const advice = useAdvice({ ...place, ...told });
  const placeOne = (one: Advised): void => {
    if (!one.draw) return;
    close();
    void beginWork(one.kind, { how: one.draw.how, points: one.draw.points });
  };
  return (
    <Part title="What suits here?">
      {advice === undefined && <Muted role="status">Trying the works that fit there…</Muted>}
      {advice === null && <Muted>Nothing is known of that place.</Muted>}
      {advice && <Answer advice={advice} place={placeOne} />}
      <Asked isChannel={'line' in place} told={told} tell={(change) => tell({ ...told, ...change })} />
      <Inline>
        <Button look="quiet" onPress={close}>
          <X size={15} aria-hidden />
          Put it away
        </Button>
      </Inline>
    </Part>
  );
}
