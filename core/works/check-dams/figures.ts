import type { Figure, StormFacts } from '../../contract/index.ts';
import type { Worksheet } from '../../formula/index.ts';
import { SILL_LENGTH } from '../../hydraulics/index.ts';
import { fallBetween } from '../bed.ts';
import { hourFigures, hoursWorked, litresAnHour } from '../labour.ts';
import { allStoneM3, hoursOf } from './making.ts';
import { siltedShare } from '../series.ts';
import { WOOD_FLOATS, bodyOf, floating } from './forms.ts';
import { HEEDE_SPACING, SIGHT_SPACING } from './spacing.ts';
import { STONE_T_M3 } from '../making.ts';
import { DAM_BODY, WEDGE_VOLUME } from './stone.ts';
import { NOTCH_C, type Series, roomBehind } from './store.ts';

/** Water all of them hold to their notches, silt and all, and what is open of it [m3]. */
export function roomOf({ bed, dams }: Omit<Series, 'work'>): { readonly allM3: number; readonly openM3: number } {
  let [allM3, openM3] = [0, 0];
  for (const one of dams) {
    const room = roomBehind(one, bed);
    allM3 += room;
    openM3 += room * (1 - siltedShare(one.dam));
  }
  return { allM3, openM3 };
}

/** The greatest flow any of them must pass [m3/s]; null where no storm tells. */
const peakOf = ({ designPeakM3s, others = [] }: StormFacts): number | null =>
  designPeakM3s === null ? null : Math.max(designPeakM3s, ...others.flatMap((o) => o.storm?.peakInM3s ?? []));

/** The working of one dam on the even slope about it, so that it can be followed by hand. */
function workThrough({ work, bed, dams }: Series, sheet: Worksheet): void {
  const one = dams[dams.length - 1];
  const { dam, sideHV } = one;
  const S = fallBetween(bed, [Math.max(0, dam.atM - 10), dam.atM]);
  const H = dam.heightM;
  if (S > 0) {
    sheet.use(SIGHT_SPACING, { H, S });
    sheet.use(HEEDE_SPACING, { H, G: S });
    sheet.use(WEDGE_VOLUME, { b: dam.bedWidthM, z: sideHV, H, S });
  }
  const { notchWidthM: n, notchDepthM, heldKgM: p } = work.dimensions;
  const { crestWidthM: w, upSlopeHV, downSlopeHV } = bodyOf(work);
  const wood = floating(work);
  if (wood && p !== undefined) sheet.use(WOOD_FLOATS, { ...wood, p });
  if (work.form === 'log') return;
  sheet.use(DAM_BODY, { w, m: upSlopeHV + downSlopeHV, n, b: dam.bedWidthM, z: sideHV, H, E: H + notchDepthM });
}

/** Share of silt that drains, by the ground where the lowest stands; null where that is not known. */
export function drainsOf({ bed, dams }: Series, { site }: StormFacts): number | null {
  const last = dams[dams.length - 1].dam.atM;
  return site.soilAt(bed.points[Math.min(bed.points.length - 1, Math.round(last / bed.stepM))])?.texture.drainable ?? null;
}

export function figuresOf(series: Series, facts: StormFacts, sheet: Worksheet): Figure[] {
  const { work, bed, dams } = series;
  const { allM3, openM3 } = roomOf(series);
  const stoneM3 = allStoneM3(work, dams);
  const byBook = hoursOf(work, dams);
  const hours = hoursWorked(work.labour, byBook);
  const [first, last] = [dams[0].dam.atM, dams[dams.length - 1].dam.atM];
  const { fillsAYear, siltM3AYear } = work.labour;
  const drains = drainsOf(series, facts);
  const peak = peakOf(facts);
  workThrough(series, sheet);
  return [
    { id: 'dams', label: 'Dams', value: dams.length, kind: 'count' },
    { id: 'fall', label: 'Fall of the bed', value: fallBetween(bed, [0, bed.lengthM]), kind: 'slope' },
    { id: 'apartM', label: 'Apart, on average', value: dams.length > 1 ? (last - first) / (dams.length - 1) : null, kind: 'distance' },
    { id: 'openM3', label: 'Hold together, to their notches', value: openM3, kind: 'volume' },
    {
      id: 'stoneM3',
      label: work.form === 'rock' ? 'Stone' : work.form === 'log' ? 'Logs and aprons' : 'Body, keys and aprons',
      value: stoneM3,
      kind: 'volume',
    },
    ...(work.form === 'rock' ? [{ id: 'tonnes', label: 'It weighs', value: stoneM3 * STONE_T_M3, kind: 'mass' as const }] : []),
    ...hourFigures(work.labour, byBook),
    { id: 'litresAnHour', label: 'Litres held for each hour, a fill', value: litresAnHour(openM3, hours), kind: 'number' },
    {
      id: 'litresAnHourAYear',
      label: 'Litres for each hour, a year',
      value: fillsAYear === undefined ? null : litresAnHour(openM3 * fillsAYear, hours),
      kind: 'number',
    },
    {
      id: 'litresAnHourSilted',
      label: 'Litres for each hour in the silt, when full of it',
      value: drains === null ? null : litresAnHour(allM3 * drains, hours),
      kind: 'number',
    },
    { id: 'yearsToSilt', label: 'Years until full of silt', value: siltM3AYear === undefined ? null : openM3 / siltM3AYear, kind: 'years' },
    ...(peak === null || peak <= 0
      ? []
      : [
          {
            id: 'notchWidthM',
            label: 'Notch needed',
            value: Math.ceil(100 * sheet.use(SILL_LENGTH, { Q: peak, C: NOTCH_C, H: work.dimensions.notchDepthM })) / 100,
            kind: 'length' as const,
          },
        ]),
  ];
}
