import { describe, expect } from '@jest/globals';
import type { Bench } from './driver.ts';
import { goingOn } from './bench.ts';
import { serious } from './axe.ts';

/** The worst of all storms: found, shown, looked into, and changed. */
export function set(open: () => Bench): void {
  const on = goingOn(open);
  describe('the storm that decides', () => {
    on('is named for each store, follows the return period, and one storm alone can be looked at', '/p/sallow-rise/storm', async (v) => {
      await v.verdict(/Orchard swale is passed by \d+ mm \(24 h of rain, all full when it begins\)/);
      await v.page.locator('header ::-p-text(worst of)').click();
      const decides = await v.reads('[role="dialog"]', /Which storm decides[\s\S]*Valley track/);
      expect(decides).toMatch(/Gate pond\s+24 h\s+full, pipes blocked\s+\d+ mm/);
      await v.page.keyboard.press('Escape');
      expect(await serious(v)).toEqual([]);
      // Another storm changes what is shown, and nothing of what is judged.
      await v.choose('Storm shown', '30 min');
      await v.reads('aside', /Charts and tables show the storm of 30 min\. Checks and verdicts stay by the worst of all/);
      // Half full of what the soil has no room for, half an hour passes its low bank.
      await v.reads('aside', /Orchard swale\s+119\.\d\d m\s+OVER \d+ mm\s+30 min/);
      await v.verdict(/Orchard swale is passed by \d+ mm \(24 h of rain/);
      await v.choose('Storm shown', 'the one that decides');
      await v.stage('Rain');
      await v.choose('Return period', '1 in 2 years');
      await v.reads('header', /1 in\s+2\s+years, worst of\s+5 min to 24 h/);
      await v.verdict(/1 in 2 year rain, the worst of storms of 5 min to 24 h/);
      // Without the day, twelve hours are the longest.
      await v.page.locator('aside label ::-p-text(24 h)').click();
      await v.reads('header', /worst of\s+5 min to 12 h/);
      await v.press('All that matter again');
      await v.reads('header', /worst of\s+5 min to 24 h/);
    });

    on('of a pond is told as it may be found, and where its water stands is the user’s to say', '/p/sallow-rise/works', async (v) => {
      await v.choose('Work', 'Gate pond');
      const found = await v.reads('aside', /Full, pipes blocked\s+108\.\d\d m\s+\d+ mm\s+24 h/);
      const left = (name: string, text: string): number => Number(new RegExp(`${name}\\s+[\\d.]+ m\\s+(\\d+) mm`).exec(text)?.[1]);
      expect(left('As usually found', found)).toBeGreaterThan(left('Full, pipes blocked', found));
      expect(await v.valueOf('Water when a storm begins')).toBe('108.10');
      await v.type('Water when a storm begins', '106.8');
      const lower = await v.reads('aside', /Set by you\./);
      expect(left('As usually found', lower)).toBeGreaterThanOrEqual(left('As usually found', found));
      expect((await v.kept()).options[0].starts).toEqual({ pond: 106.8 });
      await v.press('As it keeps by itself');
      await v.reads('aside', /It is found full: it keeps its water/);
      expect((await v.kept()).options[0].starts ?? {}).toEqual({});
      // Who lies below it: by the map a track, until someone says that there is a house.
      await v.reads('aside', /By the map: Track, \d+ m down the way of its flood/);
      await v.unfold('Fine');
      await v.reads('aside', /Crest in the storm of 1 in 100 years/);
      await v.choose('If it goes, its water reaches', 'People sleep there');
      await v.reads(
        'aside',
        /Return period its ways out are judged by\s+20 yr against at least 100 yr\s+Design for 1 in 100 years at least/,
      );
      await v.reads('aside', /the storm of 1 in 1000 years, which the rain table does not hold/);
      expect((await v.kept()).options[0].hazards).toEqual({ pond: 'homes' });
      await v.choose('If it goes, its water reaches', 'As the map shows: a track or a shed');
      await v.reads('aside', /Nobody has said who lies below: taken as a track or a shed below/);
    });

    on('what can be mended is priced first, done in one step, and one undo takes it back', '/p/sallow-rise/works', async (v) => {
      await v.choose('Work', 'Orchard swale');
      await v.verdict(/Orchard swale/);
      const lengthOf = async (): Promise<unknown> => (await v.kept()).options[0].works.find((w) => w.id === 'orchard-sill');
      await v.press('Widen it to 29\u00a0m');
      await v.reads('aside', /mm more freeboard, 1 fewer to mend/);
      expect(await lengthOf()).toMatchObject({ dimensions: { lengthM: 16 } });
      await v.press('Do it');
      await v.until(lengthOf, (w) => (w as { dimensions: { lengthM: number } }).dimensions.lengthM > 27);
      await v.press('Undo');
      await v.until(lengthOf, (w) => (w as { dimensions: { lengthM: number } }).dimensions.lengthM === 16);
      await v.press('Widen it to 29\u00a0m');
      await v.press('Leave it');
      expect(await lengthOf()).toMatchObject({ dimensions: { lengthM: 16 } });
    });
  });
}
