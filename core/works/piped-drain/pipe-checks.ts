// Rules on the pipes of a drain as they are laid: falls, cover, widths, access, and what stands near.
import type { Finding, Rule } from '../../contract/index.ts';
import { type Line, type Point, pointAlong } from '../../geometry/index.ts';
import { amount, say } from '../../units/index.ts';
import { COMMON_PRACTICE, cureBy, gradeMax, gradeMin, metres, millimetres } from '../rules.ts';
import { worstOf } from '../series.ts';
import { trenchRules } from '../trenched.ts';
import { COVERS, canBeCovered, comesOut, fallsFor, leastFall } from './falls.ts';
import { COVER_LEFT, PIPE_SPEED } from './formulas.ts';
import { deepestM } from './making.ts';
import { ROUGHNESS, isOpen } from './model.ts';
import { type DrainFacts, type Pipe, pipesOf } from './standing.ts';

const middleOf = ({ work }: DrainFacts, { fromM, lengthM }: Pipe): Point => pointAlong(work.line, fromM + lengthM / 2).point;
const least = <T>(list: readonly T[], valueOf: (one: T) => number): T => worstOf(list, valueOf, 'least').one;

/** All inverts at the falls the app finds, as one decision; none where it would come out too low. */
function layCure({ work, ground }: DrainFacts): { readonly cure?: Finding['cure'] } {
  const { invertsM, outletM, lowM } = fallsFor(work, ground);
  if (lowM > 0.001) return {};
  const set = Object.fromEntries([...invertsM.map((v, k) => [`basins.${k}.invertM`, v] as const), ['levels.outletM', outletM] as const]);
  return cureBy(true, { work: work.id, set, says: say`Lay it at its least falls, from ${amount(invertsM[0], 'level')} to ${amount(outletM, 'level')}` });
} // prettier-ignore

const fall: Rule<DrainFacts> = {
  id: 'piped-drain.fall',
  title: 'Fall of its flattest pipe, against the least for its width',
  why: 'In a flat pipe silt settles where water slows, and every sag of a hand keeps a puddle.',
  unit: 'ratio',
  kind: 'number',
  sense: 'min',
  source: { key: 'ipc', locator: '704.1: 2 % to 65 mm, 1 % to 150 mm, 0.5 % from 200 mm', fromMemory: true },
  find: (facts) => {
    const share = (p: Pipe): number => p.slope / leastFall(p.diameterM);
    const worst = least(pipesOf(facts.work, facts.ground), share);
    const value = share(worst);
    return {
      value,
      limit: 1,
      at: middleOf(facts, worst),
      title: say`Fall of pipe ${String(worst.k + 1)}, ${amount(worst.slope, 'slope')}, against the least for its width`,
      severity: gradeMin(value, 0.5, 0.995),
      do: value < 0.995 ? 'Lower what lies below, raise what lies above, or take a wider pipe: it may lie flatter.' : 'Nothing.',
      ...(value < 0.995 ? layCure(facts) : {}),
    };
  },
};

/** Least cover along a pipe, and where [m]: not where it comes out of the ground and cannot have any. */
function coverAlong({ work, ground }: DrainFacts, { k, fromM, lengthM, upperM, slope, diameterM }: Pipe): { readonly value: number; readonly atM: number } {
  const { stepM, groundM } = ground;
  const isLast = k === work.basins.length - 1 && comesOut(work, ground);
  const end = { lengthM, pipeM: diameterM, endM: work.levels.outletM, coverM: COVERS[work.over][0] };
  let best = { value: Infinity, atM: fromM };
  for (let i = Math.ceil(fromM / stepM - 1e-9); i <= Math.floor((fromM + lengthM) / stepM + 1e-9); i++) {
    const at = i * stepM - fromM;
    if (isLast && at > 0 && !canBeCovered(end, at, groundM[i])) continue;
    const value = COVER_LEFT.evaluate({ G: groundM[i], i: upperM - slope * at, D: diameterM });
    if (value < best.value) best = { value, atM: i * stepM };
  }
  return best;
} // prettier-ignore

const cover: Rule<DrainFacts> = {
  id: 'piped-drain.cover',
  title: 'Earth over its pipes',
  why: 'Spades, wheels and frost break what lies shallow.',
  unit: 'm',
  kind: 'length',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: '0.3 m under grass and feet, 0.75 m under wheels; frost by local codes' },
  find: (facts) => {
    const { work, ground } = facts;
    const [weighM, mendM] = COVERS[work.over];
    const worst = least(pipesOf(work, ground).map((p) => ({ p, ...coverAlong(facts, p) })), (one) => one.value);
    const { value, atM } = worst;
    return {
      value,
      limit: weighM,
      at: pointAlong(work.line, atM).point,
      title: say`Earth over pipe ${String(worst.p.k + 1)}, at ${amount(atM, 'distance')}`,
      severity: gradeMin(value, mendM, weighM - 0.005),
      do: value < weighM - 0.005 ? say`Lay it ${metres(weighM - value)} deeper, or cover it with a slab.` : 'Nothing.',
      ...(value < weighM - 0.005 ? layCure(facts) : {}),
    };
  },
}; // prettier-ignore

