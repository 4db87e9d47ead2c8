import { Ruler } from 'lucide-react';
import type { ReactNode } from 'react';
import type { WorkBase } from '#core/contract';
import { type DerivedLink, WAY_WORDS, hours, partsOf, runsPast } from '#core/derive';
import { capitalised } from '#core/units';
import { catalogue, valueAt } from '#core/works';
import {
  checksOf,
  endName,
  hostIdOf,
  partWords,
  storeFor,
  useDerived,
  useFormat,
  useView,
  useWorks,
  useNamed,
} from '../../app/selectors.ts';
import { dispatch, select, useApp } from '../../app/store.ts';
import { Button, CheckItem, Fact, FoldPart, InSight, Inline, Muted, Table, saidOnce } from '../../kit/index.ts';
import { WorkHead } from '../WorkHead.tsx';
import { WorkingPart } from '../Working.tsx';
import { change } from '../levels.ts';
import { WorkFields } from './Fields.tsx';
import { CureButton } from './CureButton.tsx';
import { BelowPart } from './BelowPart.tsx';
import { EachPart } from './EachPart.tsx';
import { FoundPart } from './FoundPart.tsx';
import { LabourPart } from './LabourPart.tsx';
import { LeadsTo } from './LeadsTo.tsx';
import { CornersPart } from './CornersPart.tsx';
import { HandOverPart } from './HandOverPart.tsx';
import { MakingPart } from './MakingPart.tsx';
import { DiagnosisPart } from './SheetParts.tsx';
import { ShapeDrawing } from './ShapeDrawing.tsx';

/** What runs at the worst is told where it is so many times what runs as usually found. */
const MORE = 1.05;

/** Where each way out's water goes, how much of it in this storm, and at its worst. */
export function WhereItGoes({ id }: { readonly id: string }): ReactNode {
  const derived = useDerived();
  const named = useNamed();
  const format = useFormat();
  const linkOf = (outlet: string): DerivedLink | undefined => derived?.links.find((l) => l.outlet === outlet);
  const inside: ReadonlySet<string> = derived ? partsOf(derived, id) : new Set();
  // What goes on to the next of its own stores and pipes stays in the work.
  const own = derived?.outlets.filter((o) => o.work === id && !inside.has(linkOf(o.id)?.to ?? '')) ?? [];
  return (
    <>
      {own.map((o) => {
        const link = linkOf(o.id);
        const to = endName(named, link?.to);
        const mostM3s = link?.mostM3s ?? o.peakM3s;
        const more = mostM3s > MORE * o.peakM3s ? `; up to ${format(mostM3s, 'flow')} in the worst storm, full or blocked` : '';
        const ran =
          o.peakM3s > 0
            ? `${format(Math.abs(o.volumeM3), 'volume')} in ${format(o.runsH, 'hours')}, at most ${format(o.peakM3s, 'flow')}${more}`
            : `none in this storm${more}`;
        const washes =
          o.lining === 'washes' && o.standsMs !== null
            ? ` Its ${format(o.velocityMs, 'velocity')} is more than the ${format(o.standsMs, 'velocity')} the ground there stands.`
            : '';
        return (
          <p key={o.id} style={{ margin: '6px 0' }}>
            {own.length > 1 ? capitalised(`${partWords(derived, o.store)}${WAY_WORDS[o.role].by} water`) : 'Its water'} runs to {to}: {ran}.
            {washes}
          </p>
        );
      })}
      {runsPast(derived?.links ?? [], { work: id, inside }).map((past) => (
        <p key={past.to} style={{ margin: '6px 0' }}>
          Past it, uncaught, water runs to {endName(named, past.to)}: {format(past.volumeM3, 'volume')}, at most{' '}
          {format(past.mostM3s, 'flow')}.
        </p>
      ))}
    </>
  );
}

