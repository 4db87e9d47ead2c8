import type { Feature, Hazard, WorkBase } from '../contract/index.ts';
import type { Point } from '../geometry/index.ts';
import type { FieldTest } from '../ground/index.ts';
import type { Climate } from '../season/index.ts';
import type { LevelBook } from '../survey/index.ts';
import type {
  Case,
  DesignStorm,
  Gauge,
  Ground,
  Land,
  Picture,
  Pin,
  Rain,
  RunoffSettings,
  Supply,
  Survey,
  Terrain,
  Zone,
} from '../project/index.ts';

interface Payloads {
  'project.rename': { readonly name: string };
  'site.set': { readonly crs?: string | null; readonly outline?: readonly Point[]; readonly zeroLevelM?: number };
  'terrain.set': { readonly terrain: Terrain | null; readonly crs: string | null };
  /** How near the levels of one of the surveys the ground is made of are known, two times in three [m]; null takes it back. */
  'survey.known': { readonly survey: number; readonly levelsM: number | null };
  'pin.add': { readonly pin: Pin };
  'pin.move': { readonly id: string; readonly at: Point };
  'pin.remove': { readonly id: string };
  'feature.add': { readonly feature: Feature };
  /** Many at once, as a map brings them; with the property line, and the system they lie in where the project has none. */
  'features.add': { readonly features: readonly Feature[]; readonly outline?: readonly Point[]; readonly crs?: string };
  /** Values by name; null takes one away. */
  'feature.change': { readonly id: string; readonly set: Readonly<Record<string, unknown>> };
  'feature.remove': { readonly id: string };
  'land.set': { readonly land: Land };
  'rain.set': { readonly rain: Rain };
  'rain.set-storm': { readonly storm: DesignStorm };
  'gauge.set': { readonly gauge: Gauge | null };
  /** What is known of the place through the year, and what is drawn from stores; null takes it away. */
  'climate.set': { readonly climate: Climate | null };
  'supply.set': { readonly supply: Supply | null };
  'ground.set': { readonly ground: Ground };
  'zone.add': { readonly zone: Zone };
  /** Values by name; null takes one away. */
  'zone.change': { readonly id: string; readonly set: Readonly<Record<string, unknown>> };
  'zone.remove': { readonly id: string };
  'test.add': { readonly test: FieldTest };
  'test.change': { readonly id: string; readonly set: Readonly<Record<string, unknown>> };
  'test.remove': { readonly id: string };
  'runoff.set': { readonly runoff: RunoffSettings };
  'case.add': { readonly case: Case };
  /** Values by name; null takes one away. */
  'case.change': { readonly id: string; readonly set: Readonly<Record<string, unknown>> };
  'case.remove': { readonly id: string };
  /** Where an outlet leads; null follows its water again. */
  'link.set': { readonly outlet: string; readonly to: string | null };
  /** Level a store is found at when a storm begins; null leaves it to what it keeps. */
  'start.set': { readonly store: string; readonly levelM: number | null };
  'hazard.set': { readonly store: string; readonly hazard: Hazard | null };
  /** Another set of works beside those there are: a copy of one of them, and the one looked at from then on. */
  'option.copy': { readonly from: string; readonly id: string; readonly name: string };
  'option.rename': { readonly id: string; readonly name: string };
  'option.choose': { readonly id: string };
  'option.remove': { readonly id: string };
  'survey.set': { readonly survey: Survey };
  /** A level book as it is now: a new one, or in place of the one of its id. */
  'book.set': { readonly book: LevelBook };
  'book.remove': { readonly id: string };
  /** With the system it lies in, where it says one. */
  'picture.add': { readonly picture: Picture; readonly crs?: string };
  /** Values by name; null takes one away. */
  'picture.change': { readonly id: string; readonly set: Readonly<Record<string, unknown>> };
  'picture.remove': { readonly id: string };
  'works.add': { readonly works: readonly WorkBase[] };
  /** Values by dotted path, for one or several works at once. */
  'works.change': { readonly changes: readonly { readonly id: string; readonly set: Readonly<Record<string, unknown>> }[] };
  'works.remove': { readonly ids: readonly string[] };
}

export type CommandType = keyof Payloads;
export type Command = { [T in CommandType]: { readonly type: T; readonly payload: Payloads[T] } }[CommandType];
export type PayloadOf<T extends CommandType> = Payloads[T];
