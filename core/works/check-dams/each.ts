// What each dam takes, and what it holds for each hour of work.
import type { EachTable, StormFacts } from '../../contract/index.ts';
import { hoursWorked, litresAnHour } from '../labour.ts';
import { siltedShare } from '../series.ts';
import { drainsOf } from './figures.ts';
import { FORMS } from './forms.ts';
import { carryOf, hoursAt, hoursOf } from './making.ts';
import { stoneOf, weightOf } from './stone.ts';
import { type Series, type Standing, roomBehind } from './store.ts';

/** Hours logged for all of them are shared as the book would have it. */
function hoursEach({ work, dams }: Series): (one: Standing) => number {
  const byBook = hoursOf(work, dams);
  const share = byBook > 0 ? hoursWorked(work.labour, byBook) / byBook : 1;
  return (one) => share * hoursAt(work, one);
}

/** Two lines for each of several: one of them is told by the figures of the whole. */
export function eachDam(series: Series, facts: StormFacts): readonly EachTable[] {
  const { work, bed, dams } = series;
  if (dams.length < 2) return [];
  const hours = hoursEach(series);
  const { fillsAYear } = work.labour;
  const drains = drainsOf(series, facts);
  const row = (of: (one: Standing) => readonly (number | null)[]): EachTable['rows'] =>
    dams.map((one, k) => ({ name: `${k + 1}`, values: of(one) }));
  return [
    {
      title: 'What each of them takes',
      of: 'dam',
      columns: [
        { label: FORMS[work.form].is, kind: 'volume' },
        { label: 'weighs', kind: 'mass' },
        { label: 'carried', kind: 'distance' },
        { label: 'takes', kind: 'hours' },
      ],
      rows: row((one) => {
        const stone = stoneOf(work, one);
        return [stone.allM3, weightOf(work, stone), carryOf(work, one), hours(one)];
      }),
    },
    {
      title: 'What each of them holds',
      of: 'dam',
      columns: [
        { label: 'holds', kind: 'volume' },
        { label: 'L/h, a fill', kind: 'number' },
        { label: 'a year', kind: 'number' },
        { label: 'in silt', kind: 'number' },
      ],
      rows: row((one) => {
        const room = roomBehind(one, bed);
        const open = room * (1 - siltedShare(one.dam));
        return [
          open,
          litresAnHour(open, hours(one)),
          fillsAYear === undefined ? null : litresAnHour(open * fillsAYear, hours(one)),
          drains === null ? null : litresAnHour(room * drains, hours(one)),
        ];
      }),
    },
  ];
}
