// The pipe on the real ground: how long it is, where it rises and dips, and the stores at its ends.
import type { Plot, Store } from '../../contract/index.ts';
import { evenlyAlong, lineLength } from '../../geometry/index.ts';
import { levelAt } from '../../terrain/index.ts';
import { UnknownGround } from '../unknown-ground.ts';
import type { SupplyLine } from './model.ts';

/** A store at one of its ends. */
export interface EndStore {
  readonly name: string;
  /** Its floor, where water stands under its lowest way out, and its crest [m]. */
  readonly floorM: number;
  readonly fullM: number;
  /** Whether it is a roof, with its area from above [m2]. */
  readonly roofM2: number | null;
}

export interface LineGround {
  readonly stepM: number;
  /** From above, and along the ground [m]. */
  readonly planM: number;
  readonly lengthM: number;
  readonly groundM: Float64Array;
  readonly from: EndStore | null;
  readonly to: EndStore | null;
}

/** Ground is looked at every so far along it [m]: a pipe lies over every rise. */
const STEP_M = 1;
const MOST_PLACES = 2000;

const endStore = (store: Store | undefined): EndStore | null =>
  store ? { name: store.name, floorM: store.floorM, fullM: store.wayOutM, roofM2: store.sheds ? (store.waterM2 ?? null) : null } : null;

/** @throws UnknownGround where part of it leaves what is known. */
export function measureSupplyLine(work: SupplyLine, { grid, placed }: Plot): LineGround {
  const planM = lineLength(work.line);
  const count = Math.max(4, Math.min(MOST_PLACES, Math.ceil(planM / STEP_M)));
  const stepM = planM / count;
  const groundM = Float64Array.from(evenlyAlong(work.line, count), (at) => levelAt(grid, at));
  if (groundM.some((v) => Number.isNaN(v))) throw new UnknownGround('No level is known under part of it');
  let lengthM = 0;
  for (let k = 1; k <= count; k++) lengthM += Math.hypot(stepM, groundM[k] - groundM[k - 1]);
  const storeOf = (id: string | undefined): EndStore | null => (id === undefined ? null : endStore(placed?.get(id)?.stores([])[0]));
  const to = storeOf(work.to);
  // A roof is filled by nothing.
  return { stepM, planM, lengthM, groundM, from: storeOf(work.from), to: to?.roofM2 === null ? to : null };
}
