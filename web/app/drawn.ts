// What is drawn in a file, in groups that are each taken as one kind of thing.
import type { Feature } from '#core/contract';
import { type Line, type Point, simplify } from '#core/geometry';
import { OUTLINE, THINGS, likelyThing, seenKind } from '#core/seen';
import type { TakenIn } from '../workers/protocol.ts';

type Drawn = Extract<TakenIn, { readonly kind: 'shapes' }>;
type Shape = Drawn['shapes'][number];

export const LEAVE = 'leave';

/** Shapes that were filed together, are drawn alike, and are likely the same. */
export interface Group {
  readonly key: string;
  readonly title: string;
  /** What the first of them are called. */
  readonly names: string;
  readonly form: Shape['form'];
  readonly shapes: readonly Shape[];
  readonly likely: string;
}

/** Names shown of a group. */
const SHOWN = 3;

/** Groups in the order they are met in the file. */
export function groupsOf({ shapes }: Pick<Drawn, 'shapes'>): readonly Group[] {
  const by = new Map<string, { readonly form: Shape['form']; readonly likely: string; readonly shapes: Shape[] }>();
  for (const shape of shapes) {
    const likely = likelyThing(`${shape.group} ${shape.name}`, shape.form) ?? LEAVE;
    const key = `${shape.group}|${shape.form}|${likely}`;
    const known = by.get(key);
    if (known) known.shapes.push(shape);
    else by.set(key, { form: shape.form, likely, shapes: [shape] });
  }
  return [...by].map(([key, group]) => {
    const [first] = group.shapes;
    const called = [...new Set(group.shapes.flatMap((s) => (s.name === '' ? [] : [s.name])))];
    const names = `${called.slice(0, SHOWN).join(', ')}${called.length > SHOWN ? ' …' : ''}`;
    return { key, title: first.group || 'In no folder', names, ...group };
  }); // prettier-ignore
}

const FORMS: Readonly<Record<Shape['form'], readonly [one: string, several: string]>> = {
  point: ['point', 'points'],
  line: ['line', 'lines'],
  ring: ['area', 'areas'],
};

/** "3 areas". */
export const countWords = ({ form, shapes }: Pick<Group, 'form' | 'shapes'>): string =>
  `${shapes.length} ${FORMS[form][shapes.length === 1 ? 0 : 1]}`;

/** Kinds a group can be taken as: those drawn so; one area may be the property line. */
export const kindsFor = ({ form, shapes }: Pick<Group, 'form' | 'shapes'>): readonly { readonly id: string; readonly name: string }[] => [
  { id: LEAVE, name: 'Left out' },
  ...(form === 'ring' && shapes.length === 1 ? [{ id: OUTLINE, name: 'Property line' }] : []),
  ...THINGS.flatMap(({ kind, title, form: own }) => (own === form ? [{ id: kind, name: title }] : [])),
];

/** What a group is taken as where nobody has said: the property line is one alone. */
export const firstKind = (group: Group): string => (kindsFor(group).some((k) => k.id === group.likely) ? group.likely : LEAVE);

/** What a group is taken as: as was said, else as is likely. */
export const kindOf = (group: Group, kinds: ReadonlyMap<string, string>): string => kinds.get(group.key) ?? firstKind(group);

/** Shapes that are taken, and those of them that lie off the ground of a project. */
export function countOf(
  groups: readonly Group[],
  kinds: ReadonlyMap<string, string>,
  frame: Frame | null,
): { readonly taken: number; readonly off: number } {
  const taken = groups.flatMap((group) => (kindOf(group, kinds) === LEAVE ? [] : group.shapes));
  return { taken: taken.length, off: frame ? taken.filter((s) => !s.points.some((p) => isOn(frame, p))).length : 0 };
}

/** "It lies", "All 3 lie", "2 of these 5 lie". */
export function offWords(off: number, taken: number): string {
  if (taken === 1) return 'It lies';
  return off === taken ? `All ${taken} lie` : `${off} of these ${taken} ${off === 1 ? 'lies' : 'lie'}`;
}

interface Frame {
  readonly ncols: number;
  readonly nrows: number;
  readonly cellM: number;
  readonly west: number;
  readonly south: number;
}
const isOn = ({ ncols, nrows, cellM, west, south }: Frame, [x, y]: Point): boolean =>
  x >= west && x <= west + ncols * cellM && y >= south && y <= south + nrows * cellM;

/** A walk has a corner a second: what lies within this of a straight line tells nothing [m]. */
const STRAIGHT_M = 0.2;
const corners = (line: Line): Line => (line.length > 3 ? simplify(line, STRAIGHT_M) : line);

/** Things on the land as they are chosen, and the property line. */
export function takenAs(
  groups: readonly Group[],
  kinds: ReadonlyMap<string, string>,
  idFor: (kind: string) => string,
): { readonly features: readonly Feature[]; readonly outline: Line | null } {
  const features: Feature[] = [];
  let outline: Line | null = null;
  for (const group of groups) {
    const kind = kindOf(group, kinds);
    if (kind === LEAVE) continue;
    for (const { name, form, points } of group.shapes) {
      if (kind === OUTLINE) outline = points;
      else {
        const place = form === 'point' ? { at: points[0] } : form === 'line' ? { line: corners(points) } : { ring: points };
        // It begins as one drawn here does: with what is usual of its kind, to be measured.
        features.push({ id: idFor(kind), kind, ...(name === '' ? {} : { name }), ...place, ...seenKind(kind)?.start });
      }
    }
  }
  return { features, outline };
}
