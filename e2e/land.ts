import { join } from 'node:path';
import { describe, expect, it } from '@jest/globals';
import type { Point } from '#core/geometry';
import { type Bench, Visitor } from './driver.ts';
import { goingOn } from './bench.ts';
import { serious } from './axe.ts';
import { named } from './named.ts';

const [W, S] = [431000, 4612000];
const at = (x: number, y: number): Point => [W + x, S + y];
const LAND = '/p/sallow-rise/land';
/** Just uphill of Orchard swale and nearly along it, falling to the west past its end. */
const WINDROW = [at(350, 362), at(128, 253)];
const hectares = (text: string, name: string): [number, number] => {
  const row = new RegExp(`${name}\\s+([\\d.]+) ha\\s+([\\d.]+) ha`).exec(text);
  return [Number(row?.[1]), Number(row?.[2])];
};

interface Counting {
  outletAsked: number;
}

/** The land as a person would read it: what was seen, where water goes, places, sections. */
export function land(open: () => Bench): void {
  const on = goingOn(open);
  describe('a windrow the map does not show', () => {
    on('drawn by mouse takes ground from what lies below, and says how much to open', LAND, async (v) => {
      await v.verdict(/3\.10 ha drains to Valley gate/);
      await v.menu('What I saw', 'Windrow');
      await v.draw(WINDROW);
      const said = await v.reads('aside', /Cut it down 150 mm to the ground over [\d.]+ m/);
      const [withIt, without] = hectares(said, 'Valley gate');
      expect(without).toBe(3.1);
      expect(withIt).toBeLessThan(2.5);
      const [swaleWith, swaleWithout] = hectares(said, 'Orchard swale');
      // What it keeps from the valley it brings to the swale past whose end it falls.
      expect(Math.abs(swaleWith - swaleWithout)).toBeGreaterThan(0.1);
      await v.verdict(new RegExp(`${withIt.toFixed(2)} ha drains to Valley gate`));
      const back = Number(/gets back ([\d.]+) ha of the ([\d.]+) ha it lost/.exec(said)?.[1]);
      await v.press('Open it there');
      await v.verdict(
        new RegExp(`(${(withIt + back).toFixed(2)}|${(withIt + back + 0.01).toFixed(2)}|${(withIt + back - 0.01).toFixed(2)}) ha drains`),
      );
      // A higher bank, an undo, and it is gone again.
      await v.press('Undo');
      await v.verdict(new RegExp(`${withIt.toFixed(2)} ha drains to Valley gate`));
      // The sheet has settled: what is under the pointer stays there.
      await v.reads('aside', /Cut it down 150 mm/);
      await v.press('Remove Windrow');
      await v.verdict(/3\.10 ha drains to Valley gate/);
    });

    it('by keyboard, with the canvas hidden, does the same', async () => {
      const v = await Visitor.arrive(open(), LAND);
      await v.verdict(/3\.10 ha drains/);
      await v.page.addStyleTag({ content: 'canvas { visibility: hidden !important; }' });
      await v.page.$$eval('[role="toolbar"] button', (list) =>
        (list.find((b) => b.textContent?.startsWith('What I saw')) as HTMLElement).focus(),
      );
      await v.page.keyboard.press('Enter');
      await v.page.waitForSelector('[role="menu"]');
      await v.page.keyboard.type('Windrow');
      await v.page.keyboard.press('Enter');
      for (const [x, y] of WINDROW) {
        await v.page.locator(named('Type x, y')).click();
        await v.page.keyboard.type(`${x}, ${y}`);
        await v.page.keyboard.press('Enter');
      }
      await v.page.$eval(named('Finish', 'button'), (e) => (e as HTMLElement).focus());
      await v.page.keyboard.press('Enter');
      const said = await v.reads('aside', /with it\s+without it/);
      expect(hectares(said, 'Valley gate')[0]).toBeLessThan(2.5);
      await v.type('Height above the ground', '300');
      await v.reads('aside', /Cut it down 300 mm to the ground/);
      expect(v.errors).toEqual([]);
    }, 180000);
  });

  describe('places', () => {
    on('are found, explained in the reader’s units and adopted as pins', LAND, async (v) => {
      await v.verdict(/Valley gate/);
      // By keyboard: the box is ticked with Space, the place adopted with Enter.
      await v.page.$eval(named('Find and show them', 'checkbox'), (e) => (e as HTMLElement).focus());
      await v.page.keyboard.press('Space');
      const said = await v.reads('aside', /Key point 1\s+The valley turns from [\d.]+ % to [\d.]+ % here, with [\d.]+ ha above/);
      // The gully on the east flank breaks off short; nowhere does water stand.
      expect(said).toMatch(/Gully head 1\s+The bed drops 1\.\d\d m at once/);
      expect(said).not.toMatch(/Gully head 2|Standing water/);
      await v.choose('units', 'US');
      await v.reads('aside', /with [\d.]+ ac above/);
      await v.choose('units', 'metric');
      await v.page.$eval(named('Adopt Key point 1 as a pin', 'button'), (e) => (e as HTMLElement).focus());
      await v.page.keyboard.press('Enter');
      await v.verdict(/ha drains to Key point/);
      expect((await v.kept()).pins.map((p) => p.name)).toEqual(['Valley gate', 'Key point']);
    });
  });

  describe('sections', () => {
    on('are linked with the plan both ways', LAND, async (v) => {
      await v.verdict(/Valley gate/);
      await v.menu('Ask the land', 'Where does it run?');
      await v.clickPlaces([at(200, 440)]);
      await v.reads(
        'section[aria-label="Long section"]',
        /From here water runs to the property line: \d+ m, falls [\d.]+ m, mean slope [\d.]+ %/,
      );
      const strip = '[aria-label="Long section"] svg[role="slider"]';
      const box = await v.page.$eval(strip, (e) => {
        const b = e.getBoundingClientRect();
        return { left: b.left, top: b.top, width: b.width, height: b.height };
      });
      const mark = (): Promise<string> => v.text('[data-testid="section-mark"]');
      await v.page.mouse.move(box.left + box.width * 0.3, box.top + box.height / 2, { steps: 3 });
      const near = await v.reads('[data-testid="section-mark"]', /[\d.]+ m at \d+ m/);
      await v.page.mouse.move(box.left + box.width * 0.6, box.top + box.height / 2, { steps: 3 });
      await v.page.waitForFunction((before) => document.querySelector('[data-testid="section-mark"]')?.textContent !== before, {}, near);
      expect(Number.parseFloat(await mark())).toBeLessThan(Number.parseFloat(near));
      // And from the plan: pointing where the drop fell marks the start of the section.
      const top = await v.onPage(at(200, 440));
      await v.page.mouse.move(top.x, top.y, { steps: 3 });
      await v.reads('[data-testid="section-mark"]', /at \d(\.\d)? m$/);
      // By keys: the end of the way is lower than its start.
      await v.page.$eval(strip, (e) => (e as unknown as HTMLElement).focus());
      await v.page.keyboard.press('End');
      await v.reads('[data-testid="section-mark"]', /at 4\d\d m$/);
      await v.page.keyboard.press('PageDown');
      await v.reads('[data-testid="section-mark"]', /at (3[89]\d|40\d) m$/);
      await v.press('Close the section');
      expect(await v.page.$(strip)).toBeNull();
    });

    on('measure a drawn line, and its contour can be kept as one', LAND, async (v) => {
      await v.verdict(/Valley gate/);
      await v.menu('Ask the land', 'Measure along a line');
      await v.draw([at(200, 400), at(300, 400)]);
      await v.reads('section[aria-label="Long section"]', /Along your line: 1(00|01|99|0\d) m|Along your line: 99 m/);
      await v.menu('Ask the land', 'Contour through a point');
      await v.clickPlaces([at(240, 200)]);
      await v.reads('aside', /Contour 1\d\d\.\d\d m/);
      await v.press('Keep it as a line');
      // A kept contour is level, and says what runs onto it.
      const said = await v.reads('aside', /Out of level\s+\d+ mm/);
      expect(Number(/Out of level\s+(\d+) mm/.exec(said)?.[1])).toBeLessThan(30);
      expect(said).toMatch(/What runs onto it, and where/);
      expect((await v.kept()).features.filter((f) => f.kind === 'line')).toHaveLength(1);
    });
  });

  describe('asked of the land', () => {
    on('is there any fall, and what would a wall hold', LAND, async (v) => {
      await v.verdict(/Valley gate/);
      await v.menu('Ask the land', 'Is there any fall?');
      await v.clickPlaces([at(300, 330), at(330, 120)]);
      await v.reads('aside', /Yes: it falls [\d.]+ m/);
      await v.menu('Ask the land', 'Is there any fall?');
      await v.clickPlaces([at(330, 120), at(300, 330)]);
      await v.reads('aside', /No\. The outfall lies [\d.]+ m higher/);
      await v.menu('Ask the land', 'What would a wall hold?');
      await v.draw([at(250, 200), at(430, 200)]);
      const said = await v.reads('aside', /At [\d.]+ m it holds \d+ m³ over \d+ m², for \d+ m³ of earth/);
      expect(said).toMatch(/Reaches back\s+[\d.]+ m/);
      const full = Number(/it holds (\d+) m³/.exec(said)?.[1]);
      await v.type('Water level', '109.5');
      const lower = await v.reads('aside', /At 109\.50 m it holds \d+ m³/);
      expect(Number(/it holds (\d+) m³/.exec(lower)?.[1])).toBeLessThan(full / 2);
    });
  });

  describe('layers', () => {
    on('explain themselves, in either unit system, and axe finds nothing serious', LAND, async (v) => {
      await v.verdict(/Valley gate/);
      const legend = 'section[aria-label^="Legend"]';
      await v.press('Layers');
      await v.choose('Over the ground', 'Slope, by what may be built');
      await v.page.keyboard.press('Escape');
      expect(await v.reads(legend, /5 to 15 %/)).not.toMatch(/Swales up to/);
      await v.press('What each allows');
      await v.reads(legend, /Swales up to 15 %/);
      expect(await serious(v)).toEqual([]);
      // It does look: a picture without words is found.
      await v.page.evaluate(() => document.querySelector('main')?.prepend(document.createElement('img')));
      expect(await serious(v)).toEqual([expect.stringMatching(/^image-alt: /)]);
      await v.page.evaluate(() => document.querySelector('main > img')?.remove());
      await v.press('Layers');
      await v.choose('Over the ground', 'Area above');
      await v.page.keyboard.press('Escape');
      await v.reads(legend, /from 1\.00 ha/);
      await v.choose('units', 'US');
      await v.reads(legend, /from 2\.47 ac/);
      await v.press('Hide this layer');
      expect(await v.page.$(legend)).toBeNull();
    });

    it('panning, zooming and pointing ask the worker for nothing', async () => {
      const v = await Visitor.arrive(open(), LAND, {
        before: () => {
          const counting = window as unknown as Counting;
          counting.outletAsked = 0;
          const counted = new Proxy(Reflect.get(Worker.prototype, 'postMessage') as typeof postMessage, {
            apply: (post, self, args) => {
              counting.outletAsked++;
              return Reflect.apply(post, self, args) as unknown;
            },
          });
          Reflect.set(Worker.prototype, 'postMessage', counted);
        },
      });
      await v.verdict(/Valley gate/);
      await new Promise((resolve) => setTimeout(resolve, 1500));
      const asked = (): Promise<number> => v.page.evaluate(() => (window as unknown as Counting).outletAsked);
      const before = await asked();
      expect(before).toBeGreaterThan(3);
      const from = await v.onPage(at(480, 130));
      await v.dragFrom(from, { x: from.x - 160, y: from.y - 90 });
      await v.page.mouse.wheel({ deltaY: -300 });
      await v.page.mouse.move(from.x - 300, from.y - 200, { steps: 20 });
      await new Promise((resolve) => setTimeout(resolve, 600));
      expect(await asked()).toBe(before);
      // A pin in hand asks for nothing either, until it is let go. The view has moved: it must be where it is taken.
      await v.page.reload({ waitUntil: 'networkidle0' });
      await v.verdict(/Valley gate/);
      await new Promise((resolve) => setTimeout(resolve, 1500));
      const calm = await asked();
      const pin = await v.onPage((await v.kept()).pins[0].at);
      await v.page.mouse.move(pin.x, pin.y);
      await v.page.mouse.down();
      await v.page.mouse.move(pin.x + 30, pin.y - 40, { steps: 10 });
      expect(await asked()).toBe(calm);
      await v.page.mouse.up();
      await v.page.waitForFunction((n) => (window as unknown as Counting).outletAsked > n, {}, calm);
    }, 180000);
  });

  describe('what was seen', () => {
    it('survives export, and a file with a spoilt one is refused', async () => {
      const v = await Visitor.arrive(open(), LAND);
      await v.verdict(/Valley gate/);
      await v.menu('What I saw', 'Spring');
      await v.clickPlaces([at(300, 380)]);
      await v.reads('aside', /Its water goes to Orchard swale/);
      await v.menu('What I saw', 'Flow seen');
      await v.clickPlaces([at(200, 150), at(200, 190)]);
      await v.reads('aside', /Water was seen to run \d+° off the computed way/);
      await v.page.locator('header button[aria-label^="Checks"]').click();
      await v.reads('[role="dialog"]', /Flow seen: Water was seen to run/);
      await v.page.keyboard.press('Escape');
      const kept = await v.kept();
      expect(kept.features.map((f) => f.kind)).toEqual(expect.arrayContaining(['spring', 'flow-arrow']));
      await v.press('Export the project');
      const { writeFileSync } = await import('node:fs');
      const path = join(v.downloads, 'seen.json');
      writeFileSync(
        path,
        JSON.stringify({
          ...kept,
          terrain: null,
          features: [
            {
              id: 'x',
              kind: 'windrow',
              line: [
                [0, 0],
                [1, 1],
              ],
              heightM: 99,
            },
          ],
        }),
      );
      await v.page.locator('header a[href="/start"]').click();
      await v.give('Open a .outlet file', path);
      await v.reads('[role="alert"]', /Height above the ground of "Windrow" is 99 000 mm, outside 10 mm to 3000 mm/);
      expect(v.errors).toEqual([]);
    }, 180000);
  });
}
