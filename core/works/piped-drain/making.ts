import type { BuildStep, QuantityLine } from '../../contract/index.ts';
import { amount, say } from '../../units/index.ts';
import { BEFORE_DIGGING, DAY_H, counted, inOrder, line, standingIn } from '../making.ts';
import type { DrainGround } from './ground.ts';
import { type PipedDrain, isOpen, joinsAt, spoutsAt } from './model.ts';
import { type Pipe, pipesOf } from './standing.ts';

/** A trench so much wider than its pipe, bed and cover of gravel about it [m], and what lies in a length of pipe as it is sold [m]: common practice. */
const [WIDER_M, BED_M, SOLD_M] = [0.2, 0.1, 3];

/** Ground over a pipe at its middle less its invert [m]. */
export function depthOf({ stepM, groundM }: DrainGround, { fromM, lengthM, upperM, lowerM }: Pipe): number {
  const at = (m: number): number => groundM[Math.min(groundM.length - 1, Math.max(0, Math.round(m / stepM)))];
  const steps = Math.max(1, Math.round(lengthM / stepM));
  let sum = 0;
  for (let k = 0; k <= steps; k++) sum += at(fromM + (k * lengthM) / steps) - (upperM + ((lowerM - upperM) * k) / steps);
  return sum / (steps + 1);
}

/** The deepest its trench is dug [m]. */
export const deepestM = (work: PipedDrain, ground: DrainGround): number =>
  Math.max(
    ...work.basins.map((b, k) => ground.atBasins[k] - b.invertM + b.sumpM),
    ground.endM - work.levels.outletM,
    ...pipesOf(work, ground).map((p) => depthOf(ground, p)),
  );

/** How thick paving is put back over a trench, mesh in it under wheels, laid over itself at its joints [m]: common practice. */
const SLAB_M: Readonly<Record<PipedDrain['over'], number>> = { grass: 0, paving: 0.1, wheels: 0.15 };
const LAPS = 1.15;

interface Parts {
  readonly trenchM3: number;
  readonly gravelM3: number;
  readonly pipeM3: number;
  readonly basinM3: number;
  /** Its trenches from above [m2], and the paving put back over them. */
  readonly aboveM2: number;
  readonly slabM3: number;
}

/** Earth, gravel and pipe, pipe by pipe, so that nothing is counted twice. */
export function partsOf(work: PipedDrain, ground: DrainGround): Parts {
  const pipes = pipesOf(work, ground);
  const sum = (of: (p: Pipe) => number): number => pipes.reduce((a, p) => a + of(p), 0);
  const wide = (p: Pipe): number => p.diameterM + WIDER_M;
  const aboveM2 = sum((p) => p.lengthM * wide(p));
  const pipeM3 = sum((p) => (Math.PI / 4) * p.diameterM ** 2 * p.lengthM);
  return {
    trenchM3: sum((p) => p.lengthM * wide(p) * Math.max(0, depthOf(ground, p) + BED_M)),
    gravelM3: sum((p) => p.lengthM * wide(p) * (BED_M + p.diameterM + BED_M)) - pipeM3,
    pipeM3,
    aboveM2,
    slabM3: aboveM2 * SLAB_M[work.over],
    basinM3: work.basins.reduce((a, b) => a + (b.pipeM + WIDER_M) ** 2 * Math.max(0, b.sumpM), 0),
  };
}

export const hoursOf = (work: PipedDrain, { lengthM }: DrainGround): number => (lengthM / work.labour.mPerDay) * DAY_H;

/** Widths of its pipes with the length of each [m]. */
export function byWidth(work: PipedDrain, ground: DrainGround): readonly (readonly [diameterM: number, lengthM: number])[] {
  const pipes = pipesOf(work, ground);
  const widths = [...new Set(pipes.map((p) => p.diameterM))].sort((a, b) => a - b);
  return widths.map((d) => [d, pipes.reduce((sum, p) => (p.diameterM === d ? sum + p.lengthM : sum), 0)] as const);
}

const inMm = (m: number): string => String(Math.round(1000 * m));

