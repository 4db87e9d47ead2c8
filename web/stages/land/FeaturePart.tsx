import { Scissors } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import { Line as LineMark, LineChart, ReferenceLine, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import type { Compared, Reopening } from '#core/derive';
import type { Feature } from '#core/contract';
import type { Line } from '#core/geometry';
import { seenKind } from '#core/seen';
import { amount, displayUnit, say, spoken, toDisplay } from '#core/units';
import { useAsk } from '../../app/land.ts';
import { checksOf, useDerived, useFormat, useProject } from '../../app/selectors.ts';
import { dispatch, useApp } from '../../app/store.ts';
import { RunOnPart } from './RunOnPart.tsx';
import { AXIS_TICK, Button, CheckItem, Choose, Fact, Muted, Part, Quantity, Table } from '../../kit/index.ts';

const set = (id: string, values: Readonly<Record<string, unknown>>): void => {
  dispatch({ type: 'feature.change', payload: { id, set: values } });
};

function Fields({ feature }: { readonly feature: Feature }): ReactNode {
  const kind = seenKind(feature.kind);
  if (!kind) return null;
  return (
    <>
      <Muted>{kind.says}</Muted>
      {kind.fields.map((f) => (
        <Quantity
          key={f.path}
          label={f.label}
          help={f.help}
          kind={f.kind}
          min={f.min}
          max={f.max}
          value={(feature as unknown as Record<string, number | undefined>)[f.path] ?? null}
          onChange={(v) => set(feature.id, { [f.path]: v })}
        />
      ))}
      {feature.kind === 'ditch' && (
        <Choose
          label="Found wet at"
          value={feature.wetEnd ?? 'unknown'}
          choices={[
            { id: 'unknown', name: 'not known' },
            { id: 'start', name: 'its first end' },
            { id: 'end', name: 'its last end' },
          ]}
          onChange={(v) => set(feature.id, { wetEnd: v === 'unknown' ? null : v })}
        />
      )}
    </>
  );
}

/** Area of every pin and work with it and without it, side by side. */
function SideBySide({ rows }: { readonly rows: readonly Compared[] }): ReactNode {
  const format = useFormat();
  const changed = rows.filter((r) => r.withM2 !== r.withoutM2);
  if (rows.length === 0) return <Muted>Drop a pin or draw a swale to see what it changes for them.</Muted>;
  if (changed.length === 0) return <Muted>It changes nothing for your pins and works.</Muted>;
  return (
    <Table
      caption="Area that drains to each, with it and without it"
      head={['', 'with it', 'without it']}
      rows={changed.map((r) => [r.name, format(r.withM2, 'land'), format(r.withoutM2, 'land')])}
    />
  );
}

function ReopenAnswer({
  feature,
  answer,
  name,
}: {
  readonly feature: Feature;
  readonly answer: Reopening;
  readonly name: string;
}): ReactNode {
  const system = useApp((s) => s.system);
  if (answer.openings.length === 0) return <Muted>No opening in it would bring {name} more water.</Muted>;
  const places = answer.openings.map((o) => say`${amount(o.fromM, 'distance')} to ${amount(o.toM, 'distance')}`);
  const where = places.flatMap((p, k) => (k === 0 ? p : [' and ', ...p]));
  const told = say`Cut it down ${amount(answer.cutM, 'difference')} to the ground over ${amount(answer.lengthM, 'distance')}, at ${where} along it: ${name} gets back ${amount(answer.openedM2 - answer.nowM2, 'land')} of the ${amount(answer.withoutM2 - answer.nowM2, 'land')} it lost.`;
  const open = [...(feature.open ?? []), ...answer.openings.map((o) => [o.fromM, o.toM])];
  return (
    <>
      <p>{spoken(told, system)}</p>
      <Button onPress={() => set(feature.id, { open })}>
        <Scissors size={15} aria-hidden />
        Open it there
      </Button>
    </>
  );
}

/** What a bank takes, and what it would take to have it back. */
function BankPart({ feature, rows }: { readonly feature: Feature; readonly rows: readonly Compared[] }): ReactNode {
  const losers = rows.filter((r) => r.withoutM2 > r.withM2).sort((a, b) => b.withoutM2 - b.withM2 - (a.withoutM2 - a.withM2));
  const [wanted, setWanted] = useState<string | null>(null);
  const loser = losers.find((r) => r.id === wanted) ?? losers[0];
  const isLost = loser !== undefined;
  const args = isLost ? { id: feature.id, target: loser.id } : null;
  const answer = useAsk('reopen', args);
  if (!isLost) return null;
  return (
    <Part title={`To have it back for ${loser.name}`}>
      {losers.length > 1 && (
        <Choose label="For" value={loser.id} choices={losers.map((r) => ({ id: r.id, name: r.name }))} onChange={setWanted} />
      )}
      {answer === undefined && <Muted>Working it out…</Muted>}
      {answer && <ReopenAnswer feature={feature} answer={answer} name={loser.name} />}
    </Part>
  );
}

/** How far a line that should be level is from it, and where its water gathers. */
function LevelPart({ line }: { readonly line: Line }): ReactNode {
  const format = useFormat();
  const system = useApp((s) => s.system);
  const level = useAsk('departure', { line });
  if (!level) return null;
  const { unit } = displayUnit('difference', system);
  const rows = Array.from(level.atM, (atM, k) => ({
    at: toDisplay(atM, 'distance', system),
    off: Number.isNaN(level.offM[k]) ? null : Number(toDisplay(level.offM[k], 'difference', system).toFixed(1)),
  }));
  const lows = level.lows.slice(0, 3).map((l) => `${format(l.atM, 'distance')} (${format(-l.offM, 'difference')} under its mean)`);
  return (
    <Part title="How level it is">
      <Fact label="Out of level" value={format(level.rangeM, 'difference')} />
      <div
        role="img"
        aria-label={`Height of the ground above its mean along the line, from ${format(level.highest.offM, 'difference')} down`}
      >
        <Muted>Above or under its mean ({unit}), along it</Muted>
        <ResponsiveContainer width="100%" height={96}>
          <LineChart data={rows} margin={{ top: 4, right: 30, bottom: 0, left: -10 }}>
            <XAxis
              dataKey="at"
              type="number"
              domain={[0, 'dataMax']}
              tick={AXIS_TICK}
              stroke="var(--ink)"
              tickFormatter={(v: number) => String(Math.round(v))}
            />
            <YAxis tick={AXIS_TICK} stroke="var(--line)" width={56} tickCount={3} />
            <ReferenceLine y={0} stroke="var(--muted)" strokeDasharray="3 3" />
            <LineMark dataKey="off" stroke="var(--clayText)" dot={false} isAnimationActive={false} strokeWidth={1.8} />
          </LineChart>
        </ResponsiveContainer>
      </div>
      <Muted>Water along it gathers at {lows.join(', ')}.</Muted>
    </Part>
  );
}

/** The selected thing on the land: what it is, what it does, what follows. */
export function FeaturePart(): ReactNode {
  const { features } = useProject();
  const derived = useDerived();
  const selected = useApp((s) => s.selected);
  const feature = features.find((f) => f.id === selected);
  const kind = feature ? seenKind(feature.kind) : undefined;
  const changes = kind !== undefined && kind.effect !== 'note' && kind.effect !== 'spring';
  const args = changes && feature ? { id: feature.id } : null;
  const rows = useAsk('compare', args);
  const works = useProject().options.flatMap((o) => o.works);
  if (!feature) return null;
  const spring = derived?.springs.find((s) => s.id === feature.id);
  return (
    <Part title={feature.name ?? feature.kind}>
      <Fields feature={feature} />
      {checksOf(derived, [feature.id]).map((c) => (
        <CheckItem key={c.id} check={c} />
      ))}
      {spring && (
        <Muted>
          Its water goes to{' '}
          {works.find((w) => w.id === spring.to)?.name ?? (spring.to === 'property-edge' ? 'the property line' : 'the edge of the map')}.
        </Muted>
      )}
      {changes && rows === undefined && <Muted>Working out what it changes…</Muted>}
      {changes && rows && <SideBySide rows={rows} />}
      {kind?.effect === 'bank' && rows && <BankPart feature={feature} rows={rows} />}
      {!kind && <RunOnPart line={feature.line} ring={feature.ring} />}
      {feature.kind === 'line' && feature.line && <LevelPart line={feature.line} />}
    </Part>
  );
}
