import { join } from 'node:path';
import { writeFileSync } from 'node:fs';
import { describe, expect, it } from '@jest/globals';
import { openProjectFile } from '#core/formats';
import { documentHash } from '#core/project';
import type { LevelSill, Swale } from '#core/works';
import { type Bench, Visitor } from './driver.ts';
import { named } from './named.ts';

const demo = (name: string): string => join(process.cwd(), 'demo', name);
const W = 431000;
const S = 4612000;
const works = (p: { options: readonly { works: readonly unknown[] }[] }): [Swale, LevelSill] => p.options[0].works as [Swale, LevelSill];

/** A stranger's whole way through the product, by mouse and again by keyboard. */
export function journeys(open: () => Bench): void {
  describe('the first visit', () => {
    it('lands on the demo with a swale selected and its answer', async () => {
      const v = await Visitor.arrive(open(), '/');
      const said = await v.verdict(/Orchard swale holds \d+ m³ of the \d+ m³ this storm brings/);
      expect(said).toMatch(/First mend: bank 45 mm below the sill at 84 m/);
      expect(await v.text('[data-testid="verdict"]')).toContain('Start from my land');
      expect(v.page.url()).toContain('/p/sallow-rise/works');
      expect(v.errors).toEqual([]);
    }, 180000);
  });

  describe('from one’s own land to pegs, by mouse', () => {
    it('goes the whole way', async () => {
      const v = await Visitor.arrive(open(), '/start');
      // Land
      await v.type('Name of the project', 'Test hill');
      await v.give('Choose ground, a track or a map', demo('sallow-rise.tif'));
      await v.page.waitForSelector('aside[aria-label="Land sheet"]');
      await v.verdict(/The ground runs from 95\.\d\d m to 15\d\.\d\d m.*Drop a pin/s);
      await v.menu('Draw', 'Draw the property line');
      await v.draw([
        [W + 96, S + 70],
        [W + 520, S + 92],
        [W + 500, S + 505],
        [W + 88, S + 470],
      ]);
      await v.press('Drop a pin');
      const pin = await v.onPage([W + 330, S + 180]);
      await v.page.mouse.click(pin.x, pin.y);
      await v.verdict(/ha drains to Pin 1, at a mean slope of \d/);
      await v.reads('aside', /Longest flow path\s+\d+ m/);
      // Rain
      await v.stage('Rain');
      await v.verdict(/Say how hard it rains/);
      await v.give('Bring in a CSV', demo('sample-rain.csv'));
      // Without ground nothing is known of the shortest, so all lengths are meant.
      await v.verdict(/1 in 20 year rain, the worst of storms of all lengths: up to 116 mm of rain/);
      await v.type('24 h, 1 in 20 years', '120');
      await v.verdict(/120 mm of rain/);
      await v.press('Storm', 'tab');
      await v.choose('Return period', '1 in 10 years');
      await v.verdict(/1 in 10 year rain, the worst of storms of all lengths: up to 101 mm/);
      // Ground
      await v.stage('Ground');
      await v.press('Describe the ground');
      await v.choose('Cover', 'Pasture, poor (under 50 %, heavily grazed)');
      await v.type('Soaks in, after its safety factor', '15');
      await v.verdict(/runs off \(\d+ %\).*It takes in 15 mm\/h/);
      expect(await v.valueOf('Curve number')).toBe('86.00');
      // Works: drawn roughly, settled on the contour
      await v.stage('Works');
      await v.press('Draw a swale');
      await v.draw([
        [W + 190, S + 258],
        [W + 260, S + 250],
        [W + 400, S + 262],
      ]);
      await v.reads('main', /It settled on the 119\.\d\d m contour through your first point/);
      await v.verdict(/Swale 1 holds \d+ m³ of the \d+ m³ this storm brings; the rest leaves towards the property edge/);
      let [swale, sill] = works(await v.kept());
      expect(swale.line.length).toBeGreaterThan(10);
      expect(sill.levels.sillM - swale.levels.floorM).toBeCloseTo(0.35, 3);
      // Typing a depth moves sill and bank together
      const crest = swale.levels.bankCrestM;
      await v.type('Water depth at the sill', '0.45');
      await v.reads('aside', /Held below the lowest way out\s+(1[5-9]\d|2\d\d) m³/);
      [swale, sill] = works(await v.kept());
      expect(sill.levels.sillM - swale.levels.floorM).toBeCloseTo(0.45, 3);
      expect(swale.levels.bankCrestM).toBeCloseTo(crest + 0.1, 3);
      // Dragging the floor in the section moves the floor alone, as one step
      const floor = await v.page.$$eval('svg .handle', (lines) => {
        const b = lines[lines.length - 1].getBoundingClientRect();
        return { x: b.left + b.width / 2, y: b.top + b.height / 2 };
      });
      await v.dragFrom(floor, { x: floor.x, y: floor.y + 8 });
      const dragged = works(await v.kept());
      expect(dragged[0].levels.floorM).toBeLessThan(swale.levels.floorM - 0.05);
      expect(dragged[1].levels.sillM).toBe(sill.levels.sillM);
      await v.press('Undo');
      expect(works(await v.kept())[0].levels.floorM).toBe(swale.levels.floorM);
      await v.press('Redo');
      expect(works(await v.kept())[0].levels.floorM).toBe(dragged[0].levels.floorM);
      // The sill is sized to its peak
      await v.press('Open Swale 1 sill');
      await v.reads('aside', /Length needed\s+[\d.]+ m/);
      const fit = await v.page.$eval('aside', (e) => /Length needed: set to ([\d.]+)/.exec(e.textContent ?? '')?.[1] ?? '');
      await v.page.evaluate(() =>
        [...document.querySelectorAll('aside button')]
          .find((b) => b.textContent?.startsWith('Length needed: set to'))
          ?.setAttribute('aria-label', 'Size the sill'),
      );
      await v.press('Size the sill');
      expect(works(await v.kept())[1].dimensions.lengthM).toBeCloseTo(Number(fit), 1);
      // Checks from the header
      await v.page.locator('header button[aria-label^="Checks"]').click();
      const checks = await v.reads('[role="dialog"]', /Time to soak away after the storm/);
      for (const title of [
        'Freeboard of the bank',
        'Share of the storm it holds',
        'Length of the sill',
        'Water leaves onto a neighbour',
        'Soil left below the floor',
        'Cover on the slope below',
      ])
        expect(checks).toContain(title);
      await v.page.keyboard.press('Escape');
      // Levels: drag the crest in the stack
      await v.stage('Levels');
      const mark = await v.middleOf('[data-testid="mark-crest"]');
      const before = works(await v.kept())[0].levels.bankCrestM;
      await v.dragFrom(mark, { x: mark.x, y: mark.y - 30 });
      expect(works(await v.kept())[0].levels.bankCrestM).toBeGreaterThan(before + 0.02);
      await v.reads('section[aria-label="Level stack"]', /Bank crest\s+12\d\.\d\d/);
      // Pegs
      await v.stage('Pegs');
      await v.type('Height of collimation', '121.5');
      await v.verdict(/\d+ pegs, the deepest cut .* An instrument at 121\.50 m reads \d+ of them/);
      await v.press('CSV');
      const csv = new TextDecoder().decode(await v.downloaded('-pegs.csv')).split('\n');
      expect(csv[0]).toBe('work,peg,x_m,y_m,ground_m,design_level_m,cut_m,staff_reading_m');
      const [, , , , , level, , staff] = csv[1].split(',').map(Number);
      expect(level + staff).toBeCloseTo(121.5, 2);
      await v.press('GPX');
      expect(new TextDecoder().decode(await v.downloaded('-pegs.gpx'))).toContain('<wpt lat="41.');
      // Units, reload, export
      await v.choose('units', 'US');
      await v.verdict(/An instrument at 398\.62 ft/);
      await v.choose('units', 'metric');
      const hash = documentHash(await v.kept());
      await v.page.reload({ waitUntil: 'networkidle0' });
      await v.verdict(/\d+ pegs/);
      expect(documentHash(await v.kept())).toBe(hash);
      await v.press('Export the project');
      const file = await v.downloaded('.outlet');
      expect(documentHash(openProjectFile('p', file).json)).toBe(hash);
      // Opened by somebody else, it is the same document
      const path = join(v.downloads, 'again.outlet');
      writeFileSync(path, file);
      const other = await Visitor.arrive(open(), '/start');
      await other.give('Open a .outlet file', path);
      await other.verdict(/Swale 1 holds/);
      expect(documentHash(await other.kept())).toBe(hash);
      expect([...v.errors, ...other.errors]).toEqual([]);
    }, 180000);
  });

  describe('the same by keyboard, with the canvas hidden', () => {
    it('goes the whole way', async () => {
      const v = await Visitor.arrive(open(), '/p/sallow-rise/land');
      await v.verdict(/ha drains to Valley gate/);
      await v.page.addStyleTag({ content: 'canvas { visibility: hidden !important; }' });
      const focus = (name: string): Promise<void> => v.page.$eval(named(name), (e) => (e as HTMLElement).focus());
      const keys = async (...names: string[]): Promise<void> => {
        for (const name of names) await v.page.keyboard.press(name as 'Enter');
      };
      const use = async (name: string): Promise<void> => {
        await focus(name);
        await keys('Enter');
      };
      // A pin by crosshair: the live region reads the ground
      await use('Drop a pin');
      await v.page.focus('[data-testid="plan"]');
      await v.page.keyboard.down('Shift');
      await keys('ArrowDown', 'ArrowDown', 'ArrowRight');
      await v.page.keyboard.up('Shift');
      await keys('ArrowUp', 'ArrowUp');
      await v.reads('[data-testid="crosshair"]', /E \d+ N \d+ +\d+\.\d\d m +slope \d/);
      await keys('Enter');
      await v.verdict(/drains to Pin 1/);
      // Rain and ground by keys alone
      await v.page.$eval('nav a[href$="/rain"]', (e) => (e as HTMLElement).focus());
      await keys('Enter');
      await v.page.waitForSelector('aside[aria-label="Rain sheet"]');
      await v.page.$eval(named('the worst of all lengths Judged by'), (e) => (e as HTMLElement).focus());
      await keys('ArrowRight');
      await v.page.waitForSelector(named('Duration'));
      await focus('Duration');
      await v.page.keyboard.down('Control');
      await v.page.keyboard.press('a');
      await v.page.keyboard.up('Control');
      await v.page.keyboard.type('60');
      await keys('Enter');
      await v.verdict(/storm of 60 min: 41 mm/);
      await v.stage('Ground');
      await v.type('Soil depth to rock or a tight layer', '2');
      // A swale by typed places
      await v.stage('Works');
      await use('Draw a swale');
      for (const [x, y] of [
        [200, 200],
        [300, 180],
      ]) {
        await focus('Type x, y');
        await v.page.keyboard.type(`${W + x}, ${S + y}`);
        await keys('Enter');
      }
      await use('Finish');
      await v.verdict(/Swale 1 holds/);
      // Levels as sliders with words
      await v.stage('Levels');
      const crest = '[data-testid="mark-crest"]';
      await v.page.focus(crest);
      const spoken = (): Promise<string> => v.page.$eval(crest, (e) => e.getAttribute('aria-valuetext') ?? '');
      const before = Number.parseFloat(await spoken());
      expect(await spoken()).toMatch(/^[\d.]+ metres, \d+ millimetres above /);
      await keys('ArrowUp', 'ArrowUp', 'ArrowUp');
      await v.page.waitForFunction(
        (s, b) => Math.abs(Number.parseFloat(document.querySelector(s)?.getAttribute('aria-valuetext') ?? '') - b - 0.03) < 0.006,
        {},
        crest,
        before,
      );
      // Undo takes the three key presses back at once
      await v.page.keyboard.down('Control');
      await v.page.keyboard.press('z');
      await v.page.keyboard.up('Control');
      await v.page.waitForFunction(
        (s, b) => Math.abs(Number.parseFloat(document.querySelector(s)?.getAttribute('aria-valuetext') ?? '') - b) < 0.006,
        {},
        crest,
        before,
      );
      await v.page.keyboard.press('?');
      await v.reads('[role="dialog"]', /place a point; again on the same place to finish/);
      await keys('Escape');
      await v.stage('Pegs');
      await v.type('Height of collimation', '121');
      await v.verdict(/instrument at 121\.00 m reads/);
      expect(v.errors).toEqual([]);
    }, 240000);
  });
}
