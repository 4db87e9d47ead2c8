// Where each way to a peak may be used, and why they differ, in words.
import type { PeakMethod, Rain } from '../../project/index.ts';
import { regionOf } from '../run/hydrology.ts';
import type { Timed } from '../run/watersheds.ts';

interface Words {
  readonly title: string;
  readonly says: string;
}

export const PEAK_WORDS: Readonly<Record<PeakMethod, Words>> = {
  larger: { title: 'The larger of hydrograph and rational', says: 'Where the two differ, works are made for the worse.' },
  hydrograph: { title: 'Unit hydrograph', says: 'The whole storm, its losses and how long water takes.' },
  rational: { title: 'Rational', says: 'One coefficient and the heaviest minutes of rain. Many authorities stop at 8 to 25 ha.' },
  'rational-rare': {
    title: 'Rational, raised for rare storms',
    says: 'The coefficient rises by a tenth at 1 in 25 years, a fifth at 1 in 50, a quarter at 1 in 100.',
  },
  graphical: { title: 'Graphical, by regional pattern', says: 'Read from curves drawn for one even catchment.' },
};

export interface PeakFacts {
  readonly timed: Pick<Timed, 'watershed' | 'choice' | 'tcMin'>;
  readonly rain: Rain;
  readonly runoffMm: number;
}

/** Bounds of the methods: rational by HEC-22; curve numbers by TR-55; half an inch of runoff. */
const [RATIONAL_MOST_HA, LEAST_RUNOFF_MM, LEAST_NUMBER] = [80, 13, 40];

/** Why a way to the peak should not be used here; empty where it may. */
export function unfitPeak(method: PeakMethod, { timed, rain, runoffMm }: PeakFacts): string[] {
  const { watershed, choice, tcMin } = timed;
  const hectares = watershed.gathered.catchment.areaM2 / 1e4;
  const found: string[] = [];
  const say = (isUnfit: boolean, words: string): void => {
    if (isUnfit) found.push(words);
  };
  const isRational = method === 'rational' || method === 'rational-rare';
  say(isRational && hectares > RATIONAL_MOST_HA, `made for catchments up to ${RATIONAL_MOST_HA} ha`);
  say(method === 'rational-rare' && rain.storm.returnYears <= 10, 'nothing is raised for storms up to 1 in 10 years');
  say(
    method === 'hydrograph' && choice.loss === 'curve-number' && runoffMm < LEAST_RUNOFF_MM,
    'curve numbers say little where under 13 mm runs off',
  );
  say(method === 'graphical' && regionOf(rain) === null, 'needs one of the four day-long regional storms: choose it under Rain');
  say(method === 'graphical' && (tcMin < 6 || tcMin > 600), 'made for times of 0.1 to 10 h');
  say(method === 'graphical' && watershed.curveNumber < LEAST_NUMBER, `made for curve numbers of at least ${LEAST_NUMBER}`);
  return found;
}

interface Told {
  readonly peakM3s: number | null;
  readonly title: string;
  readonly unfit: readonly string[];
}

export interface SpreadFacts {
  readonly peaks: readonly (Told & { readonly method: PeakMethod })[];
  readonly times: readonly { readonly tcMin: number | null; readonly unfit: readonly string[] }[];
  readonly losses: readonly { readonly runoffMm: number; readonly title: string }[];
  readonly tcMin: number;
}

/** A title within a sentence: names of people keep their capital. */
const inText = (title = ''): string => (/^(Green|Horton)/.test(title) ? title : title.charAt(0).toLowerCase() + title.slice(1));

const times = (ratio: number): string => (ratio < 1.15 ? 'about the same' : `${ratio.toFixed(1)} times`);

/** Why the peaks differ, in a few plain sentences. */
export function explainSpread({ peaks, times: ways, losses, tcMin }: SpreadFacts): string {
  const fit = peaks.filter((p) => p.method !== 'larger' && p.unfit.length === 0 && p.peakM3s !== null && p.peakM3s > 0);
  const said: string[] = [];
  const [rational, hydrograph] = (['rational', 'hydrograph'] as const).map((m) => peaks.find((p) => p.method === m)?.peakM3s ?? 0);
  if (fit.length > 1) {
    const sorted = [...fit].sort((a, b) => (a.peakM3s ?? 0) - (b.peakM3s ?? 0));
    const [least, most] = [sorted[0], sorted[sorted.length - 1]];
    const ratio = (most.peakM3s ?? 0) / (least.peakM3s ?? 1);
    said.push(ratio < 1.15 ? 'The methods that fit agree.' : `${most.title} gives ${times(ratio)} as much as ${inText(least.title)}.`);
  }
  const minutes = `${Math.round(tcMin)} min`;
  if (rational > 1.15 * hydrograph) {
    said.push(
      `Rational lets the heaviest ${minutes} of rain run off at once by one coefficient; the hydrograph first wets the ground and spreads what is left over time.`,
    );
  } else if (hydrograph > 1.15 * rational) {
    said.push(
      'The hydrograph has the whole storm, which wets the ground before its heaviest minutes; rational knows those alone, with a coefficient made for ordinary storms.',
    );
  }
  const known = ways.flatMap((w) => (w.tcMin !== null && w.unfit.length === 0 ? [w.tcMin] : []));
  if (known.length > 1 && Math.max(...known) > 1.3 * Math.min(...known)) {
    said.push(
      `The time of concentration is told as ${Math.round(Math.min(...known))} to ${Math.round(Math.max(...known))} min: the shorter, the higher the peak.`,
    );
  }
  const [low, high] = [Math.min(...losses.map((l) => l.runoffMm)), Math.max(...losses.map((l) => l.runoffMm))];
  if (high > 1.15 * Math.max(low, 0.1)) {
    const [l, h] = [losses.find((x) => x.runoffMm === low), losses.find((x) => x.runoffMm === high)];
    said.push(`What soaks in is the largest doubt: ${inText(h?.title)} sheds the most, ${inText(l?.title)} the least.`);
  }
  return said.join(' ');
}
