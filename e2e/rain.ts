import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, it } from '@jest/globals';
import { openProjectFile } from '#core/formats';
import { type Project, recordFromBytes } from '#core/project';
import { type Bench, Visitor } from './driver.ts';
import { goingOn } from './bench.ts';
import { serious } from './axe.ts';
import { named } from './named.ts';

const RAIN = '/p/sallow-rise/rain';
const demo = (name: string): string => join(process.cwd(), 'demo', name);
/** Intensities in inches an hour, as a sheet of a report has them. */
const PASTED = 'Intensity in/h\nduration_min\t2\t10\t20\n10\t2.4\t4.0\t4.8\n60\t0.9\t1.5\t1.8\n120\t0.55\t0.95\t1.15';

async function paste(v: Visitor, label: string, text: string): Promise<void> {
  const field = await v.page.waitForSelector(named(label, 'textbox'));
  await field?.click({ count: 3 });
  await v.page.keyboard.down('Control');
  await v.page.keyboard.press('a');
  await v.page.keyboard.up('Control');
  await v.page.keyboard.sendCharacter(text);
}

/** What a work's sheet says the storm brings into it [m3]. */
async function brings(v: Visitor): Promise<number> {
  const said = await v.verdict(/of the [\d,]+ m³ this storm brings|all [\d,]+ m³ the storm brings|[\d,]+ m³/);
  return Number(/([\d,]+) m³ (?:this|the) storm brings/.exec(said)?.[1].replace(',', ''));
}