/** Speed that keeps a pipe clean, and one that still carries silt most days [m/s]. */
const [CLEAN_MS, SLOW_MS] = [0.6, 0.45];
const clean: Rule<DrainFacts> = {
  id: 'piped-drain.clean',
  title: 'Velocity that keeps its pipes clean',
  why: 'Silt that settles is never carried on by less water than laid it there.',
  unit: 'm/s',
  kind: 'velocity',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: '0.6 m/s half full' },
  find: (facts) => {
    const n = ROUGHNESS[facts.work.wall];
    const speed = (p: Pipe): number => PIPE_SPEED.evaluate({ D: p.diameterM, S: Math.max(0, p.slope), n });
    const worst = least(pipesOf(facts.work, facts.ground), speed);
    const value = speed(worst);
    return {
      value,
      limit: CLEAN_MS,
      at: middleOf(facts, worst),
      severity: gradeMin(value, SLOW_MS, CLEAN_MS),
      do: value < CLEAN_MS ? say`Lay pipe ${String(worst.k + 1)} steeper, of smoother wall, or flush it each year.` : 'Nothing.',
    };
  },
};

const steep: Rule<DrainFacts> = {
  id: 'piped-drain.steep',
  title: 'Velocity in its steepest pipe',
  why: 'Fast water with sand in it wears walls and jumps at every bend.',
  unit: 'm/s',
  kind: 'velocity',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: '3 m/s; 5 m/s in plastic that is anchored' },
  find: (facts) => {
    const n = ROUGHNESS[facts.work.wall];
    const speed = (p: Pipe): number => PIPE_SPEED.evaluate({ D: p.diameterM, S: Math.max(0, p.slope), n });
    const worst = worstOf(pipesOf(facts.work, facts.ground), speed).one;
    const value = speed(worst);
    return {
      value,
      limit: 3,
      at: middleOf(facts, worst),
      severity: gradeMax(value, 3, 5),
      do: value > 3 ? say`Lay pipe ${String(worst.k + 1)} flatter, with a drop in a basin.` : 'Nothing.',
    };
  },
};

const narrow: Rule<DrainFacts> = {
  id: 'piped-drain.narrow',
  title: 'Its narrowest pipe',
  why: 'A leaf, a pine cone or a root of a summer closes a narrow one.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: '100 mm; 75 mm for one downspout' },
  find: (facts) => {
    const worst = least(pipesOf(facts.work, facts.ground), (p) => p.diameterM);
    const value = worst.diameterM;
    return {
      value,
      limit: 0.1,
      at: middleOf(facts, worst),
      severity: gradeMin(value, 0.07, 0.1),
      do: value < 0.1 ? say`Take ${millimetres(0.1)}.` : 'Nothing.',
      ...cureBy(value < 0.1, {
        work: facts.work.id,
        set: Object.fromEntries(facts.work.basins.flatMap((b, k) => (b.pipeM < 0.1 ? [[`basins.${k}.pipeM`, 0.1] as const] : []))),
        says: say`Take pipes of ${millimetres(0.1)}`,
      }),
    };
  },
};

const shrinks: Rule<DrainFacts> = {
  id: 'piped-drain.shrinks',
  title: 'Each pipe against the one above it',
  why: 'What passes a wide pipe stops at a narrow one below it, and nobody finds it there.',
  unit: 'ratio',
  kind: 'number',
  sense: 'min',
  source: COMMON_PRACTICE,
  applies: ({ work, ground }) => work.basins.length > 1 || (ground.taker?.pipeM ?? null) !== null,
  find: ({ work, ground }) => {
    const widths = [...work.basins.map((b) => b.pipeM), ...(ground.taker?.pipeM == null ? [] : [ground.taker.pipeM])];
    const steps = widths.slice(1).map((w, k) => ({ k, value: w / widths[k] }));
    const worst = least(steps, (s) => s.value);
    return {
      value: worst.value,
      limit: 1,
      at: worst.k + 1 < work.basins.length ? pointAlong(work.line, work.basins[worst.k + 1].atM).point : null,
      severity: worst.value < 1 ? 'mend' : 'fine',
      do: worst.value < 1 ? say`Make what follows pipe ${String(worst.k + 1)} ${millimetres(widths[worst.k])} too.` : 'Nothing.',
    };
  },
};

const access: Rule<DrainFacts> = {
  id: 'piped-drain.access',
  title: 'Longest way without a basin or a lid',
  why: 'Rods and a hose reach so far; what lies further is dug up.',
  unit: 'm',
  kind: 'distance',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: '30 m' },
  find: (facts) => {
    const worst = worstOf(pipesOf(facts.work, facts.ground), (p) => p.lengthM).one;
    const value = worst.lengthM;
    return {
      value,
      limit: 30,
      at: middleOf(facts, worst),
      severity: gradeMax(value, 30, 60),
      do: value > 30 ? say`Set a joint under a lid half way along pipe ${String(worst.k + 1)}.` : 'Nothing.',
    };
  },
};

