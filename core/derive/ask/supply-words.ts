// What is said of water through the year, once it was followed day by day.
import { type QuantityKind, type UnitSystem, formatQuantity } from '../../units/index.ts';
import { type Piece, alarm, plain, strong } from '../tell/pieces.ts';
import type { Lacks } from './season-land.ts';
import type { Season } from './season.ts';

/** Why a store is not told. */
export const LACKS_WORDS: Readonly<Record<Lacks, string>> = {
  ground: 'the ground is not described',
  evaporation: 'nobody has said what dries off in each month',
};

/** By which days it was followed. */
function byWords({ years, fromYear, toYear, isMade }: Season): Piece[] {
  if (isMade) return [alarm(' By days made from monthly figures: real years differ more.')];
  return [plain(` By ${years} ${years === 1 ? 'year' : 'years'} of the record, ${fromYear} to ${toYear}.`)];
}

/** Whole per cent; all but a little is never told as all. */
const percentOf = (share: number): number => Math.min(99, Math.round(100 * share));

/** The year's water in a sentence: who gets least, where it ends, what runs over. */
export function supplyVerdict(season: Season, system: UnitSystem): Piece[] {
  const q = (v: number | null | undefined, kind: QuantityKind): string => formatQuantity(v, kind, system);
  const told = season.demands.filter((d) => d.suppliedShare !== null);
  const untold = season.demands.find((d) => d.suppliedShare === null);
  const unknown = season.stores.find((s) => s.lacks.length > 0);
  const lacks = unknown ? [alarm(` ${unknown.name} is not told: ${unknown.lacks.map((l) => LACKS_WORDS[l]).join(', ')}.`)] : [];
  if (season.demands.length === 0)
    return [plain('No need draws on a store yet: say who uses water, and how much a day.'), ...lacks, ...byWords(season)];
  if (told.length === 0) return [alarm(`What ${untold?.name ?? 'is asked'} gets cannot be told.`), ...lacks];
  const least = told.reduce((a, b) => ((b.suppliedShare ?? 1) < (a.suppliedShare ?? 1) ? b : a));
  const share = least.suppliedShare ?? 1;
  const store = season.stores.find((s) => s.id === least.store);
  const days = store?.told;
  const isWhole = share > 0.9995;
  const head: Piece[] = isWhole
    ? [strong('All that is asked is met'), plain(', every day.')]
    : [
        plain(`${least.name}: `),
        share < 0.8 ? alarm(`${percentOf(share)} %`) : strong(`${percentOf(share)} %`),
        plain(` of what is asked is met${told.length > 1 ? ', the least of all' : ''}`),
        ...(days && days.longestEmptyDays > 0 ? [plain(`; ${store.name} stands empty up to `), strong(q(days.longestEmptyDays, 'days')), plain(' on end')] : []),
        plain('.'),
      ]; // prettier-ignore
  const over = days ? days.spilledM3 / season.years : 0;
  const tail =
    days && over > 0 ? [plain(' '), strong(q(over, over < 10 ? 'liquid' : 'volume')), plain(` a year run over ${store.name}.`)] : [];
  return [...head, ...tail, ...lacks, ...byWords(season)];
}
