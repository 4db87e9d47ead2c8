// A water line to begin with, and how one is drawn: without what works it out.
import type { DrawSpec } from '../../contract/index.ts';
import type { SupplyLine } from './model.ts';

export interface FirstLine extends Pick<SupplyLine, 'line' | 'levels' | 'drive' | 'serves' | 'flowM3s' | 'endHeadM'> {
  readonly from?: string;
  readonly to?: string;
  readonly diameterM: number;
}

export const newSupplyLine = (id: string, name: string, first: FirstLine): SupplyLine => ({
  id,
  kind: 'supply-line',
  name,
  status: 'planned',
  line: first.line,
  ...(first.from === undefined ? {} : { from: first.from }),
  ...(first.to === undefined ? {} : { to: first.to }),
  drive: first.drive,
  serves: first.serves,
  frost: 'not-said',
  mains: 'not-said',
  services: 'not-asked',
  levels: first.levels,
  flowM3s: first.flowM3s,
  endHeadM: first.endHeadM,
  pipe: { diameterM: first.diameterM, wall: 'plastic', standsM: 60, bends: 4, coverM: 0.45 },
  pump: {
    stands: 'in-water',
    power: 'mains',
    stops: 'by-hand',
    guarded: 'not-asked',
    overM: 0.5,
    efficiency: 0.4,
    hoursADay: 2,
    panelShare: 0.75,
  },
  drip: { filter: 'none', lines: 4, lengthM: 20, apartM: 0.4, diameterM: 0.0142, litresAnHour: 2 },
  labour: { mPerDay: 15 },
});

export const SUPPLY_LINE_SAMPLE = newSupplyLine('supply-line', 'Water line', {
  line: [[0, 0], [40, 0]],
  levels: { drawM: 102, endM: 99 },
  drive: 'fall',
  serves: 'tap',
  flowM3s: 0.0002,
  endHeadM: 1,
  diameterM: 0.026,
}); // prettier-ignore

const FROM_TO = 'Click from where water is kept to where it is wanted, along where the pipe will lie; double-click to end.';

export const SUPPLY_LINE_DRAWS: readonly DrawSpec[] = [
  { id: 'supply-line', name: 'Water line to a tap or a tank', what: 'line', least: 2, hint: FROM_TO, seesStores: true },
  { id: 'drip-line', name: 'Water line to drip lines', what: 'line', least: 2, hint: FROM_TO, seesStores: true },
];
