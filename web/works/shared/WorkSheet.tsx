import { Ruler } from 'lucide-react';
import type { ReactNode } from 'react';
import type { WorkBase } from '#core/contract';
import { registry } from '#core/works';
import { checksOf, endName, hostIdOf, useDerived, useFormat, useView, useWorks } from '../../app/selectors.ts';
import { dispatch, select } from '../../app/store.ts';
import { Button, CheckItem, ChooseRow, Fact, Inline, Muted, Part, Quantity, Table } from '../../kit/index.ts';
import { WorkHead } from '../WorkHead.tsx';
import { Working } from '../Working.tsx';
import { change } from '../levels.ts';
import { LeadsTo } from './LeadsTo.tsx';
import { ShapeDrawing } from './ShapeDrawing.tsx';

/** The value at a dotted path of a work. */
const valueAt = (work: WorkBase, path: string): unknown =>
  path
    .split('.')
    .reduce<unknown>((at, key) => (typeof at === 'object' && at !== null ? (at as Record<string, unknown>)[key] : undefined), work);

/** Where each way out's water goes, and how much of it in this storm. */
export function WhereItGoes({ id }: { readonly id: string }): ReactNode {
  const derived = useDerived();
  const works = useWorks();
  const format = useFormat();
  const own = derived?.outlets.filter((o) => o.work === id) ?? [];
  return (
    <>
      {own.map((o) => {
        const link = derived?.links.find((l) => l.outlet === o.id);
        const to = endName(works, link?.to);
        const ran =
          o.peakM3s > 0
            ? `${format(Math.abs(o.volumeM3), 'volume')} in ${format(o.runsH, 'hours')}, at most ${format(o.peakM3s, 'flow')}`
            : 'none in this storm';
        const washes =
          o.lining === 'washes' && o.standsMs !== null
            ? ` Its ${format(o.velocityMs, 'velocity')} is more than the ${format(o.standsMs, 'velocity')} the ground there stands.`
            : '';
        return (
          <p key={o.id} style={{ margin: '6px 0' }}>
            {own.length > 1 ? `Over its ${o.id.split('#')[1] ?? 'crest'} water` : 'Its water'} runs to {to}: {ran}.{washes}
          </p>
        );
      })}
    </>
  );
}

/** What the storm did to a store. */
export function StoreFacts({ id }: { readonly id: string }): ReactNode {
  const derived = useDerived();
  const format = useFormat();
  const store = derived?.stores.find((s) => s.id === id);
  const catchment = derived?.catchments.find((c) => c.of === id);
  if (!store) return null;
  if (store.inM3 === null)
    return <Muted>It holds {format(store.heldM3, 'volume')}. Give rain and ground to see what the storm brings.</Muted>;
  return (
    <>
      <Fact label="Its own catchment" value={format(catchment?.areaM2, 'land')} />
      <Fact label="Comes in" value={format(store.inM3, 'volume')} />
      <Fact label="Held below the lowest way out" value={format(store.heldM3, 'volume')} />
      <Fact label="Leaves" value={format(store.spilledM3, 'volume')} />
      <Fact label="Peak coming" value={format(store.peakInM3s, 'flow')} />
      <Fact label="Peak leaving" value={format(store.peakOutM3s, 'flow')} />
      <Fact label="Runs over for" value={format(store.spillsH, 'hours')} />
      <Fact label="Highest water" value={format(store.peakLevelM, 'level')} />
      <Fact label="Freeboard left" value={format(store.freeboardM, 'difference')} />
      <Fact label="Still held a day later" value={format(store.nextDayM3, 'volume')} />
    </>
  );
}

/** Rows a stage table is told in. */
const STAGE_ROWS = 8;

