// A store that hangs on no other, through a storm: storage indication as in every pool (pool.ts). Most of an answer is spent in this
// loop, so all that a step needs stands in plain variables, levels are looked at in one place, and laws that say their form are worked
// out there. A test holds it against pools that are settled step by step.
import { rootAbout } from './bracket.ts';
import { shareAtEnd } from './move.ts';
import { FULL_SOAK_M, ONE_LEVEL_M, PROBE_M, Pool, type RoutedOutlet, type RoutedStore } from './pool.ts';
import { type Quiet, mayBend } from './quiet.ts';
import { spread, threeSeries } from './runs.ts';

/** Water is kept by what is moved, not by the level found for it: a millionth of a litre in each cubic metre is near enough [m3]. */
const CLOSE = 1e-9;
/** Looks along the slope, as long as each leaves far less to find: on these nearly straight curves one or two do. */
const MOST_LOOKS = 4;

/** What a level is looked at for: how fast outflow answers there; whether it is the one sought; what runs at the one found; what runs where the water left stands. */
const FEELS = 0;
const SEEKS = 1;
const FOUND = 2;
const STANDS = 3;

/** Which steps are taken [first, end), how long each is [s], and what tells how many may be taken as one; one at a time without it. */
export interface Span {
  readonly from: number;
  readonly end: number;
  readonly stepS: number;
  readonly quiet: Quiet | null;
}

/** A level looked for: volume and the step's later outflow come to the target there [m3]. */
interface Sought {
  readonly targetM3: number;
  readonly laterS: number;
  /** From where, and how much is too much there [m3]. */
  readonly at: number;
  readonly f: number;
  readonly surface: number;
  readonly close: number;
}

/** A pool that can also be run by itself. */
export class LonePool extends Pool {
  /** Of each of its ways out the crest, where it is one: flow by head to 1.5, and from which level its head or its table counts. */
  private readonly perHead: Float64Array;
  private readonly baseM: Float64Array;
  /** Tables of those that are one, one after the other; of each its last row (none: -1), and the row read last. */
  private readonly heads: Float64Array;
  private readonly rated: Float64Array;
  private readonly rises: Float64Array;
  private readonly lastRow: Int32Array;
  private readonly rows: Int32Array;
  /** How fast volume grows from each row of the stage table to the next [m2], and the row read last. */
  private readonly slopes: Float64Array;
  private piece = 0;
  /** The level found last: in a row of one, since a number handed back would be a thing of its own, and so all levels of the loop. */
  private readonly sought = new Float64Array(1);

  constructor(store: RoutedStore, steps: number, isJoint: (outlet: RoutedOutlet) => boolean) {
    super(store, steps, isJoint);
    const { levelM, volumeM3 } = store.stage;
    const { laws } = this;
    this.perHead = Float64Array.from(laws, (law) => law.crest?.perHead ?? 0);
    this.baseM = Float64Array.from(laws, (law) => law.crest?.levelM ?? law.table?.fromM ?? 0);
    const ratings = laws.flatMap((law) => law.table?.rating ?? []);
    const length = ratings.reduce((n, { headM }) => n + headM.length, 0);
    [this.heads, this.rated, this.rises] = threeSeries(length);
    this.rows = new Int32Array(laws.length);
    this.lastRow = new Int32Array(laws.length).fill(-1);
    let at = 0;
    laws.forEach(({ table }, k) => {
      if (!table) return;
      const { headM, flowM3s, rises } = table.rating;
      this.heads.set(headM, at);
      this.rated.set(flowM3s, at);
      this.rises.set(rises, at);
      this.rows[k] = at;
      at += headM.length;
      this.lastRow[k] = at - 1;
    });
    this.slopes = new Float64Array(levelM.length - 1);
    for (let k = 0; k < this.slopes.length; k++) {
      const span = levelM[k + 1] - levelM[k];
      this.slopes[k] = span > 0 ? (volumeM3[k + 1] - volumeM3[k]) / span : 0;
    }
  }

