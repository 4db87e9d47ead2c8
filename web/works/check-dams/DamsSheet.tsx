import { Plus, Trash2 } from 'lucide-react';
import { type ReactNode, useState } from 'react';
import type { WorkBase } from '#core/contract';
import { lineLength } from '#core/geometry';
import { type QuantityKind, type UnitSystem, displayUnit, formatNumber } from '#core/units';
import { type CheckDams, DAM_FIELDS, type Dam, MOST_CARRY_M, ROW_COLUMNS, damsFromRows, inOrder, valueAt } from '#core/works';
import { ask } from '../../app/land.ts';
import { dispatch, useApp } from '../../app/store.ts';
import { Button, ChooseRow, FoldPart, Inline, Muted, NameField, Quantity, Table } from '../../kit/index.ts';
import { Toggle } from '../../kit/toggle.tsx';
import { change, mm } from '../levels.ts';
import { PasteRows } from '../shared/PasteRows.tsx';
import { WorkSheet } from '../shared/WorkSheet.tsx';

const keep = (work: CheckDams, dams: readonly Dam[]): boolean => dispatch(change(work.id, { dams: inOrder({ dams }) }));

const isDams = (work: WorkBase | undefined): work is CheckDams => Array.isArray(valueAt(work, 'dams'));

/** Dams spaced anew down the same line, as a first drawing of it would be. */
async function respace(work: CheckDams, how: string): Promise<void> {
  const begun = await ask('begin', { kind: work.kind, fresh: [work.id], how, points: work.line });
  const made = begun?.works.find((w) => isDams(w));
  if (made && isDams(made)) keep(work, made.dams);
}

/** What is told of every dam, with silt and losses where any has them; units stand in the headings. */
function rowsOf(
  dams: readonly Dam[],
  system: UnitSystem,
): { readonly head: readonly string[]; readonly rows: readonly (readonly string[])[] } {
  const shares = (['siltedPercent', 'lostPercent'] as const).filter((key) => dams.some((d) => (d[key] ?? 0) > 0));
  const unit = (kind: QuantityKind): string => displayUnit(kind, system).unit;
  return {
    head: [
      'dam',
      ...DAM_FIELDS.map(({ key, kind }) => `${HEADS[key]} ${unit(kind)}`),
      ...shares.map((key) => (key === 'siltedPercent' ? 'silt %' : 'lost %')),
    ],
    rows: dams.map((d, k) => [
      `${k + 1}${d.isMeasured === true ? '' : '?'}`,
      ...DAM_FIELDS.map(({ key, kind }) => formatNumber(d[key], kind, system)),
      ...shares.map((key) => formatNumber(d[key] ?? null, 'percent', system)),
    ]),
  };
}

const HEADS: Readonly<Record<(typeof DAM_FIELDS)[number]['key'], string>> = {
  atM: 'at',
  heightM: 'high',
  bedWidthM: 'bed',
  bankWidthM: 'banks',
  depthM: 'deep',
};

/** What is undefined is taken away. */
type Change = { readonly [K in keyof Dam]?: Dam[K] | undefined };
const changed = (dam: Dam, next: Change): Dam =>
  Object.fromEntries(Object.entries({ ...dam, ...next }).filter(([, value]) => value !== undefined)) as unknown as Dam;

