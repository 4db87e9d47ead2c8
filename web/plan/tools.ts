// What a drawing tool does with its points, whichever way they came: mouse, touch, crosshair or typed.
import type { Family } from '#core/contract';
import type { Point } from '#core/geometry';
import { nextName, nextNumber } from '#core/project';
import { ON_MAPS, SEEN_KINDS } from '#core/seen';
import { catalogue } from '#core/works';
import { newId } from '../app/selectors.ts';
import { dispatch, notify, select, setDrawn, startTool, useApp } from '../app/store.ts';
import { askAdvice, askContour, askFall, askPath, askSection, askWall } from './ask-tools.ts';
import { addTest, addZone } from '../app/ground.ts';
import { foundAt } from '../app/pictures.ts';
import { beginWork } from './begin.ts';

export interface Tool {
  readonly name: string;
  /** Where it is offered. */
  readonly group: 'first' | 'work' | 'draw' | 'seen' | 'ask' | 'suits';
  readonly least: number;
  /** With this many points it finishes by itself. */
  readonly most?: number;
  readonly hint: string;
  /** Its places are taken where they are clicked, not at a corner or an edge near them. */
  readonly isInside?: true;
  /** What the work it draws is for. */
  readonly family?: Family;
  readonly finish: (points: readonly Point[]) => void;
}

function addPin(at: Point): void {
  const pins = useApp.getState().history?.project.pins ?? [];
  const id = newId('pin');
  if (dispatch({ type: 'pin.add', payload: { pin: { id, name: nextName('Pin', pins), at } } })) select(id);
}

function addFeature(kind: string, name: string, shape: Readonly<Record<string, unknown>>): void {
  const number = nextNumber(name, useApp.getState().history?.project.features ?? []);
  const id = newId(kind);
  const feature = { id, kind, name: number === 1 ? name : `${name} ${number}`, ...shape };
  if (dispatch({ type: 'feature.add', payload: { feature } })) select(id);
}

const ALONG = 'Click along it, double-click to end.';
const ROUND = 'Click each corner, double-click to close.';

const MAP_TOOLS = Object.fromEntries(
  ON_MAPS.map(({ kind, title, form }): [string, Tool] => {
    const name = title.toLowerCase();
    if (form === 'point')
      return [kind, { name: `Mark a ${name}`, group: 'draw', least: 1, most: 1, hint: 'Click where it is.', finish: ([at]) => addFeature(kind, title, { at }) }];
    const [least, hint] = form === 'ring' ? ([3, ROUND] as const) : ([2, ALONG] as const);
    return [kind, { name: `Draw a ${name}`, group: 'draw', least, hint, finish: (points) => addFeature(kind, title, { [form]: points }) }];
  }),
); // prettier-ignore

/** Things with an inlet and an outlet, or a way from one place to another. */
const TWO_ENDED = new Set(['culvert', 'pipe', 'flow-arrow']);

const SEEN_TOOLS = Object.fromEntries(
  SEEN_KINDS.map(({ kind, title, shape, start }): [string, Tool] => [
    kind,
    {
      name: title,
      group: 'seen',
      least: shape === 'point' ? 1 : 2,
      ...(shape === 'point' ? { most: 1 } : TWO_ENDED.has(kind) ? { most: 2 } : {}),
      hint: shape === 'point' ? 'Click where it is.' : TWO_ENDED.has(kind) ? 'Click where water goes in, then where it comes out.' : ALONG,
      finish: (points) => addFeature(kind, title, { ...start, ...(shape === 'point' ? { at: points[0] } : { line: points }) }),
    },
  ]),
);