/** Which storm the figures below are of, where there are several. */
function ShownOf({ id }: { readonly id: string }): ReactNode {
  const isSet = useDerived()?.set !== null;
  const durationMin = useView()?.governs[id];
  const shownMin = useApp((s) => s.shownMin);
  if (!isSet || durationMin === undefined) return null;
  return (
    <Muted>
      Rain of {hours(durationMin)} as usually found,{' '}
      {durationMin === shownMin ? 'chosen to be shown: another may be worse.' : 'in which it stands highest.'}
    </Muted>
  );
}

/** What the storm did to a store. */
export function StoreFacts({ id }: { readonly id: string }): ReactNode {
  const derived = useDerived();
  const format = useFormat();
  const store = storeFor(derived, id);
  const catchment = derived?.catchments.find((c) => c.of === store?.id);
  if (!store) return null;
  if (store.inM3 === null)
    return <Muted>It holds {format(store.heldM3, 'volume')}. Give rain and ground to see what the storm brings.</Muted>;
  return (
    <>
      <ShownOf id={id} />
      <Fact label="Its own catchment" value={format(catchment?.areaM2, 'land')} />
      <Fact label="Comes in" value={format(store.inM3, 'volume')} />
      {'raisedInM3' in store.worst && (
        <Fact label="With the flood raised to the peak chosen" value={format(store.worst.raisedInM3.value, 'volume')} />
      )}
      <Fact label="Held below the lowest way out" value={format(store.heldM3, 'volume')} />
      <Fact label="Leaves" value={format(store.spilledM3, 'volume')} />
      <Fact label="Peak coming" value={format(store.peakInM3s, 'flow')} />
      <Fact label="Peak leaving" value={format(store.peakOutM3s, 'flow')} />
      <Fact label="Runs over for" value={format(store.spillsH, 'hours')} />
      <Fact label="Highest water" value={format(store.peakLevelM, 'level')} />
      {(store.riseM ?? 0) > 0 && <Fact label="Its far end stands higher by" value={format(store.riseM, 'difference')} />}
      <Fact label="Freeboard left" value={format(store.freeboardM, 'difference')} />
      <Fact label="Still held a day later" value={format(store.nextDayM3, 'volume')} />
    </>
  );
}

/** Rows a stage table is told in. */
const STAGE_ROWS = 8;

/** How much water stands at each level up to the crest, and what it wets: to be looked up. */
function StagePart({ work }: { readonly work: WorkBase }): ReactNode {
  const format = useFormat();
  const store = storeFor(useDerived(), work.id);
  const { retains, isChannel } = catalogue.describe(work).traits;
  if (!store) return null;
  // Without a bank or wall, and with its sill at its floor, it only lets water over: none stands there to be looked up.
  if (retains === 'none' && isChannel !== true && store.sillM !== null && store.sillM <= store.floorM) return null;
  const stage = store.stage.filter((s) => s.levelM <= store.crestM + 1e-6);
  if (stage.length === 0) return null;
  const every = Math.max(1, Math.ceil(stage.length / STAGE_ROWS));
  const shown = stage.filter((_, k) => k % every === 0 || k === stage.length - 1);
  return (
    <FoldPart title="Water at each level" sum={`up to ${format(store.crestM, 'level')}`} isLookedUp>
      <Table
        caption="Water by level"
        head={['level', 'water', 'it wets']}
        rows={shown.map((s) => [format(s.levelM, 'level'), format(s.volumeM3, 'volume'), format(s.wettedM2, 'area')])}
      />
    </FoldPart>
  );
}

