import { type Point, lineLength } from '#core/geometry';
import { optionOf } from '#core/project';
import { amount, say } from '#core/units';
import { newSwale } from '#core/works';
import { newId } from '../app/selectors.ts';
import { dispatch, notify, select, useApp, giveAssets, worker } from '../app/store.ts';

const WHY: Readonly<Record<string, string>> = {
  'off-terrain': 'the first point is off the terrain',
  flat: 'the ground at the first point is too flat to have a contour',
  'too-short': 'the line is too short to settle on a contour',
};

/** A swale drawn roughly, settled on the contour through its first point. */
export async function addSwale(drawn: readonly Point[]): Promise<void> {
  const project = useApp.getState().history?.project;
  if (!project) return;
  const settled = await giveAssets(project)
    .then(() => worker().settle(project, drawn))
    .catch(() => null);
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
  const length = lineLength(line);
  const ids = { swale: newId('swale'), sill: newId('sill') };
  const works = newSwale(ids, `Swale ${count + 1}`, { line, levelM, sillAtM: Math.max(length / 2, length - 4) });
  if (!dispatch({ type: 'works.add', payload: { works } })) return;
  select(ids.swale);
  notify({
    tone: 'fine',
    title: say`It settled on the ${amount(levelM, 'level')} contour through your first point; your line moved ${amount(movedM, 'distance')} at most.`,
    problems: [],
  });
}
