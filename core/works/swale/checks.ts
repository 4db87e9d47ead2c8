import { type Cure, NEEDS_STORM, type Rule } from '../../contract/index.ts';
import { pointAlong } from '../../geometry/index.ts';
import { type Amount, amount, say } from '../../units/index.ts';
import { COMMON_PRACTICE, cureBy, downToMm, gradeMax, gradeMin, upToMm, millimetres } from '../rules.ts';
import { farEnd } from './far-end.ts';
import type { LipGround } from '../lip.ts';
import type { Swale, SwalePurpose } from './model.ts';
import { JOIN_RULES } from './join-checks.ts';
import { PLACE_RULES, type SwaleFacts } from './place-checks.ts';
import { balancedCrest, earthOf } from './quantities.ts';
import { SHRINK } from '../trough.ts';
import { lowPlacesOf } from './store.ts';

/** Freeboard over the storm's highest water by purpose [m]: mend under the first, weigh under the second. */
const FREEBOARD_M: Record<SwalePurpose, readonly [number, number]> = {
  soak: [0.1, 0.15],
  hold: [0.1, 0.15],
  convey: [0.1, 0.15],
  spillway: [0.2, 0.3],
};

/** Longest time to empty [h]; a swale that is meant to hold water has none. */
const DRAIN_HOURS: Record<SwalePurpose, number | null> = { soak: 48, hold: null, convey: 24, spillway: 72 };

const LEAST_SOIL_BELOW_FLOOR_M = 0.6;

const metres = (m: number): Amount => amount(m, 'distance');

const bankFreeboard: Rule<SwaleFacts> = {
  id: 'swale.bank-freeboard',
  isOfLevels: true,
  title: 'Freeboard of the bank in the storm',
  why: 'Water over an earth bank cuts it through: what is left between the highest water and the crest is the margin for waves, settlement and error.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: { key: 'common-practice', locator: 'swales and bunds 0.10 to 0.15 m over the head on the sill; a spillway swale twice that' },
  needs: NEEDS_STORM,
  find: ({ swale, storm }) => {
    if (!storm) return null;
    const [mend, weigh] = FREEBOARD_M[swale.purpose];
    const lacking = weigh - storm.freeboardM;
    const [low] = lowPlacesOf(swale);
    return {
      value: storm.freeboardM,
      limit: weigh,
      severity: gradeMin(storm.freeboardM, mend, weigh),
      do:
        lacking > 0 && low
          ? say`Mend the low place at ${metres(low.atM)} first, then look again.`
          : lacking > 0
            ? say`Raise the bank crest by ${millimetres(lacking)}, or lengthen the sill so that water stands lower.`
            : 'Nothing: keep the crest level when it settles.',
      ...cureBy(lacking > 0 && !low, {
        work: swale.id,
        set: { 'levels.bankCrestM': upToMm(swale.levels.bankCrestM + lacking) },
        says: say`Raise the bank crest by ${millimetres(lacking)}`,
      }),
    };
  },
};

const drainDown: Rule<SwaleFacts> = {
  id: 'swale.drain-down',
  title: 'Time to soak away after the storm',
  why: 'The next storm may come soon, roots drown, and standing water breeds mosquitoes.',
  unit: 'h',
  kind: 'hours',
  sense: 'max',
  source: { key: 'common-practice', locator: '24 h where grass must live, 48 h swales and basins, 72 h the most for mosquitoes' },
  needs: NEEDS_STORM,
  applies: ({ swale }) => DRAIN_HOURS[swale.purpose] !== null,
  find: ({ swale, storm }) => {
    const limit = DRAIN_HOURS[swale.purpose];
    if (limit === null || !storm) return null;
    if (storm.drainDownH === null) {
      return {
        value: null,
        limit,
        severity: 'mend',
        do: 'No infiltration rate is known or it is zero: test the soil, or let the water out through a low outlet.',
      };
    }
    const severity = gradeMax(storm.drainDownH, limit, 1.5 * limit);
    if (storm.soilShortM3 > 0) {
      return {
        value: null,
        limit,
        severity: severity === 'mend' ? 'mend' : 'weigh',
        do: say`The soil under it is full before it is empty: ${amount(storm.soilShortM3, 'volume')} stay until they move on sideways. Make it wider and shallower, give it a low outlet, or dig a hole here: the soil may be deeper than you noted, or of another texture than its soil group suggests.`,
      };
    }
    return {
      value: storm.drainDownH,
      limit,
      severity,
      do: storm.drainDownH > limit ? 'Make it wider and shallower, loosen the floor, or lower the sill so that less stands.' : 'Nothing.',
    };
  },
};

