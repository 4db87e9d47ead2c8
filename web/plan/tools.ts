// What a drawing tool does with its points, whichever way they came: mouse, touch, crosshair or typed.
import type { Point } from '#core/geometry';
import { optionOf } from '#core/project';
import { amount, say } from '#core/units';
import { newSwale } from '#core/works';
import { newId } from '../app/selectors.ts';
import { type ToolKind, dispatch, notify, select, setDrawn, startTool, useApp, worker } from '../app/store.ts';

export const TOOLS: Readonly<Record<ToolKind, { readonly name: string; readonly least: number; readonly hint: string }>> = {
  pin: { name: 'Drop a pin', least: 1, hint: 'Click where the water passes: its catchment is drawn.' },
  swale: {
    name: 'Draw a swale',
    least: 2,
    hint: 'Click along the slope, double-click to end. It settles on the contour through the first point.',
  },
  outline: { name: 'Draw the property line', least: 3, hint: 'Click each corner, double-click to close.' },
  building: { name: 'Draw a building', least: 3, hint: 'Click each corner, double-click to close.' },
  track: { name: 'Draw a track', least: 2, hint: 'Click along it, double-click to end.' },
};

/** Adds a point to the drawing; a pin is complete with one. */
export function placePoint(at: Point): void {
  const { tool, drawn } = useApp.getState();
  if (!tool) return;
  setDrawn([...drawn, at]);
  if (tool === 'pin') finishTool();
}

/** Finishes the drawing when it has points enough. */
export function finishTool(): void {
  const { tool, drawn } = useApp.getState();
  if (!tool) return;
  const { least, name } = TOOLS[tool];
  if (drawn.length < least) {
    notify({
      tone: 'mend',
      title: `${name}: ${least} points are needed, there ${drawn.length === 1 ? 'is' : 'are'} ${drawn.length}`,
      problems: [],
    });
    return;
  }
  startTool(null);
  if (tool === 'pin') addPin(drawn[0]);
  else if (tool === 'outline') dispatch({ type: 'site.set', payload: { outline: drawn } });
  else if (tool === 'swale') void addSwale(drawn);
  else addFeature(tool, drawn);
}

function addPin(at: Point): void {
  const count = useApp.getState().history?.project.pins.length ?? 0;
  const id = newId('pin');
  if (dispatch({ type: 'pin.add', payload: { pin: { id, name: `Pin ${count + 1}`, at } } })) select(id);
}

function addFeature(kind: 'building' | 'track', points: readonly Point[]): void {
  const shape = kind === 'building' ? { ring: points, name: 'Building' } : { line: points, name: 'Track' };
  dispatch({ type: 'feature.add', payload: { feature: { id: newId(kind), kind, ...shape } } });
}

const WHY: Readonly<Record<string, string>> = {
  'off-terrain': 'the first point is off the terrain',
  flat: 'the ground at the first point is too flat to have a contour',
  'too-short': 'the line is too short to settle on a contour',
};

async function addSwale(drawn: readonly Point[]): Promise<void> {
  const project = useApp.getState().history?.project;
  if (!project) return;
  const settled = await worker().settle(project, drawn);
  if (!settled?.ok) {
    notify({
      tone: 'mend',
      title: 'The swale could not be placed',
      problems: [
        {
          code: 'swale.settle',
          what: settled ? WHY[settled.why] : 'there is no terrain',
          where: {},
          do: 'Start on sloping ground inside the terrain and draw along the slope.',
        },
      ],
    });
    return;
  }
  const count = optionOf(project).works.filter((w) => w.kind === 'swale').length;
  const { line, levelM, movedM } = settled;
  const length = line.slice(1).reduce((sum, p, i) => sum + Math.hypot(p[0] - line[i][0], p[1] - line[i][1]), 0);
  const ids = { swale: newId('swale'), sill: newId('sill') };
  const works = newSwale(ids, `Swale ${count + 1}`, { line, levelM, sillAtM: Math.max(length / 2, length - 4) });
  if (dispatch({ type: 'works.add', payload: { works } })) {
    select(ids.swale);
    notify({
      tone: 'fine',
      title: say`It settled on the ${amount(levelM, 'level')} contour through your first point; your line moved ${amount(movedM, 'distance')} at most.`,
      problems: [],
    });
  }
}
