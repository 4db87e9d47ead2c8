// Tools that ask the land something. Their answers are looked at, not kept, until the user adopts them.
import type { Point } from '#core/geometry';
import type { Section } from '#core/derive';
import { amount, say } from '#core/units';
import { type AskedPlace, ask, setLand } from '../app/land.ts';
import { notify, select } from '../app/store.ts';

function show(title: string, section: Section): void {
  const slope = section.lengthM > 0 ? section.fallM / section.lengthM : 0;
  const moved = section.fallM >= 0 ? 'falls' : 'rises';
  setLand({
    shown: {
      section,
      title: say`${title}: ${amount(section.lengthM, 'distance')}, ${moved} ${amount(Math.abs(section.fallM), 'length')}, mean slope ${amount(Math.abs(slope), 'slope')}`,
    },
  });
}

const ENDS: Readonly<Record<Section['ends'], string>> = {
  'property-edge': 'From here water runs to the property line',
  'terrain-edge': 'From here water runs off the map',
  line: 'Along your line',
};

const offGround = (what: string): void =>
  notify({
    tone: 'mend',
    title: what,
    problems: [{ code: 'land.off-ground', what: 'that place lies off the ground', where: {}, do: 'Choose a place on the terrain.' }],
  });

/** The way of a drop, as a long section. */
export async function askPath(from: Point): Promise<void> {
  const section = await ask('pathDown', { from });
  if (!section) return;
  if (section.points.length < 2) offGround('No way down could be followed');
  else show(ENDS[section.ends], section);
}

/** A long section along a line: length, fall and slope. */
export async function askSection(line: readonly Point[]): Promise<void> {
  const section = await ask('sectionAlong', { line });
  if (!section) return;
  if (section.points.length < 2) offGround('There is no ground along that line');
  else show(ENDS.line, section);
}

export async function askContour(at: Point): Promise<void> {
  const found = await ask('contourThrough', { at });
  if (found) setLand({ answer: { kind: 'contour', ...found } });
  else offGround('There is no contour through that place');
}

export const askFall = (from: Point, to: Point): void => setLand({ answer: { kind: 'fall', from, to }, shown: null });
export const askWall = (line: readonly Point[]): void => setLand({ answer: { kind: 'wall', line }, shown: null });
/** What suits a place: told in the sheet, where nothing else stands meanwhile. */
export function askAdvice(place: AskedPlace): void {
  select(null);
  setLand({ answer: { kind: 'advice', place }, shown: null });
}
