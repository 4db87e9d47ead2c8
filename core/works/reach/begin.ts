import type { Technique } from '../../contract/index.ts';
import { type Line, type Point, lineLength } from '../../geometry/index.ts';
import { amount, say } from '../../units/index.ts';
import { acrossAt, bedAt, fallsOn, measureBed, ontoBed } from '../bed.ts';
import { groundUnder, mm, offTerrain } from '../beginning.ts';
import { newReach } from './create.ts';
import type { Reach, ReachSection } from './model.ts';

const RUNS: Readonly<Record<string, Reach['runs']>> = { 'gully-reach': 'gully', 'creek-reach': 'creek', 'ditch-reach': 'ditch' };
/** First sections so far apart, and no more of them than so many. */
const [APART_M, MOST] = [15, 12];

/** Sections at even places, as the terrain shows the channel there. */
function sectionsOn(line: Line, on: Parameters<typeof measureBed>[1]): ReachSection[] {
  const bed = measureBed(line, on);
  const length = lineLength(line);
  const parts = Math.max(1, Math.min(MOST - 1, Math.round(length / APART_M)));
  return Array.from({ length: parts + 1 }, (_, k): ReachSection => {
    const atM = Math.min(length, (length * k) / parts);
    // At its very ends a line tells no direction across: a step inside it does.
    const { bedWidthM, bankWidthM, depthM } = acrossAt(on.grid, line, Math.min(length - 1, Math.max(1, atM)));
    const out = mm((bankWidthM - bedWidthM) / 2);
    const high = mm(depthM);
    return { atM: Math.floor(1000 * atM) / 1000, bedM: mm(bedAt(bed, atM)), bedWidthM: mm(bedWidthM), leftOutM: out, leftHighM: high, rightOutM: out, rightHighM: high };
  });
} // prettier-ignore

/** A channel on the lowest ground beside what was drawn, whichever end was drawn first, with sections as the terrain has them. */
export const beginReach: Technique<Reach, unknown>['begin'] = ({ how, points }, land) => {
  const ground = groundUnder(points, land);
  if (!ground) return offTerrain('the channel');
  const down = ground[0] >= ground[ground.length - 1] ? points : [...points].reverse();
  const line = ontoBed(land.grid, down).map(([x, y]): Point => [mm(x), mm(y)]);
  const refused = fallsOn(measureBed(line, land), 'reach.rises');
  if (refused) return refused;
  const work = newReach(land.idFor('reach'), land.nameFor('Channel'), {
    line,
    runs: RUNS[how] ?? 'gully',
    sections: sectionsOn(line, land),
  });
  return {
    ok: true,
    works: [work],
    said: say`${amount(work.sections.length, 'count')} sections, read off the terrain on the lowest ground beside your line: measure each with tape and level, and put that in.`,
  };
};