/** What closes paving again over its trenches, and holds its grates. */
function pavingOf(work: PipedDrain, { aboveM2, slabM3 }: Parts, on: { readonly lengthM: number; readonly open: PipedDrain['basins'] }): QuantityLine[] {
  const edges = on.open.reduce((sum, { grateLongM, grateWideM }) => sum + 2 * (grateLongM + grateWideM), 0);
  return [
    line({ item: 'saw', label: 'Saw cuts', kind: 'length', from: 'both sides of its trenches' }, 2 * on.lengthM, 'made'),
    line({ item: 'concrete', label: 'Concrete over it', kind: 'volume', from: `its trenches from above, ${inMm(SLAB_M[work.over])} mm thick` }, slabM3, 'made'),
    ...(work.over === 'wheels' ? [line({ item: 'mesh', label: 'Mesh in that', kind: 'area', from: 'its trenches from above, laid over itself by 15 %' }, LAPS * aboveM2, 'made')] : []),
    ...(edges > 0 ? [line({ item: 'formwork', label: 'Formwork round its grates', kind: 'length', from: 'edges of each grate' }, edges, 'made')] : []),
  ];
} // prettier-ignore

/** A riser ends so far over the ground [m]: common practice. */
export const RISES_M = 0.15;

/** What brings water down into it from walls: adapters, risers, branches, and the traps of what drips. */
function joinedOf({ basins }: PipedDrain, { atBasins }: DrainGround): QuantityLine[] {
  const joints = basins.reduce((sum, b) => sum + joinsAt(b), 0);
  if (joints === 0) return [];
  const spouts = basins.reduce((sum, b) => sum + spoutsAt(b), 0);
  const risersM = basins.reduce((sum, b, k) => sum + joinsAt(b) * Math.max(0, atBasins[k] + RISES_M - b.invertM), 0);
  return [
    line({ item: 'riser', label: 'Risers', kind: 'length', from: 'from each invert to 150 mm over the ground' }, risersM, 'made'),
    counted({ item: 'branch', label: 'Branches with a bend', from: 'one for each that joins' }, joints),
    ...(spouts > 0 ? [counted({ item: 'adapter', label: 'Adapters from downspout to pipe', from: 'one for each downspout' }, spouts)] : []),
    ...(joints > spouts ? [counted({ item: 'trap', label: 'Traps of cooling units’ drips', from: 'one for each' }, joints - spouts)] : []),
  ];
}

export function quantitiesOf(work: PipedDrain, ground: DrainGround): QuantityLine[] {
  const parts = partsOf(work, ground);
  const widths = byWidth(work, ground);
  const lengths = widths.map(([d, m]) => ({ d, sold: Math.ceil(m / SOLD_M - 1e-9) }));
  const open = work.basins.filter(isOpen);
  const body = parts.gravelM3 + parts.pipeM3 + parts.slabM3;
  const bends = Math.max(0, work.line.length - 2 - Math.max(0, work.basins.length - 1));
  return [
    ...widths.map(([d, m]) => line({ item: `pipe-${inMm(d)}`, label: `Pipe of ${inMm(d)} mm inside`, kind: 'length', from: 'between its basins along the line' }, m, 'made')),
    ...lengths.map(({ d, sold }) => counted({ item: `lengths-${inMm(d)}`, label: `Lengths of 3 m, ${inMm(d)} mm`, from: 'each begun length whole' }, sold)),
    counted({ item: 'joint', label: 'Sockets and couplings', from: 'between lengths, and at every basin' }, lengths.reduce((a, l) => a + Math.max(0, l.sold - 1), 0) + 2 * work.basins.length),
    counted({ item: 'reducer', label: 'Reducers', from: 'where its width changes' }, work.basins.slice(1).filter((b, k) => b.pipeM !== work.basins[k].pipeM).length),
    ...(bends > 0 ? [counted({ item: 'bend', label: 'Bends between basins', from: 'corners of the line without a basin' }, bends)] : []),
    ...joinedOf(work, ground),
    counted({ item: 'basin', label: 'Basins with grates', from: 'as listed' }, open.length),
    counted({ item: 'lid', label: 'Joints under lids', from: 'as listed' }, work.basins.length - open.length),
    line({ item: 'cut', label: 'To dig', kind: 'volume', from: 'pipe by pipe, 0.2 m wider, 0.1 m under it; sumps' }, parts.trenchM3 + parts.basinM3, 'earth'),
    line({ item: 'gravel', label: 'Gravel round the pipe', kind: 'volume', from: '0.1 m below and above it, less the pipe' }, parts.gravelM3, 'stone'),
    line({ item: 'fill', label: 'Filled back', kind: 'volume', from: 'dug, less gravel, pipe and paving' }, Math.max(0, parts.trenchM3 - body), 'earth'),
    line({ item: 'spoil', label: 'Earth left over', kind: 'volume', from: 'what gravel, pipe, paving and sumps take the place of' }, Math.min(parts.trenchM3, body) + parts.basinM3, 'earth'),
    ...(work.over === 'grass' ? [line({ item: 'turf', label: 'Turf lifted as caps and put back', kind: 'area', from: 'its trenches from above' }, parts.aboveM2, 'surface')] : []),
    ...(work.over === 'grass' ? [] : pavingOf(work, parts, { lengthM: ground.lengthM, open })),
    line({ item: 'labour', label: 'Hours of one person', kind: 'hours', from: 'what one person lays in a day' }, hoursOf(work, ground), 'surface'),
  ]; // prettier-ignore
}