/** Every dam in a line of figures, and one of them to change. */
function Dams({ work }: { readonly work: CheckDams }): ReactNode {
  const system = useApp((s) => s.system);
  const dams = inOrder(work);
  const [chosen, choose] = useState(0);
  const at = Math.min(chosen, dams.length - 1);
  const dam = dams[at];
  const put = (next: Change): boolean =>
    keep(
      work,
      dams.map((d, k) => (k === at ? changed(d, next) : d)),
    );
  const add = (): void => {
    const before = dams[at - 1]?.atM ?? 0;
    const atM = mm((before + dam.atM) / 2);
    const { heightM, bedWidthM, bankWidthM, depthM } = dam;
    if (keep(work, [...dams, { atM, heightM, bedWidthM, bankWidthM, depthM }])) choose(at);
  };
  return (
    <FoldPart
      title="The dams"
      action={
        <Button look="quiet" onPress={add}>
          <Plus size={15} aria-hidden />
          One more above
        </Button>
      }
    >
      <Table caption="Dams from the upper end" {...rowsOf(dams, system)} />
      <Muted>A question mark: its channel was read from the terrain, nobody measured it.</Muted>
      <ChooseRow
        label="Change dam"
        value={String(at)}
        choices={dams.map((_, k) => ({ id: String(k), name: `Dam ${k + 1}` }))}
        onChange={(id) => choose(Number(id))}
      />
      {DAM_FIELDS.map(({ key, label, kind, min, max }) => (
        <Quantity
          key={key}
          label={label}
          kind={kind}
          min={min}
          max={key === 'atM' ? lineLength(work.line) : max}
          value={dam[key]}
          onChange={(v) => put({ [key]: v })}
        />
      ))}
      <Quantity
        label="Silted up"
        kind="percent"
        min={0}
        max={100}
        value={dam.siltedPercent ?? 0}
        onChange={(siltedPercent) => put({ siltedPercent })}
      />
      <Quantity
        label="Height lost"
        kind="percent"
        min={0}
        max={100}
        value={dam.lostPercent ?? 0}
        onChange={(lostPercent) => put({ lostPercent })}
      />
      <Toggle label="Measured on the ground" isOn={dam.isMeasured === true} onChange={(isMeasured) => put({ isMeasured })} />
      {work.form === 'rock' && (
        <Quantity
          label="Loose stone near it"
          kind="volume"
          min={0}
          value={dam.rockNearM3 ?? null}
          onChange={(rockNearM3) => put({ rockNearM3 })}
          onClear={() => put({ rockNearM3: undefined })}
        />
      )}
      <Quantity
        label="Carried, if not as the rest"
        kind="distance"
        min={0}
        max={MOST_CARRY_M}
        value={dam.carryM ?? null}
        onChange={(carryM) => put({ carryM })}
        onClear={() => put({ carryM: undefined })}
      />
      <NameField
        label="What was seen, or a picture’s name"
        value={dam.note ?? ''}
        mayBeEmpty
        onChange={(note) => put({ note: note === '' ? undefined : note })}
      />
      {dams.length > 1 && (
        <Inline>
          <Button
            look="quiet"
            onPress={() =>
              keep(
                work,
                dams.filter((_, k) => k !== at),
              )
            }
          >
            <Trash2 size={15} aria-hidden />
            Remove dam {at + 1}
          </Button>
        </Inline>
      )}
    </FoldPart>
  );
}

/** Placing all of them anew, or taking in those that were measured. */
const Anew = ({ work }: { readonly work: CheckDams }): ReactNode => (
  <FoldPart title="All of them anew">
    <Inline>
      <Button onPress={() => void respace(work, 'check-dams')}>Space by sight</Button>
      <Button onPress={() => void respace(work, 'check-dams-gully')}>Space by the gully rule</Button>
    </Inline>
    <Muted>
      By sight the crest of each is level with the toe of the next. The gully rule sets them further apart and counts on silt to fill
      between.
    </Muted>
    <PasteRows
      what="dams"
      columns={ROW_COLUMNS}
      placeholder={'12\t0.5\t1.4\t3.2\t1.1'}
      code="check-dams.row"
      read={damsFromRows}
      keep={(dams) => keep(work, dams)}
    />
  </FoldPart>
);

/** Everything about a series of check dams. */
export const DamsSheet = ({ work }: { readonly work: CheckDams }): ReactNode => (
  <WorkSheet work={work}>
    <Dams work={work} />
    <Anew work={work} />
  </WorkSheet>
);
