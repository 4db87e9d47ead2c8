// Works laid over the sides of the valley: benches, slots, swales, a trench that soaks, and a roof with its cistern.
import type { Point } from '../geometry/index.ts';
import {
  type Ripping,
  type Roof,
  type Soakaway,
  type SwaleSet,
  type Tank,
  type Terraces,
  type PipedDrain,
  type Reach,
  type Regrade,
  type SeepDrain,
  type Sump,
  type SupplyLine,
  newDrain,
  newReach,
  newRegrade,
  newSeepDrain,
  newSump,
  newSupplyLine,
} from '../works/index.ts';

/** A trench of stone along the contour 114 of the western side. */
export const SOAK: Soakaway = {
  id: 'soak',
  kind: 'soakaway',
  name: 'Soak',
  status: 'planned',
  form: 'trench',
  fill: 'stone',
  line: [100, 110, 120].map((y): Point => [101 - (14 - 0.05 * y) / 0.2, y]),
  soaksBy: 'base',
  trap: 'sump',
  wrap: 'cloth',
  cover: 'buried',
  asked: 'not-asked',
  dimensions: { depthM: 0.8, widthM: 0.6, voids: 0.36, surroundM: 0.2, wayWidthM: 2, bermM: 0.1, safety: 2 },
  testedMmPerHour: 50,
  labour: { m3PerDay: 2 },
};

/** Two benches on the western side, along its contours 113.6 and 113. */
export const BENCHES: Terraces = {
  id: 'benches',
  kind: 'terraces',
  name: 'Benches',
  status: 'planned',
  lines: [13.6, 13].map((over) => [140, 155, 170].map((y): Point => [101 - (over - 0.05 * y) / 0.2, y])),
  riser: 'stone',
  lie: 'level',
  ground: 'firm',
  earth: 'loam',
  topsoil: 'kept',
  riserGrows: 'grass',
  grows: 'crops',
  workedBy: 'hand',
  dimensions: {
    benchM: 3,
    riserHV: 0.15,
    fall: 0.03,
    lipM: 0.2,
    holdM: 0.05,
    inletM: 1,
    inlets: 1,
    stoneM: 0.15,
    baseM: 0.6,
    topM: 0.35,
    foundationM: 0.2,
    drainM: 0.3,
    topsoilM: 0.15,
  },
  labour: { earthM3PerDay: 3, wallM3PerDay: 1, carryM: 40 },
};

/** Slots beside a contour across the floor of the valley, at 105.5. */
export const RIPS: Ripping = {
  id: 'rips',
  kind: 'ripping',
  name: 'Rips',
  status: 'planned',
  line: [[75, 84], [101, 110], [127, 84]], // prettier-ignore
  soil: 'dry',
  texture: 'medium',
  services: 'asked',
  dimensions: { spacingM: 2, depthM: 0.2, pointM: 0.05, upM: 4, downM: 4, season: 1 },
  panM: 0.18,
  restDays: 60,
  machine: { shanks: 3, speedKmh: 4, litresAnHour: 9, powerKw: 60 },
};

/** Two swales on the western side, along its contours 117.5 and 116.7. */
export const SET: SwaleSet = {
  id: 'set',
  kind: 'swale-set',
  name: 'Set',
  status: 'planned',
  lines: [17.5, 16.7].map((over) => [70, 90, 110].map((y): Point => [101 - (over - 0.05 * y) / 0.2, y])),
  by: 'interval',
  spills: 'in-turn',
  fill: 'woodchip',
  held: 'pinned',
  bank: 'seeded',
  grazed: 'yes',
  fence: 'both-sides',
  dimensions: {
    depthM: 0.3,
    bankM: 0.4,
    spillM: 0.1,
    spillLengthM: 4,
    floorWidthM: 0.6,
    sideSlopeHV: 1.5,
    bankTopM: 0.4,
    bankSlopeHV: 2,
    fillM: 0.2,
    fillVoids: 0.5,
  },
  planting: { treesApartM: 4, bushesApartM: 1.5, nursePercent: 60, nurseYears: 7, treeHeightM: 8 },
  labour: { m3PerDay: 3, plantsPerDay: 100 },
};