/** Works, as their techniques have them drawn; a way out is added from the work it lets out. */
const WORK_TOOLS = Object.fromEntries(
  catalogue.draws.flatMap(({ id, name, kind, family, what, least, most, hint, isFirst, isInside }): [string, Tool][] =>
    what === 'on-host'
      ? []
      : [
          [
            id,
            {
              name,
              group: isFirst ? 'first' : 'work',
              family,
              least,
              ...(most === undefined ? {} : { most }),
              ...(isInside ? { isInside } : {}),
              hint,
              finish: (points) => void beginWork(kind, { how: id, points }),
            },
          ],
        ],
  ),
);
export const TOOLS: Readonly<Record<string, Tool>> = {
  pin: {
    name: 'Drop a pin',
    group: 'first',
    least: 1,
    most: 1,
    hint: 'Click where the water passes: its catchment is drawn.',
    finish: ([at]) => addPin(at),
  },
  ...WORK_TOOLS,
  zone: { name: 'Draw a zone', group: 'first', least: 3, hint: `${ROUND} Its ground begins as the property’s.`, finish: addZone },
  'zone-again': {
    name: 'Draw the zone anew',
    group: 'first',
    least: 3,
    hint: ROUND,
    finish: (points) => {
      const { selected } = useApp.getState();
      if (selected !== null) dispatch({ type: 'zone.change', payload: { id: selected, set: { ring: points } } });
    },
  },
  test: {
    name: 'Test here',
    group: 'first',
    least: 1,
    most: 1,
    hint: 'Click where the ring or the hole is.',
    finish: ([at]) => addTest('double-ring', at),
  },
  'picture-pin': {
    name: 'Pin the picture',
    group: 'first',
    least: 1,
    most: 1,
    hint: 'Click where the place you found in the picture is on the ground.',
    finish: ([at]) => foundAt(at),
  },
  outline: {
    name: 'Draw the property line',
    group: 'draw',
    least: 3,
    hint: ROUND,
    finish: (points) => dispatch({ type: 'site.set', payload: { outline: points } }),
  },
  ...MAP_TOOLS,
  ...SEEN_TOOLS,
  'suits-field': {
    name: 'What suits this field?',
    group: 'suits',
    least: 3,
    hint: `${ROUND} The works that fit are tried there and held against each other.`,
    finish: (ring) => askAdvice({ ring }),
  },
  'suits-channel': {
    name: 'What suits this channel?',
    group: 'suits',
    least: 2,
    hint: 'Click along its bed, double-click to end. The works that fit are tried there and held against each other.',
    finish: (line) => askAdvice({ line }),
  },
  'ask-path': {
    name: 'Where does it run?',
    group: 'ask',
    least: 1,
    most: 1,
    hint: 'Click where the drop falls.',
    finish: ([at]) => void askPath(at),
  },
  'ask-section': { name: 'Measure along a line', group: 'ask', least: 2, hint: ALONG, finish: (points) => void askSection(points) },
  'ask-contour': {
    name: 'Contour through a point',
    group: 'ask',
    least: 1,
    most: 1,
    hint: 'Click a place: its contour is drawn, ready to adopt.',
    finish: ([at]) => void askContour(at),
  },
  'ask-fall': {
    name: 'Is there any fall?',
    group: 'ask',
    least: 2,
    most: 2,
    hint: 'Click the wet place, then where its water might go.',
    finish: ([from, to]) => askFall(from, to),
  },
  'ask-wall': {
    name: 'What would a wall hold?',
    group: 'ask',
    least: 2,
    hint: 'Draw the wall across the valley, double-click to end.',
    finish: (points) => askWall(points),
  },
};

/** Adds a point to the drawing; a tool that has all it takes finishes. */
export function placePoint(at: Point): void {
  const { tool, drawn: before } = useApp.getState();
  if (!tool) return;
  const points = [...before, at];
  setDrawn(points);
  if (points.length === TOOLS[tool].most) finishTool();
}

/** Finishes the drawing when it has points enough. */
export function finishTool(): void {
  const { tool, drawn: points } = useApp.getState();
  if (!tool) return;
  const { least, name, finish } = TOOLS[tool];
  if (points.length < least) {
    notify({
      tone: 'mend',
      title: `Not finished: “${name}” needs ${least} points, there ${points.length === 1 ? 'is' : 'are'} ${points.length}`,
      problems: [],
    });
    return;
  }
  startTool(null);
  finish(points);
}
