// The levels of a pond after standards of soil conservation services, beside the habits of farms.
import type { Outlet, Rule } from '../../contract/index.ts';
import { say } from '../../units/index.ts';
import { cureBy, gradeMin, upToMm, millimetres } from '../rules.ts';
import type { PondFacts } from './place-checks.ts';

/** From the crest of the lowest open way out to the top of the wall, and from the pipe below it to that crest [m]: 2 ft and half a foot. */
const [AUXILIARY_M, PIPE_BELOW_M] = [0.6, 0.15];

/** Ways out that were made, open ones and pipes, the lowest of each. */
function lowestWays({ store }: Pick<PondFacts, 'store'>): { readonly open: Outlet | null; readonly pipe: Outlet | null } {
  const made = (store?.outlets ?? []).filter((o) => o.kind === 'sill' || o.kind === 'rated').sort((a, b) => a.levelM - b.levelM);
  const isPipe = (o: Outlet): boolean => o.exit?.shape === 'pipe';
  return { open: made.find((o) => !isPipe(o)) ?? null, pipe: made.find(isPipe) ?? null };
}

const auxiliaryHeight: Rule<PondFacts> = {
  id: 'pond.auxiliary-height',
  isOfLevels: true,
  title: 'Top of the wall above its lowest open way out',
  why: 'Conservation services keep a set height above the auxiliary spillway whatever the storm is found to do: what was left out of the reckoning goes there.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: { key: 'cps-378', locator: 'crest of the auxiliary spillway to the settled top, 2.0 ft', fromMemory: true },
  applies: (facts) => facts.ground.wall !== null && lowestWays(facts).open !== null,
  find: (facts) => {
    const { open } = lowestWays(facts);
    if (!open) return null;
    const value = facts.pond.levels.crestM - open.levelM;
    return {
      value,
      limit: AUXILIARY_M,
      severity: gradeMin(value, 0, AUXILIARY_M),
      do:
        value < AUXILIARY_M
          ? say`Where that standard is asked for, raise the crest or lower ${open.name} by ${millimetres(AUXILIARY_M - value)}; many farms go by the freeboard in the storm alone.`
          : 'Nothing.',
      ...cureBy(value < AUXILIARY_M, {
        work: facts.pond.id,
        set: { 'levels.crestM': upToMm(open.levelM + AUXILIARY_M) },
        says: say`Raise the crest by ${millimetres(AUXILIARY_M - value)}`,
      }),
    };
  },
};

const pipeBelow: Rule<PondFacts> = {
  id: 'pond.pipe-below',
  isOfLevels: true,
  title: 'Pipe below the lowest open way out',
  why: 'The pipe is to take what comes most days, so that the grass of the open way out is dry and grown when it is needed.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: { key: 'cps-378', locator: 'principal spillway at least 0.5 ft below the auxiliary', fromMemory: true },
  applies: (facts) => {
    const { open, pipe } = lowestWays(facts);
    return open !== null && pipe !== null;
  },
  find: (facts) => {
    const { open, pipe } = lowestWays(facts);
    if (!open || !pipe) return null;
    const value = open.levelM - pipe.levelM;
    return {
      value,
      limit: PIPE_BELOW_M,
      severity: gradeMin(value, -Infinity, PIPE_BELOW_M),
      do:
        value < PIPE_BELOW_M
          ? say`Set ${open.name} ${millimetres(PIPE_BELOW_M - value)} higher, or ${pipe.name} as much lower.`
          : 'Nothing.',
      ...cureBy(value < PIPE_BELOW_M, {
        work: open.work,
        set: { 'levels.sillM': upToMm(pipe.levelM + PIPE_BELOW_M) },
        says: say`Set ${open.name} ${millimetres(PIPE_BELOW_M - value)} higher`,
      }),
    };
  },
};

export const SERVICE_RULES: readonly Rule<PondFacts>[] = [auxiliaryHeight, pipeBelow];