/** A shed roof high on the eastern side, and a cistern lower than its eaves. */
export const ROOF: Roof = {
  id: 'roof',
  kind: 'roof',
  name: 'Shed roof',
  status: 'existing',
  ring: [[160, 20], [172, 20], [172, 28], [160, 28]], // prettier-ignore
  covering: 'metal',
  gutter: 'half-round',
  risk: 'eaves',
  screen: 'mesh',
  dimensions: { eavesM: 3, riseM: 0.8, gutterM: 0.15, gutterLengthM: 24, downpipes: 2, downpipeM: 0.1, firstFlushMm: 1 },
  fallPercent: 0.3,
  labour: { mPerDay: 15 },
};
export const TANK: Tank = {
  id: 'tank',
  kind: 'tank',
  name: 'Cistern',
  status: 'planned',
  at: [157, 22],
  form: 'upright',
  lid: 'closed',
  wall: 'dark',
  screen: 'mesh',
  stands: 'slab',
  fitting: 'through',
  draws: 'tap',
  use: 'garden',
  treated: 'none',
  made: 'bought',
  mortar: { top: 'dome', wallM: 0.05, baseM: 0.1, barM: 0.005, barApartM: 0.06, meshLayers: 2, sand: 2.5, coats: 3, cureDays: 14 },
  crates: { underlay: 'cloth', pit: 'dug', over: 'lawn', trap: 'sump', voids: 0.95, coverM: 0.6, sandM: 0.1, lapM: 0.15, pavedM2: 0 },
  frost: 'none',
  count: 2,
  dimensions: {
    diameterM: 2,
    topM: 2,
    lengthM: 1,
    widthM: 1,
    heightM: 1.8,
    standM: 0.4,
    inletM: 1.7,
    overflowM: 1.66,
    overflowPipeM: 0.11,
    tapM: 0.08,
  },
};

/** From the cistern by its fall to a tap lower on the slope. */
export const TO_TAP: SupplyLine = {
  ...newSupplyLine('to-tap', 'Line to the tap', {
    line: [[157, 24], [150, 40], [140, 60]],
    from: 'tank',
    levels: { drawM: 112.8, endM: 111.4 },
    drive: 'fall',
    serves: 'tap',
    flowM3s: 0.0002,
    endHeadM: 0.5,
    diameterM: 0.026,
  }),
  services: 'asked',
}; // prettier-ignore

/** Two basins on the eastern slope, and a pipe from them into the open lower down. */
export const YARD_DRAIN: PipedDrain = {
  ...newDrain('yard-drain', 'Yard drain', {
    line: [[150, 150], [148, 135], [146, 120]],
    basins: [
      { atM: 0, invertM: 116.85, pipeM: 0.1, grateLongM: 0.3, grateWideM: 0.3, sumpM: 0.15 },
      { atM: 15, invertM: 115.7, pipeM: 0.15, grateLongM: 0.4, grateWideM: 0.4, sumpM: 0.15 },
    ],
    levels: { outletM: 115 },
  }),
  thresholdM: 118,
}; // prettier-ignore

/** Across the eastern slope, over the yard drain. */
export const WET_SLOPE: SeepDrain = {
  ...newSeepDrain('wet-slope', 'Wet slope', {
    line: [[165, 150], [163, 130]],
    purpose: 'slope',
    levels: { upperM: 119.5, outletM: 118.1 },
  }),
  soil: 'silt',
}; // prettier-ignore

/** The bed of the valley from below its road to the pond's water, taped and levelled. */
export const CREEK: Reach = {
  ...newReach('creek', 'Valley creek', {
    line: [[101, 130], [101, 100]],
    runs: 'creek',
    sections: [
      { atM: 0, bedM: 106.45, bedWidthM: 1, leftOutM: 1.2, leftHighM: 0.8, rightOutM: 1.6, rightHighM: 0.7 },
      { atM: 14, bedM: 105.7, bedWidthM: 1.2, leftOutM: 1.2, leftHighM: 0.8, rightOutM: 1.5, rightHighM: 0.75 },
      { atM: 30, bedM: 104.95, bedWidthM: 1.3, leftOutM: 1.3, leftHighM: 0.9, rightOutM: 1.5, rightHighM: 0.8 },
    ],
  }),
  known: 'levelled',
  rough: 'stony',
  bedIs: 'coarse-gravel',
}; // prettier-ignore

/** A patch of the western side high up, let fall a tenth instead of a fifth. */
export const PATCH: Regrade = {
  ...newRegrade('patch', 'Patch', {
    shape: 'plane',
    ring: [[40, 176], [52, 176], [52, 188], [40, 188]],
    levels: { levelM: 120.6, startM: 120, endM: 120 },
    fall: 0.1,
    towardsDeg: 90,
  }),
  services: 'asked',
}; // prettier-ignore

/** A pit low on the eastern side, its pump to the valley's floor further down. */
export const PIT: Sump = {
  ...newSump('pit', 'Pit', {
    line: [[131, 40], [118, 30]],
    levels: { floorM: 106.8, stopM: 107, startM: 107.4, rimM: 107.9, deliveryM: 108.2 },
    lengthM: 18,
  }),
  alarm: 'yes',
  backup: 'battery',
  batteryWh: 600,
}; // prettier-ignore
