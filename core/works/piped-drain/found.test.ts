// Why an old drain does not work: as the trade would say, against chances counted one drain at a time, and what must hold of any.
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { execute, startHistory } from '../../commands/index.ts';
import { derived, planeProject } from '../../testing/projects.ts';
import { words } from '../../testing/rules.ts';
import { YARD_DRAIN } from '../../testing/valley-fields.ts';
import { valleyProject } from '../../testing/valley.ts';
import { registry } from '../index.ts';
import { CAUSES, type Cause, LOOKS, byLikelihood, causesOf, diagnosisOf, isLookedAt, nextLook } from './found.ts';
import type { PipedDrain } from './model.ts';

type Found = PipedDrain['found'];
const first = (found: Found): Cause => byLikelihood(causesOf(found))[0][0];
const OLD: PipedDrain = { ...YARD_DRAIN, status: 'existing' };

describe('the likeliest cause', () => {
  it('is what somebody of the trade would say', () => {
    expect(first({ basin: 'stands', end: 'hidden', course: 'sudden' })).toBe('end');
    expect(first({ basin: 'stands', course: 'slower', inside: 'silt' })).toBe('silt');
    expect(first({ course: 'slower', inside: 'roots', rod: 'soft' })).toBe('roots');
    expect(first({ course: 'sudden', rod: 'hard', inside: 'clean' })).toBe('crushed');
    expect(first({ basin: 'stands', course: 'always', falls: 'flat' })).toBe('flat');
    expect(first({ course: 'always', pipe: 'holed', falls: 'fall' })).toBe('holed');
    expect(first({ basin: 'empty', end: 'runs', course: 'always' })).toBe('small');
    expect(first({ basin: 'empty', inside: 'leaves' })).toBe('grate');
  });
  it('each cause shows something whatever is looked at: chances of what may be seen come to one', () => {
    for (const { path, options, shows } of LOOKS)
      for (const cause of CAUSES) {
        expect([path, cause, shows[cause].length]).toEqual([path, cause, options.length]);
        expect(shows[cause].reduce((a, v) => a + v, 0)).toBeCloseTo(1, 9);
        for (const v of shows[cause]) expect(v).toBeGreaterThan(0);
      }
    expect(Object.values(causesOf({})).reduce((a, v) => a + v, 0)).toBeCloseTo(1, 12);
  });
  it('as counted: of a million drains that show the same, so many have each cause', () => {
    const found: Found = { basin: 'stands', course: 'slower', pipe: 'holed' };
    const usual = causesOf({});
    const counts = CAUSES.map((cause) =>
      [...Object.entries(found)].reduce((n, [path, seen]) => {
        const look = LOOKS.find((l) => l.path === path)!;
        return n * look.shows[cause][look.options.findIndex(([id]) => id === seen)];
      }, 1e6 * usual[cause]),
    );
    const all = counts.reduce((a, v) => a + v, 0);
    CAUSES.forEach((cause, k) => expect(causesOf(found)[cause]).toBeCloseTo(counts[k] / all, 12));
  });
  it('property: the order in which things are seen is nothing, a look never adds doubt on average, unknown words are passed over', () => {
    const any = fc.record(Object.fromEntries(LOOKS.map((l) => [l.path, fc.constantFrom('not-looked', ...l.options.map(([id]) => id))])));
    fc.assert(
      fc.property(any, (found) => {
        const back = Object.fromEntries(Object.entries(found).reverse());
        CAUSES.forEach((c) => expect(causesOf(back)[c]).toBeCloseTo(causesOf(found)[c], 12));
        const next = nextLook(found);
        if (next) expect(next.learns).toBeGreaterThanOrEqual(-1e-9);
        expect(next === null).toBe(LOOKS.every((l) => found[l.path] !== 'not-looked'));
      }),
      { seed: 3, numRuns: 120 },
    );
    expect(causesOf({ basin: 'a boat' })).toEqual(causesOf({}));
  });
});

describe('what to look at next', () => {
  it('is cheap before it is dear: asking and looking come before rods and levels', () => {
    expect(nextLook({})!.look.minutes).toBeLessThanOrEqual(10);
    // All that is quick was looked at, and it is still between an end and a crushed pipe: the rod tells them apart.
    const found: Found = { basin: 'stands', end: 'dry', course: 'sudden', inside: 'clean', pipe: 'whole' };
    expect(nextLook(found)!.look.path).toBe('rod');
    const [[a], [b]] = byLikelihood(causesOf(found));
    expect([a, b].sort()).toEqual(['crushed', 'end']);
  });
  it('is told with what it takes, and no more once the cause is as good as known', () => {
    const sheet = (found: Found): string => diagnosisOf({ found }).map((p) => `${p.title}: ${p.says.map(words).join(' ')}`).join('\n'); // prettier-ignore
    const unsure = sheet({ basin: 'stands' });
    expect(unsure).toMatch(/Look next: .*\d+ min, and it tells most apart/);
    expect(unsure).toMatch(/If it is the first: /);
    expect(unsure).toMatch(/a guess from the trade’s own accounts/);
    const sure = sheet({ basin: 'stands', course: 'always', falls: 'flat' });
    expect(sure).toMatch(/\d\d: it lies flat or sags/);
    expect(sure).toMatch(/What mends it: No cleaning helps/);
    expect(sure).not.toMatch(/Look next/);
  });
});

describe('an old drain in a project', () => {
  it('is told why once it is there, not while it is planned; what is seen is set by the forms’ command', () => {
    const old = derived(valleyProject([OLD]));
    expect(Object.keys(old.view.diagnoses)).toEqual([OLD.id]);
    expect(derived(valleyProject([YARD_DRAIN])).view.diagnoses).toEqual({});
    // Its grate is its way out: nobody is told to cut one tonight.
    expect(old.derived.checks.map((c) => c.id)).not.toContain('network.way-out-built');
    const history = startHistory(valleyProject([OLD]));
    const seen = execute(
      history,
      { type: 'works.change', payload: { changes: [{ id: OLD.id, set: { 'found.basin': 'stands' } }] } },
      { registry },
    );
    const [work] = seen.project.options[0].works as unknown as readonly PipedDrain[];
    expect([work.found, isLookedAt(work), isLookedAt(OLD)]).toEqual([{ basin: 'stands' }, true, false]);
    expect(registry.bind({ ...OLD, found: { basin: 'a boat' } } as PipedDrain).validate()).toMatchObject([{ field: 'found.basin' }]);
  });
  it('lets through what it let through when it was tried: water stands higher over its grates', () => {
    const high = (work: PipedDrain): number => derived(valleyProject([work])).derived.conduits[0].capacityM3s;
    const tried = { ...OLD, passesM3s: 0.002 };
    expect(high(tried)).toBeLessThan(0.6 * high(OLD));
    const check = derived(planeProject({}, [])).derived.checks;
    expect(check.some((c) => c.id === 'piped-drain.passes')).toBe(false);
    const found = derived(valleyProject([{ ...tried, found: { inside: 'roots', course: 'slower' } } as PipedDrain])).derived.checks.find((c) => c.id === 'piped-drain.passes'); // prettier-ignore
    expect(found).toMatchObject({ severity: 'mend' });
    expect(found?.do).toMatch(/It lets through 120\.0.L\/min of .* Likeliest, \d+ of a hundred: roots have grown into it/);
  });
});