const groundSlope: Rule<SwaleFacts> = {
  id: 'swale.ground-slope',
  title: 'Slope the swale is cut into',
  why: 'On steep ground the cut grows tall, the bank has no seat and soaking water can start a slip.',
  unit: 'm/m',
  kind: 'slope',
  sense: 'max',
  source: { key: 'common-practice', locator: 'swales up to about 15 %; steeper: terraces or many small basins' },
  find: ({ ground }) => {
    const value = ground.steepestSlope;
    return {
      value,
      limit: 0.15,
      severity: gradeMax(value, 0.15, 0.2),
      do:
        value > 0.15
          ? 'Move it to gentler ground, or use terraces or small basins here; above 20 % ask a geotechnical engineer.'
          : 'Nothing.',
    };
  },
};

const cutDaylight: Rule<SwaleFacts> = {
  id: 'swale.cut-daylight',
  title: 'Sides that never meet the ground',
  why: 'A side as flat as the hill itself runs on uphill or downhill without end.',
  unit: '',
  kind: 'number',
  sense: 'max',
  source: { key: 'geometry', locator: 'slope x side must be under 1' },
  find: ({ swale, ground }) => {
    const flattest = Math.max(swale.dimensions.sideSlopeHV, swale.dimensions.bankSlopeHV);
    const value = flattest * ground.steepestSlope;
    if (value < 0.8) return null;
    return {
      value,
      limit: 0.8,
      severity: value >= 1 ? 'mend' : 'weigh',
      do: 'Make the sides of ditch and bank steeper, or move to gentler ground.',
    };
  },
};

const soilDepth: Rule<SwaleFacts> = {
  id: 'swale.soil-depth',
  title: 'Soil left below the floor',
  why: 'Water soaks only where there is soil to take it, and a floor on rock cannot be dug by the machine you booked.',
  unit: 'm',
  kind: 'length',
  sense: 'min',
  source: { key: 'common-practice', locator: '0.6 to 1.2 m of soil between floor and rock or water' },
  needs: ['ground'],
  find: ({ swale, ground, site }) => {
    // Where the cut is deep or the soil shallow: it may lie in several zones.
    const left = ground.points.flatMap((at, i) => {
      const soil = site.soilAt(at);
      return soil ? [{ at, m: soil.soilDepthM - (ground.groundM[i] - swale.levels.floorM) }] : [];
    });
    if (left.length === 0) return null;
    const least = left.reduce((a, b) => (b.m < a.m ? b : a));
    const value = least.m;
    return {
      value,
      at: least.at,
      limit: LEAST_SOIL_BELOW_FLOOR_M,
      severity: gradeMin(value, 0, LEAST_SOIL_BELOW_FLOOR_M),
      do:
        value < LEAST_SOIL_BELOW_FLOOR_M
          ? 'Dig shallower and wider, or dig a test pit: the soil may be deeper here than you noted.'
          : 'Nothing.',
    };
  },
};

