// Time of concentration by every method, each with where it may be used.
import type { Drained } from '../../contract/index.ts';
import { Worksheet } from '../../formula/index.ts';
import { MANNING } from '../../hydraulics/index.ts';
import type { TimeMethod } from '../../project/index.ts';
import {
  AIRFIELD_TIME,
  BRANSBY_WILLIAMS,
  CONCENTRATION_FROM_LAG,
  KERBY,
  KIRPICH,
  MIN_CONCENTRATION_MIN,
  NRCS_LAG,
  SHALLOW_VELOCITY,
  SHEET_TIME,
  TRAVEL_TIME,
} from '../../runoff/index.ts';
import { CHANNEL_RADIUS_M, type FlowParts } from '../world/flow-parts.ts';

/** What the methods ask of a catchment. */
export interface TimeFacts {
  readonly catchment: Drained;
  readonly curveNumber: number;
  readonly runoffC: number;
  readonly kerbyN: number;
  /** Rain of a day passed one year in two, and whether it is carried on beyond the table; null where the table does not tell. */
  readonly dayRain: { readonly mm: number; readonly isCarried: boolean } | null;
  readonly parts: () => FlowParts;
}

interface Method {
  readonly title: string;
  readonly minutes: (facts: TimeFacts, sheet: Worksheet) => number | null;
  /** Why it should not be used here, beyond the ranges of its formulas. */
  readonly unfit: (facts: TimeFacts) => string | null;
}

const hectares = ({ catchment }: TimeFacts): number => catchment.areaM2 / 1e4;
const anywhere = (): null => null;
const long = ({ catchment }: TimeFacts): number => Math.max(1, catchment.longestPathM);

function byPath(facts: TimeFacts, sheet: Worksheet): number | null {
  if (facts.dayRain === null) return null;
  const { sheet: thin, shallow, channel } = facts.parts();
  let minutes = sheet.use(SHEET_TIME, { n: thin.coefficient, L: thin.lengthM, P2: facts.dayRain.mm, s: thin.slope });
  if (shallow.lengthM > 0) {
    const V = sheet.use(SHALLOW_VELOCITY, { k: shallow.coefficient, s: shallow.slope });
    minutes += sheet.use(TRAVEL_TIME, { L: shallow.lengthM, V });
  }
  if (channel.lengthM > 0) {
    const V = sheet.use(MANNING, { R: CHANNEL_RADIUS_M, S: channel.slope, n: channel.coefficient });
    minutes += sheet.use(TRAVEL_TIME, { L: channel.lengthM, V });
  }
  return minutes;
}

const TIME_METHOD_OF: Readonly<Record<TimeMethod, Method>> = {
  lag: {
    title: 'Watershed lag',
    minutes: (facts, sheet) => {
      const Y = Math.max(0.1, 100 * facts.catchment.meanSlope);
      const L = sheet.use(NRCS_LAG, { l: long(facts), CN: facts.curveNumber, Y });
      return sheet.use(CONCENTRATION_FROM_LAG, { L });
    },
    unfit: (facts) => (hectares(facts) > 800 ? 'made for catchments under 8 km²' : null),
  },
  path: {
    title: 'Along the flow path',
    minutes: byPath,
    unfit: ({ dayRain }) => {
      if (dayRain === null) return 'needs the day’s rain of 1 in 2 years, which the table does not hold';
      return dayRain.isCarried ? 'the day’s rain is carried on beyond your table' : null;
    },
  },
  kirpich: {
    title: 'Kirpich',
    minutes: (facts, sheet) => sheet.use(KIRPICH, { L: long(facts), S: facts.parts().slope }),
    unfit: (facts) => {
      if (hectares(facts) < 0.4 || hectares(facts) > 45) return 'made for 0.4 to 45 ha';
      return facts.parts().channel.lengthM > 0 ? null : 'made for ground with well-defined channels: here none begins';
    },
  },
  kerby: {
    title: 'Kerby',
    minutes: (facts, sheet) => sheet.use(KERBY, { L: long(facts), n: facts.kerbyN, S: facts.parts().slope }),
    unfit: (facts) => (hectares(facts) > 4 ? 'made for under 4 ha of overland flow' : null),
  },
  airfield: {
    title: 'Airfield overland flow',
    minutes: (facts, sheet) => sheet.use(AIRFIELD_TIME, { C: Math.min(1, facts.runoffC), L: long(facts), S: 100 * facts.parts().slope }),
    unfit: anywhere,
  },
  'bransby-williams': {
    title: 'Bransby-Williams',
    minutes: (facts, sheet) =>
      sheet.use(BRANSBY_WILLIAMS, { L: long(facts) / 1000, A: facts.catchment.areaM2 / 1e6, S: facts.parts().slope }),
    unfit: anywhere,
  },
};

export interface TimeTold {
  readonly method: TimeMethod;
  readonly title: string;
  /** Six minutes at least; null where it cannot be worked out. */
  readonly tcMin: number | null;
  /** Why it should not be used here; empty where it may. */
  readonly unfit: readonly string[];
}

/** One method on one catchment, with its working recorded. */
export function timeBy(method: TimeMethod, facts: TimeFacts, sheet = new Worksheet(facts.catchment.of)): TimeTold {
  const { title, minutes, unfit } = TIME_METHOD_OF[method];
  const before = sheet.lines.length;
  const own = minutes(facts, sheet);
  const reason = unfit(facts);
  return {
    method,
    title,
    tcMin: own === null ? null : Math.max(MIN_CONCENTRATION_MIN, own),
    unfit: [...(reason === null ? [] : [reason]), ...sheet.lines.slice(before).flatMap((line) => line.cautions)],
  };
}