/** How much water stands at each level up to the crest, and how wide. */
function StageTable({ id }: { readonly id: string }): ReactNode {
  const format = useFormat();
  const store = useDerived()?.stores.find((s) => s.id === id);
  const stage = store?.stage.filter((s) => s.levelM <= store.crestM + 1e-6) ?? [];
  if (stage.length === 0) return null;
  const every = Math.max(1, Math.ceil(stage.length / STAGE_ROWS));
  const shown = stage.filter((_, k) => k % every === 0 || k === stage.length - 1);
  return (
    <Table
      caption="Water by level"
      head={['level', 'water', 'surface']}
      rows={shown.map((s) => [format(s.levelM, 'level'), format(s.volumeM3, 'volume'), format(s.wettedM2, 'area')])}
    />
  );
}

interface Shown {
  readonly id: string;
  /** Fields not shown for this work as it is. */
  readonly hides?: readonly string[];
  /** Between its form and its figures. */
  readonly children?: ReactNode;
}

/** Everything about one work by its technique: section, form, what it comes to, checks and working. */
export function WorkSheet({ id, hides = [], children }: Shown): ReactNode {
  const works = useWorks();
  const work = works.find((w) => w.id === id);
  const derived = useDerived();
  const view = useView();
  const format = useFormat();
  if (!work) return null;
  const { title, fields, choices } = registry.bind(work);
  const hostId = hostIdOf(work);
  const host = works.find((w) => w.id === hostId);
  const shape = view?.shapes[id];
  const figures = view?.figures[id] ?? [];
  const isStore = derived?.stores.some((s) => s.id === id) === true;
  const field = (f: (typeof fields)[number]): ReactNode => (
    <Quantity
      key={f.path}
      label={f.label}
      help={f.help}
      kind={f.kind}
      min={f.min}
      max={f.max}
      value={valueAt(work, f.path) as number}
      onChange={(v) => dispatch(change(id, { [f.path]: v }))}
    />
  );
  const shown = fields.filter((f) => !hides.includes(f.path));
  return (
    <>
      <WorkHead work={work} />
      <Muted>
        {title}
        {host && (
          <>
            {' of '}
            <Button look="quiet" onPress={() => select(host.id)}>
              {host.name}
            </Button>
          </>
        )}
      </Muted>
      <WhereItGoes id={id} />
      <LeadsTo id={id} />
      {shape && <ShapeDrawing shape={shape} />}
      {choices.length > 0 && (
        <Part title="Kind">
          {choices
            .filter((c) => !hides.includes(c.path))
            .map((c) => (
              <ChooseRow
                key={c.path}
                label={c.label}
                value={String(valueAt(work, c.path))}
                choices={c.options}
                onChange={(v) => dispatch(change(id, { [c.path]: v }))}
              />
            ))}
        </Part>
      )}
      <Part title="Levels">{shown.filter((f) => f.kind === 'level').map(field)}</Part>
      <Part title="Shape">{shown.filter((f) => f.kind !== 'level').map(field)}</Part>
      {children}
      {figures.length > 0 && (
        <Part title="What it comes to">
          {figures.map((f) => (
            <Fact key={f.id} label={f.label} value={format(f.value, f.kind)} />
          ))}
          {figures.map((f) => {
            const { sets, value } = f;
            const now = sets === undefined ? null : valueAt(work, sets);
            if (sets === undefined || value === null || typeof now !== 'number' || now >= value - 1e-6) return null;
            return (
              <Inline key={`set-${f.id}`}>
                <Button look="strong" onPress={() => dispatch(change(id, { [sets]: value }))}>
                  <Ruler size={16} aria-hidden />
                  {f.label}: set to {format(value, f.kind)}
                </Button>
              </Inline>
            );
          })}
        </Part>
      )}
      {isStore && (
        <Part title="Level, water and surface">
          <StageTable id={id} />
        </Part>
      )}
      {isStore && (
        <Part title="In this storm">
          <StoreFacts id={id} />
        </Part>
      )}
      <Part title="Checks">
        {checksOf(derived, [id]).map((c, i) => (
          <CheckItem key={`${c.id}${i}`} check={c} />
        ))}
      </Part>
      <Part title="Working">
        <Working ids={[id]} />
      </Part>
    </>
  );
}
