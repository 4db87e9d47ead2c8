// What is told of a work that could not be computed: why, and what to do. It never passes as fine.
import type { Check, Rule } from '../contract/index.ts';
import { type Said, amount, say } from '../units/index.ts';
import { runRules } from '../works/rules.ts';

/** Why a work is not computed: its ground is not known, what it hangs on is not computed, or a fault of ours. */
export interface Uncomputed {
  readonly work: string;
  readonly why: 'ground' | 'needs' | 'fault';
  readonly said: Said;
  /** How far off the terrain, where it is [m]. */
  readonly offM: number | null;
}

const offTerrain: Rule<Uncomputed> = {
  id: 'work.off-terrain',
  title: 'On known ground',
  why: 'What stands on ground nobody has surveyed has no volume, no freeboard and no verdict: nothing is computed from it.',
  unit: 'm',
  kind: 'distance',
  sense: 'max',
  source: { key: 'geometry' },
  find: ({ why, said, offM }) =>
    why === 'ground'
      ? {
          severity: 'unknown',
          value: offM,
          limit: 0,
          title: said,
          do: 'Bring in terrain that reaches under all of it, or move it onto the ground you have. Nothing is computed from it until then.',
        }
      : null,
};

const needs: Rule<Uncomputed> = {
  id: 'work.needs-another',
  title: 'What it hangs on',
  why: 'A way out is judged by what it lets out: without that nothing can be said of it.',
  unit: '',
  kind: 'count',
  sense: 'max',
  source: { key: 'geometry' },
  find: ({ why, said }) =>
    why === 'needs'
      ? {
          severity: 'unknown',
          value: null,
          limit: null,
          title: said,
          do: 'See to that one first: nothing is computed from this until then.',
        }
      : null,
};

const fault: Rule<Uncomputed> = {
  id: 'work.not-computed',
  title: 'Computed at all',
  why: 'A work that could not be computed is left out of the water that is followed: the others are computed without it.',
  unit: '',
  kind: 'count',
  sense: 'max',
  source: { key: 'geometry' },
  find: ({ why, said }) =>
    why === 'fault'
      ? {
          severity: 'mend',
          value: null,
          limit: null,
          title: said,
          do: 'Check its line and its numbers, or take it out and draw it again. The rest is computed.',
        }
      : null,
};

const bridged: Rule<{ readonly bridgedM: number }> = {
  id: 'work.gap-in-ground',
  title: 'Ground without a level under it',
  why: 'A gap of a cell or two was bridged from the ground beside it; a bank or a sill there may be off by what the gap hides.',
  unit: 'm',
  kind: 'length',
  sense: 'max',
  source: { key: 'common-practice', locator: 'gaps of up to two cells are bridged' },
  find: ({ bridgedM }) =>
    bridgedM > 0
      ? { severity: 'weigh', value: bridgedM, limit: 0, do: say`Level the ${amount(bridgedM, 'length')} on the ground before you peg it.` }
      : null,
};

const pinOff: Rule<{ readonly isOff: boolean }> = {
  id: 'pin.off-terrain',
  title: 'On known ground',
  why: 'What drains to a place off the terrain is not known.',
  unit: '',
  kind: 'count',
  sense: 'max',
  source: { key: 'geometry' },
  find: ({ isOff }) =>
    isOff
      ? { severity: 'unknown', value: null, limit: null, title: 'This pin lies off the terrain', do: 'Move it onto the terrain.' }
      : null,
};

export const UNCOMPUTED_RULES: readonly Rule<Uncomputed>[] = [offTerrain, needs, fault];

export const checkUncomputed = (one: Uncomputed): Check[] => runRules(UNCOMPUTED_RULES, one, one.work);
export const checkBridged = (work: string, bridgedM: number): Check[] => runRules([bridged], { bridgedM }, work);
export const checkPin = (pin: string, isOff: boolean): Check[] => runRules([pinOff], { isOff }, pin);