export function rain(open: () => Bench): void {
  const on = goingOn(open);
  describe('rain', () => {
    on('a pasted table in other units is taken, and the demo swale follows', RAIN, async (v) => {
      await v.verdict(/1 in 20 year rain, the worst of storms of 5 min to 24 h: up to 116 mm of rain/);
      await v.press('Table', 'tab');
      await v.press('Paste a table');
      await paste(v, 'One line a duration, one column a return period', 'duration_min,2,10\n10,5,x');
      await v.press('Use this table');
      await v.reads('main', /nothing has changed/);
      await v.reads('main', /"x" is not a number/);
      await v.verdict(/116 mm/);
      await paste(v, 'One line a duration, one column a return period', PASTED);
      await v.press('Use this table');
      // 1.15 in/h for two hours: the set goes no further than the table.
      await v.verdict(/the worst of storms of 5 min to 2 h: up to 58 mm of rain/);
      await v.reads('aside', /From: pasted table/);
      await v.type('Another return period', '50');
      await v.press('Add this return period');
      await v.reads('aside', /20 yr\s+50 yr/);
      await v.choose('Row or column', '1 in 50 years');
      await v.press('Drop it');
      await v.press('Undo');
      await v.press('Undo');
      await v.stage('Works');
      const less = await brings(v);
      await v.press('Undo');
      await v.reads('header', /worst of\s+5 min to 24 h/);
      expect(
        await v.until(
          () => brings(v),
          (more) => more > less,
        ),
      ).toBeGreaterThan(less);
    });

    on('storms of other shapes, an addition and a second fall change what the works must take', RAIN, async (v) => {
      await v.verdict(/116 mm/);
      await v.choose('Judged by', 'one storm alone');
      await v.verdict(/1 in 20 year storm of 2 h: 52 mm/);
      await v.reads('header', /one storm:\s+1 in 20 yr · 2 h · 52 mm/);
      await v.type('Added to be careful', '20');
      await v.verdict(/63 mm of rain, 20 % added/);
      await v.page.locator('aside label ::-p-text(It falls a second time)').click();
      await v.verdict(/It falls twice, 12 h apart/);
      await v.reads('aside', /Depth of both\s+126 mm/);
      await v.choose('How it falls', '24-hour pattern II');
      await v.verdict(/storm of 24 h: 139 mm/);
      await v.choose('How it falls', 'My own, step by step');
      await v.verdict(/my own storm: 32 mm of rain in 60 min, 20 % added/);
      await paste(v, 'Rain of each step, in mm', '5 10, 20');
      await v.press('Use these steps');
      await v.verdict(/my own storm: 42 mm of rain in 30 min/);
      await v.press('Design for 1 in 20 years');
      await v.choose('Designing', 'A wall or bank that holds water above others');
      await v.press('Design for 1 in 100 years');
      await v.verdict(/1 in 100 year storm/);
    });

    on(
      'a gauge’s record is brought in, refused when bad, read, and gives a table, a storm and a day to be finished by',
      RAIN,
      async (v) => {
        await v.verdict(/116 mm/);
        await v.press('Gauge', 'tab');
        await v.press('Put the record away');
        const bad = join(mkdtempSync(join(tmpdir(), 'outlet-gauge-')), 'bad.csv');
        writeFileSync(bad, 'date,rain_mm\n2020-01-01,4\n2020-01-02,-3\n');
        await v.give('Bring in a gauge’s record', bad);
        await v.reads('main', /-3 mm is below nothing/);
        await v.give('Bring in a gauge’s record', demo('sample-gauge.csv'));
        await v.reads('main', /is in: 1994-01-01 to 2023-12-31, by the day\. 65 steps without a reading\. 84 traces/);
        await v.reads('aside', /Years known whole\s+29 of 30/);
        await v.reads('aside', /1 in 20 years: 87 mm, nine times in ten between \d+ mm and \d+ mm/);
        await v.choose('By', 'GEV, three parameters');
        await v.reads('aside', /1 in 20 years: [89]\d mm/);
        await v.press('Use a table from this record');
        await v.verdict(/the worst of storms of 5 min to 72 h/);
        await v.press('Seasons', 'tab');
        await v.reads('aside', /Finish by 31 August/);
        await v.press('Gauge', 'tab');
        await v.press('Design for the rain of 17 October 2003');
        await v.verdict(/the rain of 2003-10-17: 147 mm of rain in 72 h/);
        await v.press('Export the project');
        const { json, assets } = openProjectFile('p', await v.downloaded('.outlet'));
        const project = json as Project;
        const bytes = assets.get(project.gauge?.sha256 ?? '');
        if (!bytes) throw new Error('the record is not in the file');
        expect(recordFromBytes(bytes).steps).toBe(10957);
        expect(project.rain).toMatchObject({ basis: 'record', storm: { shape: { kind: 'event', stepMin: 1440 } } });
      },
    );

    on('memory gives a guess that says so, and a reading is told with its range, by keyboard', RAIN, async (v) => {
      await v.verdict(/116 mm/);
      await v.press('How rare?', 'tab');
      await v.type('Rain in the gauge', '41');
      await v.reads('aside', /41 mm in 1 h is 1 in 20 years/);
      await v.reads('aside', /anything from 1 in [\d.]+ years to (1 in|rarer than 1 in) \d+ years/);
      // To the tab beside it by keys alone.
      await v.page.focus('[role="tab"][aria-selected="true"]');
      for (const key of ['Home', 'ArrowRight'] as const) await v.page.keyboard.press(key);
      await v.press('Guess from memory');
      await v.type('Rain of a usual year', '800');
      await v.type('Wettest day anyone recalls', '90');
      await v.reads('aside', /1 in 10 years: \d+ mm in an hour, somewhere between \d+ mm and \d+ mm/);
      await v.press('Use this guess');
      await v.verdict(/The table is a guess from memory/);
    });

    it('its parts have nothing serious for axe, and fit a phone', async () => {
      const v = await Visitor.arrive(open(), RAIN, { width: 390, height: 844 });
      for (const tab of ['Storm', 'Table', 'Gauge', 'Seasons', 'How rare?']) {
        await v.press(tab, 'tab');
        await v.reads('aside', tab === 'Gauge' ? /Deepest rains/ : tab === 'Seasons' ? /Wettest day/ : /./);
        expect({ tab, found: await serious(v) }).toEqual({ tab, found: [] });
        expect(await v.page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
      }
      expect(v.errors).toEqual([]);
    }, 180000);
  });
}