  /** Takes steps by itself, what comes to it in each laid down before. */
  runThrough({ from, end: last, stepS, quiet }: Span): void {
    const {
      store,
      own,
      now,
      before,
      laws,
      fromM,
      perHead,
      baseM,
      heads,
      rated,
      rises,
      rows,
      lastRow,
      slopes,
      sought,
      flows,
      floorM,
      room,
    } = this;
    const { comes, levelM, outM3s, peakM3s, peakStep } = this;
    const { levelM: levels, volumeM3: volumes, wettedM2: wetted } = store.stage;
    const ways = own.length;
    const top = slopes.length - 1;
    let { piece, soak, standsM, holdsM3, sumBefore, trend, inM3, outM3, soakedM3, mostM3 } = this;
    for (let i = from; i < last;) {
      const n = quiet === null ? 1 : quiet.stepsFrom(i);
      let meanIn = 0;
      for (let m = 0; m < n; m++) meanIn += comes[i + m];
      meanIn /= n;
      if (meanIn === 0 && sumBefore === 0) {
        // Nothing comes and nothing leaves: water stands below its way out.
        levelM.fill(standsM, i + 1, i + n + 1);
        trend = 0;
        quiet?.told(n, 0);
        i += n;
        continue;
      }
      const end = i + n;
      const longS = n * stepS;
      const heldM3 = holdsM3;
      let looks = 0;
      let later = 0.5;
      let laterS = 0;
      let targetM3 = 0;
      let close = 0;
      let surface = 1;
      let rise = 1;
      let at = 0;
      let f = 0;
      let stirs = 0;
      let goesM3 = 0;
      let aim = FEELS;
      let level = standsM + PROBE_M;
      for (;;) {
        while (piece < top && level >= levels[piece + 1]) piece++;
        while (piece > 0 && level < levels[piece]) piece--;
        let sum = 0;
        for (let k = 0; k < ways; k++) {
          const head = level - baseM[k];
          if (!(level > fromM[k])) now[k] = 0;
          else if (perHead[k] > 0) now[k] = head > 0 ? perHead[k] * head * Math.sqrt(head) : 0;
          else if (head > 0 && lastRow[k] > 0 && head < heads[lastRow[k]]) {
            let row = rows[k];
            while (head >= heads[row + 1]) row++;
            while (head < heads[row]) row--;
            rows[k] = row;
            now[k] = rated[row] + rises[row] * (head - heads[row]);
          } else now[k] = laws[k](level);
          sum += now[k];
        }
        now[ways] = 0;
        if (soak > 0 && level > floorM) {
          const span = levels[piece + 1] - levels[piece];
          const share = span > 0 ? (level - levels[piece]) / span : 0;
          const wet = level - floorM < FULL_SOAK_M ? (level - floorM) / FULL_SOAK_M : 1;
          now[ways] = soak * wet * (wetted[piece] + share * (wetted[piece + 1] - wetted[piece]));
          sum += now[ways];
        }
        if (aim === FEELS) {
          const there = volumes[piece] + slopes[piece] * (level - levels[piece]);
          surface = (there - holdsM3 > 1e-9 ? there - holdsM3 : 1e-9) / PROBE_M;
          const answer = (longS * (sum - sumBefore)) / PROBE_M / surface;
          later = shareAtEnd(answer);
          laterS = later * longS;
          targetM3 = holdsM3 + longS * (meanIn - (1 - later) * sumBefore);
          close = targetM3 > 1 || targetM3 < -1 ? CLOSE * Math.abs(targetM3) : CLOSE;
          rise = surface * (1 + later * answer);
          level = standsM + (longS * (meanIn - sumBefore)) / rise;
          if (level < floorM) level = floorM;
          aim = SEEKS;
          continue;
        }
        if (aim === SEEKS) {
          const found = volumes[piece] + slopes[piece] * (level - levels[piece]) + laterS * sum - targetM3;
          if (found >= close || found <= -close) {
            const isNearer = looks === 0 || Math.abs(found) <= Math.abs(f) / 4;
            if (isNearer) {
              if (looks > 0) rise = (found - f) / (level - at);
              at = level;
              f = found;
            }
            if (!isNearer || looks === MOST_LOOKS || !(rise > 0)) {
              this.soak = soak;
              this.seek({ targetM3, laterS, at, f, surface, close });
              level = sought[0];
              aim = FOUND;
              continue;
            }
            const next = at - f / rise > floorM ? at - f / rise : floorM;
            if (next !== level) {
              level = next;
              looks++;
              continue;
            }
          }
        }
        if (aim !== STANDS) {
          // Its level may rise as it will where nothing leaves: water is kept by what is moved.
          if (sumBefore > 0 || sum > 0) {
            const fillsItsSoil = soak > 0 && longS * Math.max(now[ways], before[ways]) > room - soakedM3;
            const bent = Math.abs(level - standsM - n * trend);
            stirs = n > 1 && (fillsItsSoil || this.begins()) ? Infinity : bent / mayBend(standsM - floorM);
          }
          if (n > 1 && stirs > 1) break;
          const thereM3 = holdsM3 + meanIn * longS;
          inM3 += meanIn * longS;
          // More cannot leave than there is: an emptying store scales all its outlets.
          const first = 1 - later;
          const wantedM3 = longS * (first * sumBefore + later * sum);
          const scale = wantedM3 > thereM3 ? (thereM3 > 0 ? thereM3 / wantedM3 : 0) : 1;
          for (let k = 0; k < ways; k++) {
            const movedM3 = scale * longS * (first * before[k] + later * now[k]);
            if (movedM3 === 0) continue;
            goesM3 += movedM3;
            const flow = flows[own[k]] ?? this.flowOf(own[k]);
            if (n === 1) flow[i] = movedM3 / longS;
            else spread(flow, i, { n, mean: movedM3 / longS, rise: scale === 1 && later === 0.5 ? now[k] - before[k] : 0 });
          }
          outM3 += goesM3;
          const soaksM3 = scale * longS * (first * before[ways] + later * now[ways]);
          const tookM3 = soaksM3 < room - soakedM3 ? soaksM3 : room - soakedM3;
          soakedM3 += tookM3;
          goesM3 += tookM3;
          holdsM3 = thereM3 > goesM3 ? thereM3 - goesM3 : 0;
          if (holdsM3 > mostM3) mostM3 = holdsM3;
          while (piece < top && holdsM3 >= volumes[piece + 1]) piece++;
          while (piece > 0 && holdsM3 < volumes[piece]) piece--;
          const stood = standsM;
          standsM = slopes[piece] > 0 ? levels[piece] + (holdsM3 - volumes[piece]) / slopes[piece] : levels[piece];
          trend = (standsM - stood) / n;
          levelM[end] = standsM;
          const isFull = soak > 0 && soakedM3 >= room;
          if (isFull) soak = 0;
          // The level found and that of the water left there are one, but for rounding: what was looked at there still stands.
          if (isFull || Math.abs(standsM - level) >= ONE_LEVEL_M) {
            level = standsM;
            aim = STANDS;
            continue;
          }
        }
        sumBefore = sum;
        outM3s[end] = sum - now[ways];
        for (let k = 0; k < ways; k++) {
          before[k] = now[k];
          if (now[k] <= peakM3s[own[k]]) continue;
          peakM3s[own[k]] = now[k];
          peakStep[own[k]] = end;
        }
        before[ways] = now[ways];
        break;
      }
      quiet?.told(n, stirs);
      if (n > 1 && stirs > 1) continue;
      if (n > 1 && goesM3 === 0) this.fillThrough(i, n, { fromM3: heldM3, stepS });
      else if (n > 1) this.drawThrough(i, n);
      i = end;
    }
    Object.assign(this, { piece, soak, standsM, holdsM3, sumBefore, trend, inM3, outM3, soakedM3, mostM3 });
  }

  /** Finds a level for sure: volume and outflow both rise with it, so there is one. */
  private seek({ targetM3, laterS, at, f, surface, close }: Sought): void {
    // What ran where it was looked at last is not what stands in the pool.
    this.seenM = NaN;
    const excess = (level: number): number => this.volumeAt(level) + laterS * this.outflowAt(level) - targetM3;
    this.sought[0] = rootAbout(excess, { at, f, floor: this.floorM, surface, close });
  }
}