export function stepsOf(work: PipedDrain, ground: DrainGround): BuildStep[] {
  const deep = deepestM(work, ground);
  const first = work.basins[0];
  const isStreet = ground.taker === null && work.ends === 'street';
  return inOrder(
    {
      id: 'ask',
      does: 'Have cables and pipes marked, and dig by hand where it crosses one. Roots thicker than a thumb are gone round or under.',
      cautions: [BEFORE_DIGGING, ...(isStreet ? ['Work in a street needs a permit and somebody who watches the traffic.'] : [])],
    },
    ...(work.over === 'grass'
      ? [{ id: 'turf', does: 'Lift the turf as caps a spade wide, in order, onto a sheet; keep them wet.' }]
      : [{ id: 'saw', does: 'Cut the paving on both sides, wet, and lift it.', cautions: ['Dust of concrete and stone scars lungs: cut wet, with a mask.', 'A saw kicks: both hands, feet clear.'] }]),
    {
      id: 'trench',
      does: say`Dig from its lower end upwards, to ${amount(0.1, 'difference')} under the pipe; at its deepest ${amount(deep, 'length')}.`,
      levels: [
        { name: 'upper invert', levelM: first.invertM },
        { name: 'end', levelM: work.levels.outletM },
      ],
      cautions: [...standingIn(deep), 'No trench beside a footing deeper than it lies away from it.'],
    },
    { id: 'bed', does: 'Spread a hand of gravel and bring it to its falls by level or a taut string: no hump, no sag.', hold: 'A reading every 2 m and at every basin; each lower than the last.' },
    { id: 'lay', does: 'Set the basins, sumps down, and lay the pipe from below upwards, sockets uphill; smooth pipe with no holes where it only leads.', hold: 'A bucket poured into the top comes out at the end, none of it stands on the way; photograph it with a tape before it is covered.' },
    ...(work.basins.some((b) => joinsAt(b) > 0)
      ? [{ id: 'join', does: 'Set a riser on each branch and tie the downspouts in above the ground, each with a joint that comes apart by hand; a drip through its trap.', hold: 'Water poured into each gutter and tray arrives at the end.' }]
      : []),
    { id: 'cover', does: 'Gravel over the pipe, then earth in layers, trodden down; grates a finger under the ground, the ground led to them.' },
    ...(ground.taker === null && work.ends === 'daylight'
      ? [{ id: 'end', does: 'Lay stone or a slab where it ends, and a grille or a flap on it.' }]
      : [{ id: 'end', does: 'Join its end as whoever owns what takes it asks; seal it so that nothing washes out beside it.' }]),
    { id: 'after', does: 'Empty the sumps and sweep the grates each autumn and after every great storm.' },
  ); // prettier-ignore
}
