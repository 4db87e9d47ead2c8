import type { Channel, DrawSpec, Land, Technique } from '../../contract/index.ts';
import { type Line, type Point, lineLength, nearestOnLine, subLine } from '../../geometry/index.ts';
import { amount, say } from '../../units/index.ts';
import { groundUnder, mm, offTerrain } from '../beginning.ts';
import { type Across, type Bed, acrossAt, bedIn, fallsOn, measureBed, ontoBed, placeIn } from '../bed.ts';
import type { CheckDams, Dam } from './model.ts';
import { byGully, bySight } from './spacing.ts';

/** First height of a dam, and how far its ends stand over its notch [m]: common practice. */
const [FIRST_HIGH_M, FIRST_ENDS_M] = [0.6, 0.3];
/** Never lower than this [m], and no lower for the shallowest part of them. */
const [LEAST_HIGH_M, SHALLOWER] = [0.3, 0.25];

const newDams = (
  id: string,
  name: string,
  on: { readonly line: Line; readonly dams: readonly Dam[]; readonly channel?: string },
): CheckDams => ({
  id,
  kind: 'check-dams',
  name,
  status: 'planned',
  line: on.line,
  ...(on.channel === undefined ? {} : { channel: on.channel }),
  form: 'rock',
  dams: on.dams,
  dimensions: {
    notchDepthM: FIRST_ENDS_M,
    notchWidthM: mm(Math.min(2, ...on.dams.map((dam) => dam.bedWidthM))),
    crestWidthM: 0.5,
    upSlopeHV: 1.25,
    downSlopeHV: 2,
    pieceM: 0.25,
    sideKeyM: 0.6,
    bedKeyM: 0.3,
    apronM: mm(1.75 * Math.max(...on.dams.map((dam) => dam.heightM))),
  },
  labour: { m3PerDay: 1, carryM: 50 },
});

export const DAMS_SAMPLE = newDams('dams', 'Check dams', {
  line: [
    [0, 0],
    [40, 0],
  ],
  dams: [{ atM: 40, heightM: 0.6, bedWidthM: 2, bankWidthM: 5, depthM: 1.2 }],
});

const HINT = 'Draw it down the bed of the channel, from its upper end; double-click to end.';

export const DAMS_DRAWS: readonly DrawSpec[] = [
  { id: 'check-dams', name: 'Check dams, crest level with toe', what: 'line', least: 2, hint: HINT, seesChannels: true },
  { id: 'check-dams-gully', name: 'Check dams, by the gully rule', what: 'line', least: 2, hint: HINT, seesChannels: true },
  {
    id: 'check-dam',
    name: 'One check dam',
    what: 'line',
    least: 2,
    hint: 'Draw it down the bed: the dam stands at its lower end; double-click to end.',
    seesChannels: true,
  },
];

const SPACED: Readonly<Record<string, (bed: Bed, heightM: number) => readonly number[]>> = {
  'check-dams': bySight,
  'check-dams-gully': byGully,
  'check-dam': (bed) => [bed.lengthM],
};

/** What a series is begun on: its line, the bed there, and the channel across at a place. */
interface On {
  readonly line: Line;
  readonly bed: Bed;
  readonly acrossAt: (atM: number) => Across;
  readonly channel: Channel | null;
}

/** The line as it runs in a measured channel, where all of it was drawn in one; else on the lowest ground beside it. */
function onWhat(drawn: Line, { grid, channels = [] }: Pick<Land, 'grid' | 'channels'>): On {
  const channel = channels.find((c) => drawn.every((p) => placeIn(c, p) !== null));
  if (channel) {
    const [from, to] = [drawn[0], drawn[drawn.length - 1]].map((p) => Math.min(channel.toM, Math.max(channel.fromM, nearestOnLine(p, channel.line).atM)));
    const line = subLine(channel.line, Math.min(from, to), Math.max(from, to)).map(([x, y]): Point => [mm(x), mm(y)]);
    return { line, channel, bed: bedIn(channel, measureBed(line, { grid })), acrossAt: (atM) => channel.acrossAt(Math.min(from, to) + atM) };
  }
  const line = ontoBed(grid, drawn).map(([x, y]): Point => [mm(x), mm(y)]);
  return { line, channel: null, bed: measureBed(line, { grid }), acrossAt: (atM) => acrossAt(grid, line, atM) };
} // prettier-ignore

/** A series down a channel, whichever end was drawn first, each dam with its channel as it was measured, else as the terrain shows it. */
export const beginDams: Technique<CheckDams, unknown>['begin'] = ({ how, points }, land) => {
  const ground = groundUnder(points, land);
  if (!ground) return offTerrain('the channel');
  const down = ground[0] >= ground[ground.length - 1] ? points : [...points].reverse();
  const on = onWhat(down, land);
  const { line, bed, channel } = on;
  const refused = fallsOn(bed, 'check-dams.rises');
  if (refused) return refused;
  const places = SPACED[how] ?? bySight;
  // Twice: the channel where they stand tells how high most of them can be.
  const depths = places(bed, FIRST_HIGH_M).map((atM) => on.acrossAt(atM).depthM);
  const usual = depths.sort((a, b) => a - b)[Math.floor(SHALLOWER * depths.length)];
  const heightM = mm(Math.max(LEAST_HIGH_M, Math.min(FIRST_HIGH_M, usual - FIRST_ENDS_M)));
  const isMeasured = channel?.isMeasured === true;
  const all = places(bed, heightM).map((atM): Dam => {
    const { bedWidthM, bankWidthM, depthM } = on.acrossAt(atM);
    return {
      atM: mm(Math.min(atM, lineLength(line))),
      heightM,
      bedWidthM: mm(bedWidthM),
      bankWidthM: mm(bankWidthM),
      depthM: mm(depthM),
      ...(isMeasured ? { isMeasured } : {}),
    };
  });
  // Where the channel is too shallow to hold one between its banks none is set, unless there would be none at all.
  const held = all.filter((dam) => dam.depthM >= heightM + FIRST_ENDS_M);
  const dams = held.length > 0 ? held : all;
  const work = newDams(land.idFor('check-dams'), land.nameFor('Check dams'), { line, dams, ...(channel ? { channel: channel.work } : {}) });
  const known = channel
    ? say`, in the channel as it is drawn. ${isMeasured ? 'Bed and banks are those of its sections.' : 'Its sections are read off the terrain: measure them.'}`
    : say`, on the lowest ground beside your line. Width and depth of the channel are read from the terrain: measure them.`;
  return { ok: true, works: [work], said: say`${amount(dams.length, 'count')} dams, ${amount(heightM, 'length')} high${known}` };
};