/** Corners of the line by their turn, with how far each lies from a basin [degrees, m]. */
function bends(line: Line, basins: readonly { readonly atM: number }[]): { readonly at: Point; readonly turn: number }[] {
  let walked = 0;
  return line.slice(1, -1).flatMap((at, i) => {
    const [a, b] = [line[i], line[i + 2]];
    walked += Math.hypot(at[0] - a[0], at[1] - a[1]);
    if (basins.some((one) => Math.abs(one.atM - walked) < 0.5)) return [];
    const turn = Math.atan2(b[1] - at[1], b[0] - at[0]) - Math.atan2(at[1] - a[1], at[0] - a[0]);
    return [{ at, turn: (Math.abs(Math.atan2(Math.sin(turn), Math.cos(turn))) * 180) / Math.PI }];
  });
}
const bend: Rule<DrainFacts> = {
  id: 'piped-drain.bend',
  title: 'Sharpest bend without a basin, in degrees',
  why: 'Debris wedges in a sharp bend, and no rod goes round it.',
  unit: 'degrees',
  kind: 'count',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: '45 degrees at a time' },
  find: ({ work }) => {
    const found = bends(work.line, work.basins);
    if (found.length === 0) return null;
    const worst = worstOf(found, (b) => b.turn).one;
    return {
      value: worst.turn,
      limit: 45,
      at: worst.at,
      severity: gradeMax(worst.turn, 45.5, 67.5),
      do: worst.turn > 45.5 ? 'Set a basin there, or go round in two bends.' : 'Nothing.',
    };
  },
};

const sump: Rule<DrainFacts> = {
  id: 'piped-drain.sump',
  title: 'Sump under its grates',
  why: 'What a grate lets in settles there, or in the pipe.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: '150 mm under the pipe' },
  applies: ({ work }) => work.basins.some(isOpen),
  find: ({ work }) => {
    const open = work.basins.map((b, k) => ({ ...b, k })).filter(isOpen);
    const worst = least(open, (b) => b.sumpM);
    const value = worst.sumpM;
    const says = say`Give every sump ${millimetres(0.15)}`;
    return {
      value,
      limit: 0.15,
      at: pointAlong(work.line, worst.atM).point,
      severity: gradeMin(value, 0.05, 0.15),
      do: value < 0.15 ? say`${says}, and empty it each autumn.` : 'Nothing.',
      ...cureBy(value < 0.15, { work: work.id, set: Object.fromEntries(open.filter((b) => b.sumpM < 0.15).map((b) => [`basins.${b.k}.sumpM`, 0.15])), says }),
    };
  },
}; // prettier-ignore

const meets: Rule<DrainFacts> = {
  id: 'piped-drain.meets',
  title: 'Its end over what takes it',
  why: 'A pipe that comes in under the other’s invert stands full, and takes that one’s water instead of giving its own.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  isOfLevels: true,
  source: { key: 'geometry', locator: 'water runs down' },
  applies: ({ ground }) => ground.taker !== null,
  find: (facts) => {
    const { work, ground } = facts;
    const { taker } = ground;
    if (!taker) return null;
    const value = work.levels.outletM - taker.levelM;
    return {
      value,
      limit: 0,
      severity: gradeMin(value, -0.001, 0),
      do: value < 0 ? say`Raise its end ${millimetres(-value)}, or lower ${taker.name}.` : 'Nothing.',
      ...(value < 0 ? layCure(facts) : {}),
    };
  },
};

const apart: Rule<DrainFacts> = {
  id: 'piped-drain.apart',
  title: 'Its end from the shaft that takes it',
  why: 'A pipe is joined at a shaft, where it can be seen and rodded.',
  unit: 'm',
  kind: 'length',
  sense: 'max',
  source: COMMON_PRACTICE,
  applies: ({ ground }) => (ground.taker?.pipeM ?? null) !== null,
  find: ({ ground }) => {
    const { taker } = ground;
    if (!taker) return null;
    const value = taker.apartM;
    return { value, limit: 0.5, severity: gradeMax(value, 0.5, 3), do: value > 0.5 ? say`Draw its end to a shaft of ${taker.name}, or set one there.` : 'Nothing.' };
  },
}; // prettier-ignore

const trenched = trenchRules<DrainFacts>('piped-drain', {
  lineOf: ({ work }) => work.line,
  dugOf: ({ work, ground }) => deepestM(work, ground),
  isAsked: ({ work }) => work.services === 'asked',
  laidAt: ({ work, ground }, atM) => {
    const pipes = pipesOf(work, ground);
    const pipe = pipes.find((p) => atM <= p.fromM + p.lengthM) ?? pipes[pipes.length - 1];
    const lowM = pipe.upperM - pipe.slope * (atM - pipe.fromM);
    return { lowM, topM: lowM + pipe.diameterM };
  },
  besideWall: '; beside the wall dig no deeper than its footing, a short piece at a time.',
  nearTree: 'Go round it, or lay it there in one length without a joint, by hand, under the roots.',
});

export const PIPE_RULES: readonly Rule<DrainFacts>[] = [
  fall,
  cover,
  clean,
  steep,
  narrow,
  shrinks,
  access,
  bend,
  sump,
  meets,
  apart,
  ...trenched,
];
