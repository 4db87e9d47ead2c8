// What the page does with water through the year: asks the worker about days and sizes, and changes who needs it.
import type { AnswerOf, ArgsOf, FAMILIES } from '#core/derive';
import { type Project, type Supply, optionOf } from '#core/project';
import type { Climate, Need } from '#core/season';
import { groundKey, idOf, useAnswer } from './ask.ts';
import { dispatch, useApp } from './store.ts';

type SeasonQuestion = keyof (typeof FAMILIES)['season'];

/** These answers hang on the works, the ground, the record and what is known of the year. */
function keyOf(project: Project): string {
  const { id, terrain, features, land, site, gauge, climate, supply } = project;
  const parts = [terrain, features, land, site, gauge, climate, supply, optionOf(project)];
  return [id, ...parts.map((part) => idOf(part)), groundKey(project)].join('.');
}

/** Whether there is rain to go by day by day. */
export const hasDays = ({ gauge, climate }: Pick<Project, 'gauge' | 'climate'>): boolean =>
  (gauge !== undefined && gauge !== null) || (climate?.rainMm !== undefined && climate.wetDays !== undefined);

/** An answer that follows the document; undefined while it is worked out, null where there is none. `args` null asks nothing. */
export function useSeason<K extends SeasonQuestion>(name: K, args: ArgsOf<K> | null): AnswerOf<K> | null | undefined {
  const project = useApp((s) => s.history?.project);
  const canAsk = project !== undefined && hasDays(project) && (name === 'quick' || optionOf(project).works.length > 0);
  return useAnswer(args && { name, args }, { key: canAsk ? [keyOf(project)] : null, keeps: true, tells: false });
}

const NOTHING: Supply = { needs: [] };
const supplyNow = (): Supply => useApp.getState().history?.project.supply ?? NOTHING;

export const setSupply = (change: Partial<Supply>): boolean =>
  dispatch({ type: 'supply.set', payload: { supply: { ...supplyNow(), ...change } } });

/** Changes part of what is known of the year; undefined takes a member away. */
export function setClimate(change: { readonly [K in keyof Climate]?: Climate[K] | undefined }): boolean {
  const climate = useApp.getState().history?.project.climate;
  const kept = Object.fromEntries(Object.entries({ ...climate, ...change }).filter(([, v]) => v !== undefined));
  return dispatch({ type: 'climate.set', payload: { climate: kept } });
}

export function changeNeed(id: string, change: Partial<Need>): boolean {
  return setSupply({ needs: supplyNow().needs.map((n) => (n.id === id ? { ...n, ...change } : n)) });
}
/** A need put in the place of the one of its id, without members it does not say any more. */
export const replaceNeed = (need: Need): boolean => setSupply({ needs: supplyNow().needs.map((n) => (n.id === need.id ? need : n)) });
export const removeNeed = (id: string): boolean => setSupply({ needs: supplyNow().needs.filter((n) => n.id !== id) });
export const addNeed = (need: Need): boolean => setSupply({ needs: [...supplyNow().needs, need] });
