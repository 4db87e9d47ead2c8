// Options: sets of works beside each other, and what each comes to.
import { CopyPlus, Trash2 } from 'lucide-react';
import { type ReactNode, useState } from 'react';
import { Bar, BarChart, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import styled from 'styled-components';
import type { HollowStands, OptionTold, OptionsCompared } from '#core/derive';
import type { QuantityKind } from '#core/units';
import { useAskOptions } from '../../app/network.ts';
import { newId, useFormat, useProject } from '../../app/selectors.ts';
import { dispatch, select } from '../../app/store.ts';
import { AXIS_TICK, Button, Choose, FoldPart, Inline, Muted, NameField, Quantity, Table } from '../../kit/index.ts';

const Says = styled.p`
  margin: 8px 0;
`;

type Format = (value: number | null, kind: QuantityKind) => string;

/** Height of one bar with its name, and of the axis [px]. */
const [BAR_PX, AXIS_PX] = [26, 34];

interface Bars {
  readonly title: string;
  readonly unit: string;
  readonly rows: readonly { readonly name: string; readonly value: number }[];
}

/** What options are best told apart by: how deep water stands in a hollow, else what they hold for an hour of work, else what they hold. */
function barsOf({ options, hollows }: OptionsCompared): Bars {
  const [hollow] = hollows.filter((h) => h.stands.filter((s) => s !== null).length > 1);
  if (hollow)
    return {
      title: `Water stands in ${hollow.name}, as found`,
      unit: ' mm',
      rows: options.flatMap(({ name }, k) => {
        const stands = hollow.stands[k];
        return stands ? [{ name, value: Math.round(1000 * stands.foundM) }] : [];
      }),
    };
  if (options.every((o) => o.labour !== null))
    return {
      title: 'Held for an hour of work, a fill',
      unit: ' L',
      rows: options.map(({ name, labour }) => ({ name, value: Math.round(labour?.aFill ?? NaN) })),
    };
  return { title: 'Held in all', unit: ' m³', rows: options.map(({ name, holdsM3 }) => ({ name, value: Math.round(holdsM3) })) };
}

function OptionBars({ bars: { title, unit, rows } }: { readonly bars: Bars }): ReactNode {
  return (
    <>
      <Muted>{title}</Muted>
      <ResponsiveContainer width="100%" height={BAR_PX * rows.length + AXIS_PX}>
        <BarChart data={[...rows]} layout="vertical" margin={{ top: 2, right: 22, bottom: 0, left: 0 }}>
          <XAxis type="number" tick={AXIS_TICK} stroke="var(--ink)" tickCount={4} unit={unit} />
          <YAxis type="category" dataKey="name" tick={AXIS_TICK} stroke="var(--line)" width={104} interval={0} />
          <Bar dataKey="value" fill="var(--water)" isAnimationActive={false} />
        </BarChart>
      </ResponsiveContainer>
    </>
  );
}

/** How long it stands, and whether it still does at the end of what was followed. */
function forHours({ standsH, isStill }: HollowStands, format: Format): string {
  if (standsH <= 0) return 'no time';
  return `${isStill ? 'more than ' : ''}${standsH > 10 ? `${Math.round(standsH)}\u00a0h` : format(standsH, 'hours')}`;
}

/** The answer in words: where water stands in each, else what each holds and leaves to mend. */
function saysOf({ options, hollows }: OptionsCompared, format: Format): string[] {
  const [hollow] = hollows.filter((h) => h.stands.filter((s) => s !== null).length > 1);
  const one = ({ name, holdsM3, mend }: OptionTold, k: number): string => {
    const stands = hollow?.stands[k];
    const head = `“${name}”: `;
    const rest = mend === 0 ? 'nothing to mend' : `${mend} to mend`;
    if (!stands) return `${head}holds ${format(holdsM3, 'volume')}, ${rest}`;
    return `${head}water in ${hollow?.name ?? ''} stands ${format(stands.foundM, 'difference')} deep, over a shoe for ${forHours(stands, format)}; ${rest}`;
  };
  return options.map((o, k) => `${one(o, k)}.`);
}

const NONE = '–';

function rowsOf({ options, hollows }: OptionsCompared, format: Format, hourCosts: number | null): string[][] {
  const row = (head: string, of: (o: OptionTold, k: number) => string): string[] => [head, ...options.map(of)];
  const litres = (head: string, of: (o: OptionTold) => number | null): string[][] =>
    options.some((o) => of(o) !== null) ? [row(head, (o) => format(of(o), 'count'))] : [];
  const forMoney = (litresAnHour: number | null | undefined): number | null =>
    litresAnHour === null || litresAnHour === undefined || !hourCosts ? null : litresAnHour / hourCosts;
  return [
    row('Works', (o) => String(o.works)),
    row('To mend', (o) => String(o.mend)),
    row('To weigh', (o) => String(o.weigh)),
    row('Not known', (o) => String(o.unknown)),
    row('Holds', (o) => format(o.holdsM3, 'volume')),
    row('Least freeboard', (o) => (o.least ? `${format(o.least.leftM, 'difference')}, ${o.least.name}` : NONE)),
    row('Leaves at one place', (o) => format(o.leavesM3s, 'flow')),
    row('Hours of work', (o) => (o.labour ? `${format(o.labour.hours, 'hours')}${loggedWords(o)}` : NONE)),
    ...litres('L/h a fill', (o) => o.labour?.aFill ?? null),
    ...litres('L/h a year', (o) => o.labour?.aYear ?? null),
    ...litres('L/h in silt', (o) => o.labour?.inSilt ?? null),
    ...litres('L for 1 of money, a fill', (o) => forMoney(o.labour?.aFill)),
    ...litres('L for 1 of money, a year', (o) => forMoney(o.labour?.aYear)),
    ...hollows.map(({ name, stands }) =>
      row(name, (_, k) => {
        const here = stands[k];
        return here ? `${format(here.foundM, 'difference')}, at worst ${format(here.worstM, 'difference')}` : NONE;
      }),
    ),
  ];
}

const loggedWords = ({ labour }: OptionTold): string =>
  !labour || labour.logged === 0 ? '' : labour.logged === labour.of ? ', logged' : `, ${labour.logged} of ${labour.of} logged`;

function SideBySide(): ReactNode {
  const compared = useAskOptions();
  const format = useFormat();
  const [hourCosts, setCosts] = useState<number | null>(null);
  if (!compared) return <Muted>{compared === null ? 'Needs the shape of your land.' : 'Working out each option …'}</Muted>;
  return (
    <>
      {saysOf(compared, format).map((text) => (
        <Says key={text}>{text}</Says>
      ))}
      <OptionBars bars={barsOf(compared)} />
      <Table
        caption="Options side by side, each judged as found, full and blocked"
        head={['', ...compared.options.map((o) => o.name)]}
        rows={rowsOf(compared, format, hourCosts)}
      />
      {compared.options.some((o) => o.labour !== null) && (
        <Quantity label="An hour of work costs" kind="number" min={0} max={10_000} value={hourCosts} onChange={setCosts} />
      )}
    </>
  );
}

const choose = (id: string): void => {
  select(null);
  dispatch({ type: 'option.choose', payload: { id } });
};

/** Which option is looked at, where there are several. */
export function ChooseOption(): ReactNode {
  const { options, activeOption } = useProject();
  if (options.length < 2) return null;
  return <Choose label="Option" value={activeOption} choices={options.map(({ id, name }) => ({ id, name }))} onChange={choose} />;
}

/** The options of a project: another one from that looked at, and all of them side by side. */
export function OptionsPart(): ReactNode {
  const { options, activeOption } = useProject();
  const [isCompared, setCompared] = useState(false);
  const active = options.find((o) => o.id === activeOption) ?? options[0];
  const several = options.length > 1;
  const copy = (): void => {
    const name = `${active.name}, changed`;
    dispatch({ type: 'option.copy', payload: { from: active.id, id: newId('option'), name } });
  };
  return (
    <FoldPart title={several ? `Options: “${active.name}” of ${options.length}` : 'Options'}>
      <NameField
        label="Name of this option"
        value={active.name}
        onChange={(name) => dispatch({ type: 'option.rename', payload: { id: active.id, name } })}
      />
      <Inline>
        <Button onPress={copy}>
          <CopyPlus size={16} aria-hidden="true" /> Another option from this one
        </Button>
        {several && (
          <Button look="quiet" onPress={() => dispatch({ type: 'option.remove', payload: { id: active.id } })}>
            <Trash2 size={16} aria-hidden="true" /> Remove it
          </Button>
        )}
      </Inline>
      <Muted>
        {several
          ? 'Each has its own works on the same land, rain and ground. What you draw or change goes into the one that is looked at.'
          : 'Keep these works as they are and try others beside them: as it was and as it will be, or two ways to do it.'}
      </Muted>
      {several && !isCompared && <Button onPress={() => setCompared(true)}>Set them side by side</Button>}
      {several && isCompared && <SideBySide />}
    </FoldPart>
  );
}