const heldVolume: Rule<SwaleFacts> = {
  id: 'swale.held-volume',
  title: 'Share of the storm it holds',
  why: 'What it does not hold leaves over the sill: that is safe if the sill and the ground below are made for it.',
  unit: '',
  kind: 'slope',
  sense: 'min',
  source: COMMON_PRACTICE,
  needs: NEEDS_STORM,
  find: ({ store, storm }) => {
    if (!store || !storm || storm.inM3 <= 0) return null;
    const value = Math.min(1, store.heldM3 / storm.inM3);
    return {
      value,
      limit: 1,
      severity: value < 1 ? 'weigh' : 'fine',
      do:
        value < 1
          ? say`Hold ${amount(storm.inM3 - store.heldM3, 'volume')} more by length or width, add a swale above, or accept the overflow.`
          : 'Nothing.',
    };
  },
};

const lowBank: Rule<SwaleFacts> = {
  id: 'swale.low-bank',
  isOfLevels: true,
  title: 'Low place along the bank',
  why: 'Water takes the lowest way out. A slump below the sill is the real spillway, on loose fill, where you did not choose it.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: { key: 'common-practice', locator: 'exactly one way out, where you chose it' },
  find: ({ swale, store }) => {
    const [low] = lowPlacesOf(swale);
    if (!low || !store) return null;
    const sill = store.sillM ?? swale.levels.bankCrestM;
    const value = low.levelM - sill;
    const lift = swale.levels.bankCrestM - low.levelM;
    return {
      value,
      limit: 0.1,
      severity: value <= 0 ? 'mend' : gradeMin(value, 0.05, 0.1),
      at: pointAlong(swale.line, low.atM).point,
      title:
        value <= 0
          ? say`Bank ${millimetres(-value)} below the sill at ${metres(low.atM)}`
          : say`Bank only ${millimetres(value)} above the sill at ${metres(low.atM)}`,
      do: say`Raise ${metres(low.lengthM)} of bank by ${millimetres(lift)}, in rolled layers.`,
      ...cureBy(value < 0.1, {
        work: swale.id,
        set: { [`lowPlaces.${swale.lowPlaces?.indexOf(low)}.levelM`]: swale.levels.bankCrestM },
        says: say`Raise ${metres(low.lengthM)} of bank by ${millimetres(lift)}`,
      }),
    };
  },
};

const wayOut: Rule<SwaleFacts> = {
  id: 'swale.way-out',
  isOfLevels: true,
  title: 'A way out, where you chose it',
  why: 'Every store fills one day. Without a sill, water chooses where it breaks the bank.',
  unit: '',
  kind: 'number',
  sense: 'min',
  source: { key: 'common-practice', locator: 'the way out is designed first and built first' },
  find: ({ store, swale }) => {
    if (!store) return null;
    const sills = store.outlets.filter((o) => (o.kind === 'sill' || o.kind === 'rated') && o.levelM < swale.levels.bankCrestM).length;
    return {
      value: sills,
      limit: 1,
      severity: sills < 1 ? 'mend' : 'fine',
      do: sills < 1 ? 'Add a level sill below the bank crest, on natural ground.' : 'Nothing.',
    };
  },
};

const onContour: Rule<SwaleFacts> = {
  id: 'swale.on-contour',
  title: 'Ground along the lip out of level',
  why: 'Where the line leaves the contour the ditch is cut deep at one end and the bank stands tall at the other.',
  unit: 'm',
  kind: 'difference',
  sense: 'max',
  source: { key: 'common-practice', locator: 'contours pegged to within 20 to 30 mm; 0.3 m changes the section' },
  find: ({ ground, swale }) => {
    let value = 0;
    let worst = 0;
    ground.groundM.forEach((level, i) => {
      const off = Math.abs(level - ground.meanGroundM);
      if (off > value) [value, worst] = [off, i];
    });
    return {
      value,
      limit: 0.1,
      severity: gradeMax(value, 0.1, 0.3),
      at: pointAlong(swale.line, ground.atM[worst]).point,
      do: value > 0.1 ? 'Settle the line on the contour again, or split it into two swales at different levels.' : 'Nothing.',
    };
  },
};

