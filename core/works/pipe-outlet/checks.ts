import { NEEDS_STORM, type Rule } from '../../contract/index.ts';
import { APRON_STONE, apronOf } from '../../hydraulics/index.ts';
import { amount, say } from '../../units/index.ts';
import { cureBy, downToMm, gradeMin } from '../rules.ts';
import { type WayOutFacts, peakThrough } from '../ways-out.ts';
import type { PipeOutlet } from './model.ts';

export interface PipeFacts extends WayOutFacts {
  readonly pipe: PipeOutlet;
}

const clogs: Rule<PipeFacts> = {
  id: 'pipe-outlet.clogs',
  title: 'Pipe wide enough not to clog',
  why: 'Leaves, a turtle, one fence post: small pipes block in the storm they were laid for.',
  unit: 'm',
  kind: 'length',
  sense: 'min',
  source: { key: 'cps-378', locator: 'conduits at least 100 mm, 150 mm preferred; 450 mm for cleaning', fromMemory: true },
  find: ({ pipe }) => {
    const value = pipe.dimensions.diameterM;
    return {
      value,
      limit: 0.15,
      severity: gradeMin(value, 0.1, 0.15),
      do:
        value < 0.15
          ? 'Lay 150 mm or more, with a rack ten times its area, and an open way out above it.'
          : 'Keep a rack on it and an open way out above it.',
    };
  },
};

const blocked: Rule<PipeFacts> = {
  id: 'pipe-outlet.blocked',
  title: 'Pipe found blocked',
  why: 'What is blocked now is more blocked in the storm.',
  unit: '%',
  kind: 'percent',
  sense: 'max',
  source: { key: 'common-practice', locator: 'pipe outlets clog' },
  find: ({ pipe }) => {
    const value = pipe.blockedPercent;
    return {
      value,
      limit: 0,
      severity: value >= 30 ? 'mend' : value > 0 ? 'weigh' : 'fine',
      do: value > 0 ? 'Clear it; find where the debris comes from; do not count on it.' : 'Nothing.',
    };
  },
};

const falls: Rule<PipeFacts> = {
  id: 'pipe-outlet.fall',
  title: 'Fall from inlet to outlet',
  why: 'A pipe without fall silts up; one that rises never empties.',
  unit: 'm/m',
  kind: 'slope',
  sense: 'min',
  source: { key: 'common-practice', locator: '1 % for small drains; more clears silt' },
  find: ({ pipe }) => {
    const value = (pipe.levels.sillM - pipe.levels.outletM) / pipe.dimensions.lengthM;
    return {
      value,
      limit: 0.01,
      severity: value <= 0 ? 'mend' : value < 0.01 ? 'weigh' : 'fine',
      do: value < 0.01 ? 'Lower its outlet, or carry it further.' : 'Nothing.',
      ...cureBy(value < 0.01, {
        work: pipe.id,
        set: { 'levels.outletM': downToMm(pipe.levels.sillM - 0.01 * pipe.dimensions.lengthM) },
        says: say`Lower its outlet by ${amount((0.01 - value) * pipe.dimensions.lengthM, 'difference')}`,
      }),
    };
  },
};

const apron: Rule<PipeFacts> = {
  id: 'pipe-outlet.apron',
  title: 'Velocity at the end of the pipe',
  why: 'The jet digs a hole that works back under the wall. Replace it by a level sill where you can.',
  unit: 'm/s',
  kind: 'velocity',
  sense: 'max',
  source: { key: 'hec-14', locator: 'chapter 10, riprap aprons', fromMemory: true },
  needs: NEEDS_STORM,
  find: (facts) => {
    const peak = peakThrough(facts);
    if (peak === null) return null;
    const D = facts.pipe.dimensions.diameterM;
    const value = peak / ((Math.PI / 4) * D * D);
    const stone = APRON_STONE.evaluate({ Q: peak, D, TW: 0 });
    const size = apronOf({ stoneM: stone, diameterM: D });
    return {
      value,
      limit: 1.5,
      at: facts.outlet.dischargeAt,
      severity: value <= 1.5 ? 'fine' : size.isBeyond ? 'mend' : 'weigh',
      do:
        value <= 1.5
          ? 'Nothing: keep turf round its end.'
          : size.isBeyond
            ? 'No usual stone stands this: build a stilling basin, or make a sill carry the flow.'
            : say`Lay stone of ${amount(size.stoneM, 'difference')}, ${amount(size.depthM, 'difference')} thick, ${amount(size.lengthM, 'length')} long, ${amount(size.endWidthM, 'length')} wide at its end.`,
    };
  },
};

const through: Rule<PipeFacts> = {
  id: 'pipe-outlet.seepage-path',
  title: 'Water along the outside of the pipe',
  why: 'Earth never packs tight under a pipe. Water follows it and carries the wall away from inside.',
  unit: '',
  kind: 'number',
  sense: 'max',
  source: { key: 'cps-378', locator: 'seepage control: filter diaphragm; collars are old practice', fromMemory: true },
  find: ({ pipe }) => {
    const isFiltered = pipe.seal === 'filter';
    return {
      value: isFiltered ? 0 : 1,
      limit: 0,
      severity: isFiltered ? 'fine' : pipe.seal === 'none' ? 'mend' : 'weigh',
      do: isFiltered
        ? 'Nothing: look for wet ground round its outlet each season.'
        : 'Hand-tamp in thin layers under and round it, and put a sand filter round its outer third; better, keep pipes out of the wall.',
    };
  },
};

export const PIPE_RULES: readonly Rule<PipeFacts>[] = [clogs, blocked, falls, apron, through];
