import { describe, expect } from '@jest/globals';
import type { WorkBase } from '#core/contract';
import type { Point } from '#core/geometry';
import type { PipedDrain, Regrade, Sump } from '#core/works';
import type { Bench } from './driver.ts';
import { goingOn } from './bench.ts';
import { serious } from './axe.ts';
import { busyAfterClicks } from './in-page.ts';

const here = (x: number, y: number): Point => [440000 + x, 4606000 + y];

/** Water away from buildings. */
export function drains(open: () => Bench): void {
  const on = goingOn(open);
  describe('a yard between buildings', () => {
    on('a tree of drains: basins to the street, branches from downspouts; falls set by the app, what cannot be refused, and back', '/p/quill-lane/works', async (v) => {
      await v.verdict(/./);
      const works = async (): Promise<readonly WorkBase[]> => (await v.kept()).options[0].works;
      const named = async (name: string): Promise<PipedDrain> => (await works()).find((w) => w.name === name) as PipedDrain;
      // A holed pipe alone never clears a flood: said with its numbers.
      await v.choose('Work', 'Old holed drain');
      await v.verdict(/^Old holed drain: of \d+ checks 4 to mend/);
      await v.reads('aside', /Hours until the yard over it has seeped away\s+\d{3}\.\d\sh against at most 12/);
      await v.reads('aside', /in silt or clay a sock closes/);
      await v.choose('Work', 'Yard drain');
      await v.verdict(/^Yard drain leads away up to \d+\sL\/s of the \d+\sL\/s its end takes\. Water stands \d+\smm over the grate of yard 1, at the worst \d+\smm/);
      // As if it were an old one: what is seen of it tells why it does not work, and what to look at next.
      await v.choose('Status', 'existing');
      await v.reads('aside', /Try it: empty a barrel into its upper basin/);
      await v.choose('It has worked badly', 'slower month by month');
      await v.reads('aside', /Look next\s+[^.]*: \d+\smin, and it tells most apart/);
      await v.choose('In its basin lies', 'roots');
      await v.choose('A rod pushed in from its basin', 'sticks in something soft');
      await v.reads('aside', /\d\d: roots have grown into it/);
      await v.reads('aside', /What mends it\s+Have them cut by rods/);
      await v.press('You have tried what it lets through');
      await v.reads('aside', /It lets through 60\.0\sL\/min of .* Likeliest, \d+ of a hundred: roots/);
      await v.press('Remove Yard drain');
      await v.until(works, (list) => !list.some((w) => w.name === 'Yard drain'));
      // From the low yard round the school to the street, with three basins.
      await v.menu('Draw another work', 'Drain with basins to the street');
      await v.draw([here(17.7, 19.3), here(11.8, 18.2), here(12.2, 8.6), here(12.1, 3.1)]);
      await v.reads('aside', /Drain 1/);
      const main = await v.until(() => named('Drain 1'), (d) => d?.basins?.length === 3); // prettier-ignore
      expect(main.ends).toBe('street');
      for (const [k, b] of main.basins.entries()) expect(b.invertM).toBeLessThan(k === 0 ? 42 : main.basins[k - 1].invertM);
      await v.reads('aside', /Level the lowest door sill, vent or cellar window/);
      // Two branches, each from a downspout into the nearest shaft.
      await v.menu('Draw another work', 'Drain from a downspout');
      // However busy the page is between two quick clicks, they end what is drawn.
      await v.page.evaluate(busyAfterClicks, 3, 500);
      await v.draw([here(16.2, 17.6), here(12.6, 17.9)]);
      const first = await v.until(() => named('Drain 2'), (d) => d !== undefined); // prettier-ignore
      expect([first.into, first.basins[0].grateLongM]).toEqual([main.id, 0]);
      await v.menu('Draw another work', 'Drain from a downspout');
      await v.draw([here(14.4, 7.2), here(12.9, 8.3)]);
      await v.until(() => named('Drain 3'), (d) => d?.into === main.id); // prettier-ignore
      await v.choose('Work', 'School roof');
      await v.choose('Its water leads', 'Drain 2');
      await v.reads('aside', /runs to Drain 2/);
      await v.choose('Work', 'Drain 1');
      await v.verdict(/^Drain 1 leads away up to \d+\sL\/s/);
      // What the street takes nobody has said; told, it is held against what comes.
      await v.reads('aside', /Ask whoever owns the street’s drain how much it may be given/);
      await v.press('You were told how much the street takes');
      await v.type('May be given to the street', '0.1');
      await v.reads('aside', /too much: hold some of it back in a store/);
      await v.type('May be given to the street', '500');
      // A pipe does not climb: said where and by how much, and nothing is changed.
      await v.type('Invert where it ends', '41.6');
      await v.reads('body', /pipe 3 of "Drain 1" would climb \d+\smm/);
      expect((await named('Drain 1')).levels.outletM).toBe(main.levels.outletM);
      // Under wheels it must lie deeper: the app lays it anew, in one step that one undo takes back.
      await v.choose('Over it', 'wheels');
      await v.reads('aside', /Earth over pipe \d/);
      const cure = await v.page.waitForSelector('::-p-xpath(//aside//button[contains(., "Lay it at its least falls")])');
      await cure?.click();
      await v.press('Do it');
      const deeper = await v.until(() => named('Drain 1'), (d) => d.levels.outletM < main.levels.outletM - 0.2); // prettier-ignore
      expect(deeper.basins[0].invertM).toBeLessThan(main.basins[0].invertM - 0.2);
      await v.press('You have levelled the lowest sill');
      await v.type('Lowest sill or vent near it', '41.8');
      await v.reads('aside', /Left under the lowest sill near it/);
      expect(await serious(v)).toEqual([]);
      await v.press('Undo');
      await v.press('Undo');
      // By keyboard: its name in the list of works, opened by the keys alone.
      await v.page.$$eval('button[aria-haspopup="listbox"]', (all) => (all.find((b) => b.textContent?.includes('Drain 1')) as HTMLElement).focus());
      await v.page.keyboard.press('Enter');
      await v.page.keyboard.press('ArrowDown');
      await v.page.keyboard.press('Enter');
      await v.reads('aside', /Drain 2/);
      await v.page.setViewport({ width: 390, height: 844 });
      await v.reads('aside', /Drain 2/);
      expect(await v.page.evaluate(() => document.documentElement.scrollWidth > window.innerWidth + 1)).toBe(false);
    }); // prettier-ignore

    on('corners of a drain are dragged and typed, its basins with them, each one step to undo', '/p/quill-lane/works', async (v) => {
      await v.verdict(/./);
      await v.choose('Work', 'Yard drain');
      await v.verdict(/^Yard drain/);
      const drain = async (): Promise<PipedDrain> => (await v.kept()).options[0].works.find((w) => w.id === 'yard-drain') as PipedDrain;
      const before = await drain();
      await v.dragFrom(await v.onPage(before.line[1]), await v.onPage([before.line[1][0] - 1.5, before.line[1][1] + 1]));
      const moved = await v.until(drain, (d) => d.line[1][0] < before.line[1][0] - 1);
      expect(moved.line.length).toBe(before.line.length);
      expect(moved.line.filter((p, k) => p[0] !== before.line[k][0])).toHaveLength(1);
      // What stood at the corner stands at it again.
      const lengthTo = (d: PipedDrain): number => Math.hypot(d.line[1][0] - d.line[0][0], d.line[1][1] - d.line[0][1]);
      const at = before.basins.findIndex((b) => Math.abs(b.atM - lengthTo(before)) < 0.3);
      if (at >= 0) expect(moved.basins[at].atM).toBeCloseTo(lengthTo(moved), 1);
      await v.press('Undo');
      expect((await v.until(drain, (d) => d.line[1][0] === before.line[1][0])).basins).toEqual(before.basins);
      // Typed, by the keys alone.
      const field = await v.page.waitForSelector('::-p-xpath(//aside//label[.="Corner 2"]/following::input[1])');
      await field?.evaluate((e) => (e as HTMLInputElement).select());
      await field?.focus();
      const typed = [before.line[1][0] + 0.5, before.line[1][1] - 0.5];
      await v.page.keyboard.type(typed.join(', '));
      await v.page.keyboard.press('Enter');
      await v.until(drain, (d) => Math.abs(d.line[1][0] - typed[0]) < 0.01 && Math.abs(d.line[1][1] - typed[1]) < 0.01);
      await v.press('Undo');
      await v.until(drain, (d) => d.line[1][0] === before.line[1][0]);
      expect(await serious(v)).toEqual([]);
    }); // prettier-ignore

    on('options stand side by side: the yard floods as it was and clears with the drain; another is made, named and taken back', '/p/quill-lane/works', async (v) => {
      await v.verdict(/./);
      await v.press('Set them side by side');
      const told = await v.reads('aside', /“As it was”: water in Old holed drain, yard stands\s+2\d\d\smm deep, over a shoe for more than \d+\sh/);
      const drainedMm = Number(/“Drained”: water in Old holed drain, yard stands\s+(\d+)\smm/.exec(told)?.[1]);
      expect(drainedMm).toBeGreaterThan(0);
      expect(drainedMm).toBeLessThan(100);
      expect(told).toMatch(/Leaves at one place\s+\d+\sL\/s\s+\d+\sL\/s/);
      expect(await serious(v)).toEqual([]);
      await v.choose('Option', 'As it was');
      const active = async (): Promise<string> => (await v.kept()).activeOption;
      await v.until(active, (id) => id === 'as-it-was');
      await v.reads('aside', /Old holed drain/);
      expect(await v.reads('aside', /Options: “As it was” of 2/)).not.toMatch(/Kitchen tanks/);
      // Another one by the keys alone, named, and taken back step by step.
      await v.page.$$eval('aside button', (all) => all.find((b) => b.textContent?.includes('Another option from this one'))?.focus());
      await v.page.keyboard.press('Enter');
      await v.until(async () => (await v.kept()).options.length, (n) => n === 3); // prettier-ignore
      await v.type('Name of this option', 'Two basins');
      await v.until(async () => (await v.kept()).options[2].name, (name) => name === 'Two basins'); // prettier-ignore
      await v.press('Remove it');
      await v.until(active, (id) => id === 'as-it-was');
      await v.press('Undo');
      await v.press('Undo');
      await v.press('Undo');
      await v.until(async () => (await v.kept()).options.length, (n) => n === 2); // prettier-ignore
    }); // prettier-ignore

    on(
      'ground is filled, and all that stands on it follows: the yard holds less, and as much again when it is taken back',
      '/p/quill-lane/works',
      async (v) => {
        await v.verdict(/./);
        const works = async (): Promise<readonly WorkBase[]> => (await v.kept()).options[0].works;
        const before = (await works()).length;
        const holds = async (): Promise<number> => {
          await v.choose('Work', 'Old holed drain');
          return Number(/The yard over it holds\s+([\d.]+)/.exec(await v.reads('aside', /The yard over it holds\s+[\d.]+\sm³/))?.[1]);
        };
        const asFound = await holds();
        await v.menu('Draw another work', 'Low place filled');
        await v.draw([here(15, 19.5), here(33, 19.5), here(33, 28), here(15, 28)]);
        await v.verdict(/^Shaped ground 1: of \d+ checks/);
        const made = async (): Promise<Regrade | undefined> =>
          (await works()).find((w) => w.name === 'Shaped ground 1') as Regrade | undefined;
        const drawn = await v.until(made, (w) => w !== undefined);
        expect(drawn?.shape).toBe('fill');
        await v.reads('aside', /Earth wanting\s+\d+\sm³/);
        // All of it lies under the level it runs over at: what stands there is next to nothing.
        await v.until(async () => {
        await v.choose('Work', 'Shaped ground 1');
        return holds();
      }, (m3) => m3 < 0.5 * asFound); // prettier-ignore
        await v.choose('Work', 'Shaped ground 1');
        await v.choose('Shaped to', 'as it is, raised or lowered');
        await v.type('Raised by', '-100');
        await v.until(made, (w) => w?.shape === 'by' && w.byM === -0.1);
        expect(await v.reads('aside', /Earth left over\s+\d+\sm³/)).toMatch(/Taken off at most\s+100\smm/);
        expect(await serious(v)).toEqual([]);
        // Taken back by the keys alone.
        await v.page.$$eval('button', (all) => all.find((b) => b.getAttribute('aria-label') === 'Remove Shaped ground 1')?.focus());
        await v.page.keyboard.press('Enter');
        await v.until(async () => (await works()).length, (n) => n === before); // prettier-ignore
        expect(await v.until(holds, (m3) => m3 === asFound)).toBe(asFound);
      },
    );

    on('where water cannot leave by its fall it is lifted: a sump is drawn, kept in order, and told what happens when mains go', '/p/quill-lane/works', async (v) => {
      // Once all is told the plan has less room: all of the yard is still on it.
      await v.verdict(/First/);
      const sump = async (): Promise<Sump | undefined> => ((await v.kept()).options[0].works).find((w) => w.name === 'Sump 1') as Sump | undefined;
      await v.menu('Draw another work', 'Sump with a pump');
      await v.draw([here(29, 24), here(29, 34)]);
      await v.until(sump, (w) => w !== undefined);
      await v.verdict(/^Sump 1 /);
      await v.reads('aside', /Starts an hour at the most\s+14\.1/);
      await v.reads('aside', /Hours from a power cut until water stands at its rim/);
      // What cannot be is refused with by how much, and changes nothing.
      const before = await sump();
      await v.type('Starts at', '30');
      await v.reads('body', /would start \d[\d\s]*\smm under where it stops/);
      expect((await sump())?.levels).toEqual(before?.levels);
      await v.choose('When mains go', 'a second pump on a battery');
      await v.press('It has a battery');
      expect((await v.until(sump, (w) => w?.batteryWh === 600))?.backup).toBe('battery');
      await v.choose('Its water goes', 'into the sewer of the house');
      await v.reads('aside', /rain water is no foul water/);
      expect(await serious(v)).toEqual([]);
      for (let k = 0; k < 4; k++) await v.press('Undo');
      await v.until(sump, (w) => w === undefined);
    }); // prettier-ignore
  });
}