const endsClosed: Rule<SwaleFacts> = {
  id: 'swale.ends',
  title: 'Ends turned uphill to close',
  why: 'The bank must run back uphill at both ends until the ground is as high as its crest, or water walks round it.',
  unit: 'm',
  kind: 'length',
  sense: 'max',
  source: { key: 'common-practice', locator: 'ends are turned uphill to close them' },
  find: ({ swale, ground }) => {
    const last = ground.groundM.length - 1;
    const run = (i: number): number => Math.max(0, swale.levels.bankCrestM - ground.groundM[i]) / Math.max(0.005, ground.crossSlope[i]);
    const value = Math.max(run(0), run(last));
    const atStart = run(0) >= run(last);
    const long = value > 15 ? ': long, because the ground there is flat or the bank tall; lower the crest or move the end' : '';
    return {
      value,
      limit: 15,
      severity: gradeMax(value, 15, 40),
      at: atStart ? swale.line[0] : swale.line[swale.line.length - 1],
      do:
        value === 0
          ? 'Nothing: the ground closes both.'
          : say`Turn the bank uphill for ${metres(run(0))} at the start and ${metres(run(last))} at the end${long}.`,
    };
  },
};

const catchmentEdge: Rule<SwaleFacts> = {
  id: 'swale.catchment-edge',
  title: 'Catchment reaches the edge of the terrain',
  why: 'More water may come from ground the map does not show; every size here is then too small.',
  unit: '',
  kind: 'number',
  sense: 'max',
  source: COMMON_PRACTICE,
  find: ({ catchment }) => {
    if (!catchment) return null;
    const value = catchment.touchesTerrainEdge ? 1 : 0;
    return {
      value,
      limit: 0,
      severity: value > 0 ? 'weigh' : 'fine',
      do: value > 0 ? 'Bring in terrain up to the ridge, or walk the edge and see whether water crosses it.' : 'Nothing.',
    };
  },
};

/** A bank of what the cut gives, where there is one above the water it is to hold. */
function lowerCrest(isShort: boolean, swale: Swale, ground: LipGround): { readonly cure?: Cure } {
  const crestM = isShort ? balancedCrest(swale, ground) : null;
  if (crestM === null || crestM <= swale.levels.floorM) return {};
  return cureBy(crestM < swale.levels.bankCrestM, {
    work: swale.id,
    set: { 'levels.bankCrestM': downToMm(crestM) },
    says: say`Lower the crest by ${millimetres(swale.levels.bankCrestM - crestM)}`,
  });
}

const earthBalance: Rule<SwaleFacts> = {
  id: 'swale.earth-balance',
  title: 'Earth for the bank from its own cut',
  why: 'A bank that takes more than the ditch gives has to be brought from somewhere; much more cut has to go somewhere.',
  unit: '',
  kind: 'slope',
  sense: 'min',
  source: { key: 'common-practice', locator: 'compacted bank 0.85 to 0.90 of the cut' },
  find: ({ swale, ground }) => {
    const { cutM3, bankM3 } = earthOf(swale, ground);
    if (cutM3 === null || bankM3 === null || bankM3 <= 0) return null;
    const value = (cutM3 * SHRINK) / bankM3;
    return {
      value,
      limit: 1,
      severity: value < 0.95 ? 'weigh' : 'fine',
      do:
        value < 0.95
          ? say`About ${amount(bankM3 / SHRINK - cutM3, 'volume')} more is needed: widen the floor, or lower the crest.`
          : 'Nothing: spread what is over on the bank.',
      ...lowerCrest(value < 0.95, swale, ground),
    };
  },
};

export const SWALE_RULES: readonly Rule<SwaleFacts>[] = [
  wayOut,
  lowBank,
  bankFreeboard,
  farEnd,
  heldVolume,
  drainDown,
  groundSlope,
  cutDaylight,
  soilDepth,
  onContour,
  endsClosed,
  earthBalance,
  ...JOIN_RULES,
  ...PLACE_RULES,
  catchmentEdge,
];
