import { Plus } from 'lucide-react';
import type { ReactNode } from 'react';
import type { WorkBase } from '#core/contract';
import { lineLength } from '#core/geometry';
import { useDerived, useFormat, useWorks, hostIdOf, newId } from '../../app/selectors.ts';
import { dispatch, select, useApp } from '../../app/store.ts';
import { ActionMenu, Button, Figures, Muted, Part, Row } from '../../kit/index.ts';
import { hostLine } from './on-host.ts';

const round = (m: number): number => Math.round(m * 1000) / 1000;

interface NewWayOut {
  readonly kind: string;
  readonly name: string;
  /** Everything but id, kind, name, status and host, by the level water begins to leave at. */
  readonly start: (sillM: number, atM: number) => object;
}

/** Ways out to begin with: common practice, to be sized by their checks. */
const WAYS: readonly NewWayOut[] = [
  {
    kind: 'level-sill',
    name: 'Level sill',
    start: (sillM, atM) => ({ atM, levels: { sillM }, dimensions: { lengthM: 6, crestWidthM: 1.2 } }),
  },
  {
    kind: 'cut-spillway',
    name: 'Cut spillway',
    start: (sillM, atM) => ({
      atM,
      levels: { sillM },
      dimensions: { bottomWidthM: 4, sideSlopeHV: 3, inletLengthM: 6, controlLengthM: 6, stoneM: 0 },
    }),
  },
  {
    kind: 'stone-trench',
    name: 'Stone-filled trench',
    start: (sillM, atM) => ({
      atM,
      levels: { floorM: round(sillM - 0.3), sillM, rockTopM: round(sillM + 0.3) },
      dimensions: { widthM: 1.5, lengthM: 8, stoneM: 0.15 },
    }),
  },
  {
    kind: 'pipe-outlet',
    name: 'Pipe outlet',
    start: (sillM, atM) => ({
      atM,
      form: 'riser',
      inlet: 'corrugated-projecting',
      seal: 'filter',
      levels: { sillM, outletM: round(sillM - 1.2) },
      dimensions: { diameterM: 0.2, mouthM: 0.4, lengthM: 15 },
      roughness: 0.012,
      blockedPercent: 0,
    }),
  },
];

/** Step a second way out stands above the first where the head on it is not known yet [m]. */
const LEAST_STEP_M = 0.05;
/** First way out under the crest [m]: common practice for a small wall. */
const UNDER_CREST_M = 0.6;

/** Where along the host natural ground first stands at a level, from its end inwards; a quarter in from the end where it never does. */
function groundPlace(
  pegs: readonly { readonly groundM: number | null; readonly name: string }[],
  levelM: number,
  on: { readonly lengthM: number; readonly fromEnd: boolean },
): number {
  const along = pegs.flatMap((p) => {
    const at = /([\d.]+) m$/.exec(p.name);
    return at && p.groundM !== null ? [{ atM: Number(at[1]), groundM: p.groundM }] : [];
  });
  // The place on natural ground nearest to the water, so that the cut stays shallow.
  const high = along.filter((p) => p.groundM >= levelM);
  const middle = on.lengthM / 2;
  const side = high.filter((p) => (on.fromEnd ? p.atM > middle : p.atM <= middle));
  const best = (side.length > 0 ? side : high).reduce<number | null>(
    (a, p) => (a === null || Math.abs(p.atM - middle) < Math.abs(a - middle) ? p.atM : a),
    null,
  );
  return best ?? (on.fromEnd ? 0.75 : 0.25) * on.lengthM;
}

/** Everything that lets a store out, lowest first, and how to add another. */
export function WaysOut({ host }: { readonly host: WorkBase }): ReactNode {
  const works = useWorks();
  const derived = useDerived();
  const format = useFormat();
  const guests = works.filter((w) => hostIdOf(w) === host.id);
  const store = derived?.stores.find((s) => s.id === host.id);
  const levelOf = (w: WorkBase): number | null => {
    const { levels } = w as { readonly levels?: { readonly sillM?: number } };
    return levels?.sillM ?? null;
  };
  const sorted = [...guests].sort((a, b) => (levelOf(a) ?? Infinity) - (levelOf(b) ?? Infinity));
  const add = (kind: string): void => {
    const way = WAYS.find((w) => w.kind === kind);
    const line = hostLine(works, host.id);
    if (!way || !line || !store) return;
    const levels = sorted.flatMap((w) => levelOf(w) ?? []);
    const highest = levels[levels.length - 1];
    const head = Math.max(LEAST_STEP_M, (store.peakLevelM ?? 0) - (levels[0] ?? Infinity));
    // The next stands above the first by its head in this storm, 50 mm at the least.
    const sillM = round(levels.length === 0 ? store.crestM - UNDER_CREST_M : Math.min(store.crestM - LEAST_STEP_M, highest + head));
    const pegs = derived?.pegs.filter((p) => p.work === host.id) ?? [];
    const lengthM = lineLength(line);
    const atM = round(groundPlace(pegs, sillM, { lengthM, fromEnd: guests.length % 2 === 0 }));
    const id = newId(kind);
    const count = guests.filter((w) => w.kind === kind).length;
    const name = count === 0 ? way.name : `${way.name} ${count + 1}`;
    const added = dispatch({
      type: 'works.add',
      payload: { works: [{ id, kind, name, status: 'planned', host: host.id, ...way.start(sillM, atM) } as WorkBase] },
    });
    if (added) select(id);
  };
  const isReadOnly = useApp((s) => s.saved === 'read-only');
  return (
    <Part title="Ways out, lowest first">
      {sorted.length === 0 && <Muted>None yet. The way out is designed first, and built first.</Muted>}
      {sorted.map((w) => (
        <Row key={w.id}>
          <Button look="quiet" aria-label={`Open ${w.name}`} onPress={() => select(w.id)}>
            {w.name}
          </Button>
          <Figures>{format(levelOf(w), 'level')}</Figures>
        </Row>
      ))}
      {!isReadOnly && (
        <div style={{ margin: '10px 0' }}>
          <ActionMenu
            label="Add a way out"
            icon={<Plus size={15} aria-hidden />}
            choices={WAYS.map((w) => ({ id: w.kind, name: w.name }))}
            onChoose={add}
          />
        </div>
      )}
    </Part>
  );
}