/** What must be mended or weighed, or is not known, worst first; and what must be mended of the ways out it hosts. */
export function ToMend({ id }: { readonly id: string }): ReactNode {
  const derived = useDerived();
  const works = useWorks();
  if (!derived) return null;
  const guests = new Map(works.filter((w) => hostIdOf(w) === id).map((w) => [w.id, w.name]));
  const open = derived.checks.filter((c) => (c.on === id ? c.severity !== 'fine' : guests.has(c.on) && c.severity === 'mend'));
  return (
    <FoldPart title="To mend and to weigh">
      {derived.terrain === null ? (
        <Muted>Not judged yet: bring in the ground it stands on under Land.</Muted>
      ) : open.length === 0 ? (
        <Muted>Nothing: every check is fine.</Muted>
      ) : (
        saidOnce(open).map(({ check: c, isSaidBelow }, i) => (
          <div key={`${c.id}${c.on}${i}`}>
            <CheckItem check={c} isSaidBelow={isSaidBelow} {...(c.on === id ? {} : { subject: guests.get(c.on) ?? c.on })} />
            {c.cure && !isSaidBelow && <CureButton cure={c.cure} />}
          </div>
        ))
      )}
    </FoldPart>
  );
}

/** What was judged and found fine. */
export function FineChecks({ id }: { readonly id: string }): ReactNode {
  const fine = checksOf(useDerived(), [id]).filter((c) => c.severity === 'fine');
  if (fine.length === 0) return null;
  return (
    <FoldPart title="Fine" sum={`${fine.length} ${fine.length === 1 ? 'check' : 'checks'}`} isLookedUp>
      {fine.map((c, i) => (
        <CheckItem key={`${c.id}${i}`} check={c} />
      ))}
    </FoldPart>
  );
}

/** What the work comes to, and what its figures say it should be set to. */
function FiguresPart({ work }: { readonly work: WorkBase }): ReactNode {
  const figures = useView()?.figures[work.id] ?? [];
  const format = useFormat();
  if (figures.length === 0) return null;
  return (
    <FoldPart title="What it comes to">
      {figures.map((f) => (
        <Fact key={f.id} label={f.label} value={format(f.value, f.kind)} />
      ))}
      {figures.map(({ id, label, kind, sets, value }) => {
        const now = sets === undefined ? null : valueAt(work, sets);
        if (sets === undefined || value === null || typeof now !== 'number' || now >= value - 1e-6) return null;
        return (
          <Inline key={`set-${id}`}>
            <Button look="strong" onPress={() => dispatch(change(work.id, { [sets]: value }))}>
              <Ruler size={16} aria-hidden />
              {label}: set to {format(value, kind)}
            </Button>
          </Inline>
        );
      })}
    </FoldPart>
  );
}

/** What it is, and of which other work. */
function Title({ work }: { readonly work: WorkBase }): ReactNode {
  const { title, hostId } = catalogue.describe(work);
  const host = useWorks().find((w) => w.id === hostId);
  return (
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
  );
}

interface Shown<W extends WorkBase> {
  readonly work: W;
  /** Belongs to the answer: what lets it out. */
  readonly answer?: ReactNode;
  /** Belongs to its shape: what no field can say. */
  readonly children?: ReactNode;
}

/** Everything about one work by its technique: the answer first, then its shape, then how it was worked out. */
export function WorkSheet<W extends WorkBase>({ work, answer, children }: Shown<W>): ReactNode {
  const { id } = work;
  const shape = useView()?.shapes[id];
  const isStore = storeFor(useDerived(), id) !== undefined;
  return (
    <>
      <WorkHead work={work} />
      <Title work={work} />
      <WhereItGoes id={id} />
      {shape && (
        <InSight>
          <ShapeDrawing shape={shape} />
        </InSight>
      )}
      {answer}
      <LeadsTo id={id} />
      <ToMend id={id} />
      <DiagnosisPart id={id} />
      <FiguresPart work={work} />
      <WorkFields work={work} />
      <CornersPart work={work} />
      {children}
      <EachPart id={id} />
      {isStore && (
        <FoldPart title="As it may be found">
          <FoundPart id={id} />
        </FoldPart>
      )}
      <BelowPart id={id} />
      {isStore && (
        <FoldPart title="In this storm">
          <StoreFacts id={id} />
        </FoldPart>
      )}
      <StagePart work={work} />
      <MakingPart id={id} />
      <LabourPart id={id} />
      <HandOverPart id={id} />
      <FineChecks id={id} />
      <WorkingPart id={id} />
    </>
  );
}
