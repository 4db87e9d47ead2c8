import { describe, expect } from '@jest/globals';
import type { Point } from '#core/geometry';
import type { WorkBase } from '#core/contract';
import type { CheckDams, HalfMoons, RainGarden, Reach, SwaleSet, Terraces, Weir } from '#core/works';
import { HEAD_Y, bedOf, mainAt } from '../demo/dry-fork-ground.ts';
import type { Bench } from './driver.ts';
import { goingOn } from './bench.ts';
import { serious } from './axe.ts';

const WORKS = '/p/dry-fork/works';
const [W, S] = [436000, 4618000];
const here = ([x, y]: readonly [number, number]): Point => [W + x, S + y];

export function slopes(open: () => Bench): void {
  const on = goingOn(open);
  describe('check dams in a gully', () => {
    on(
      'are drawn down the bed, changed one by one, pasted as measured, spaced anew by keyboard, taken away; undo takes each back',
      WORKS,
      async (v) => {
        await v.verdict(/Upper gully, 13 dams, pass on at most/);
        await v.reads('aside', /Lay its stone back from the apron up/);
        await v.menu('Draw another work', 'Check dams, crest level with toe');
        const bed = bedOf('main', [140, 96]);
        await v.draw([bed[0], bed[3], bed[6], bed[bed.length - 1]].map(here));
        await v.reads('aside', /Check dams 1/);
        const series = async (): Promise<CheckDams | undefined> =>
          ((await v.kept()).options[0].works as readonly CheckDams[]).find((w) => w.name === 'Check dams 1');
        const dams = async (): Promise<CheckDams['dams']> => (await series())?.dams ?? [];
        const drawn = await dams();
        expect(drawn.length).toBeGreaterThan(2);
        expect(await v.reads('aside', /Litres held for each hour, a fill\s+\d/)).toMatch(/Channels measured on the ground/);
        await v.choose('Change dam', 'Dam 2');
        await v.type('Height', '0.45');
        expect(
          await v.until(
            async () => (await dams())[1]?.heightM,
            (h) => h === 0.45,
          ),
        ).toBe(0.45);
        // What cannot be is refused, and leaves all as it was.
        const rows = 'Dams as measured, in metres: at, height, bed, between banks, depth, silted %, lost %, stone near, note';
        await v.type(rows, '6,0.5,1.4');
        await v.press('Take them in');
        await v.reads('body', /row 1: column 4 \(between banks\) is empty/);
        expect((await dams())[1].heightM).toBe(0.45);
        const five = [5, 13, 21, 29, 37].map((at, k) => `${at},0.5,${(1.4 + 0.1 * k).toFixed(1)},4.5,1.6,,,,peg ${k + 1}`).join('\n');
        await v.type(rows, five);
        await v.press('Take them in');
        const pasted = await v.until(dams, (d) => d.length === 5);
        expect(pasted.map((d) => d.atM)).toEqual([5, 13, 21, 29, 37]);
        expect(pasted[4]).toMatchObject({ bedWidthM: 1.8, isMeasured: true, note: 'peg 5' });
        // What is known of one alone is typed, and what each takes and holds for it is looked up.
        await v.choose('Change dam', 'Dam 2');
        await v.type('Carried, if not as the rest', '120');
        await v.type('Loose stone near it', '2');
        await v.type('What was seen, or a picture’s name', 'IMG 7');
        await v.until(dams, ([, d]) => d.carryM === 120 && d.rockNearM3 === 2 && d.note === 'IMG 7');
        await v.unfold('What each of them takes');
        await v.reads('aside', /weighs t\s+carried m\s+takes h\s+1\s[\d.\s]+2\s+[\d.]+\s+[\d.]+\s+120/);
        await v.unfold('What each of them holds');
        await v.reads('aside', /L\/h, a fill\s+a year\s+in silt/);
        // By keyboard: the button is reached and pressed without the mouse.
        await v.page.$$eval('button', (all) => all.find((b) => b.textContent === 'Space by the gully rule')?.focus());
        await v.page.keyboard.press('Enter');
        const apart = await v.until(dams, (d) => d.length !== 5);
        expect(apart.length).toBeLessThan(drawn.length);
        await v.press('Undo');
        await v.until(dams, (d) => d.length === 5);
        // Of brush it must be held down: what is told of it is pressed, and stands in its shape and in how it is made.
        await v.choose('Made of', 'brush or wattle');
        await v.reads('aside', /Hold it down with \d+\skg\/m, or say what stakes, posts and wire hold/);
        await v.page.locator('aside ::-p-xpath(.//button[starts-with(., "Hold it down")])').click();
        await v.press('Do it');
        await v.until(series, (s) => (s?.dimensions.heldKgM ?? 0) > 50);
        await v.reads('aside', /wire it to the stakes over the top.*Pull up on it at a few places/s);
        await v.press('Undo');
        await v.press('Undo');
        await v.until(series, (s) => s?.form === 'rock');
        expect(await serious(v)).toEqual([]);
        await v.press('Remove Check dams 1');
        expect(await v.until(series, (w) => w === undefined)).toBeUndefined();
        await v.press('Undo');
        expect((await v.until(series, (w) => w !== undefined))?.dams).toHaveLength(5);
        // Three words on one dam, the rows, the height.
        for (let k = 0; k < 5; k++) await v.press('Undo');
        await v.until(dams, (d) => d.length === drawn.length && d[1].heightM !== 0.45);
      },
    );
  });

  describe('a channel as it is', () => {
    on(
      'is drawn and booked, says what its bed stands, carries dams on its own bed, and leaves them theirs when it is taken away',
      WORKS,
      async (v) => {
        await v.verdict(/Upper gully, 13 dams, pass on/);
        const works = async (): Promise<readonly WorkBase[]> => (await v.kept()).options[0].works;
        const before = (await works()).length;
        await v.choose('Work', 'Lower wash');
        await v.verdict(/Lower wash, 3 stretches, pass on at most/);
        expect(await v.reads('aside', /Carries to its bank at section \d\s+[\d.]+/)).toMatch(/Speed over its bed at the peak/);
        await v.choose('Its bed is of', 'cobbles');
        await v.choose('Change section', 'Section 3');
        await v.type('Left bank, up', '1.1');
        const wash = async (): Promise<Reach | undefined> => (await works()).find((w) => w.id === 'wash') as Reach | undefined;
        await v.until(wash, (w) => w?.sections[2].leftHighM === 1.1 && w.bedIs === 'cobbles'); // prettier-ignore
        // Rows that are not whole change nothing.
        const rows = 'Sections as measured, in metres: at, bed level, bed width, left out, left up, right out, right up';
        await v.type(rows, '0,818.9,2');
        await v.press('Take them in');
        await v.reads('body', /row 1: column 4 \(left out\) is empty/);
        expect((await wash())?.sections).toHaveLength(4);

        // Dams drawn down it stand on its sections.
        await v.menu('Draw another work', 'Check dams, crest level with toe');
        const bed = bedOf('main', [98, 68]);
        await v.draw([bed[0], bed[3], bed[bed.length - 1]].map(here));
        await v.reads('aside', /Check dams 1/);
        const dams = async (): Promise<CheckDams | undefined> => (await works()).find((w) => w.name === 'Check dams 1') as CheckDams | undefined; // prettier-ignore
        const made = await v.until(dams, (d) => d !== undefined);
        expect(made).toMatchObject({ channel: 'wash' });
        expect(made?.dams.every((d) => d.isMeasured === true)).toBe(true);
        await v.verdict(/Check dams 1, \d+ dams, pass on/);
        await v.unfold('Fine');
        await v.reads('aside', /Dams outside the channel they are told to stand in/);
        expect(await serious(v)).toEqual([]);
        await v.choose('Work', 'Lower wash');
        await v.press('Remove Lower wash');
        expect((await v.until(dams, (d) => d !== undefined && !('channel' in d)))?.dams).toHaveLength(made?.dams.length ?? -1);
        for (let k = 0; k < 4; k++) await v.press('Undo');
        await v.until(async () => (await works()).length, (n) => n === before); // prettier-ignore
        await v.until(wash, (w) => w !== undefined && w.bedIs === 'coarse-gravel');
      },
    );
  });

  describe('works on a slope', () => {
    on('half-moons fill a field, a weir crosses a gully and is refused on open ground, a head is read and rested', WORKS, async (v) => {
      await v.verdict(/Upper gully, 13 dams, pass on at most/);
      const works = async (): Promise<readonly WorkBase[]> => (await v.kept()).options[0].works;
      const named = async <W extends WorkBase>(name: string): Promise<W | undefined> =>
        (await works()).find((w) => w.name === name) as W | undefined;
      const before = (await works()).length;

      await v.menu('Draw another work', 'Half-moons over a field');
      await v.draw([[176, 30], [226, 34], [222, 66], [178, 62]].map(([x, y]) => here([x, y]))); // prettier-ignore
      await v.reads('aside', /Half-moons 1/);
      const moons = await v.until(() => named<HalfMoons>('Half-moons 1'), (w) => w !== undefined); // prettier-ignore
      expect(moons?.rows.length).toBeGreaterThan(2);
      await v.reads('aside', /Litres held for each hour, a fill\s+\d/);
      await v.reads('aside', /Say what the crop needs, the rain of two years in three, and what share of it runs off there/);
      await v.type('Radius', '1.5');
      await v.until(() => named<HalfMoons>('Half-moons 1'), (w) => w?.dimensions.radiusM === 1.5); // prettier-ignore
      expect(await serious(v)).toEqual([]);

      // By labour, against all others that are there.
      await v.unfold('Against other works, by labour');
      await v.reads('aside', /Half-moons 1\s+\d+ m³\s+[\d.]+ h\s+\d+/);

      // Basins in a chain: each place but the last; one made too large is refused, and nothing has changed.
      await v.menu('Draw another work', 'Rain gardens in a chain');
      await v.draw([[206, 150], [205, 143], [204, 132]].map(([x, y]) => here([x, y]))); // prettier-ignore
      await v.reads('aside', /Rain garden 1/);
      const areas = async (): Promise<readonly number[]> => (await named<RainGarden>('Rain garden 1'))?.basins.map((b) => b.areaM2) ?? [];
      expect(await areas()).toHaveLength(2);
      await v.choose('Change basin', 'Basin 2');
      await v.type('Water when full', '6');
      await v.until(areas, (a) => a[1] === 6);
      await v.type('Water when full', '400');
      await v.reads('body', /meet: their middles are 7\.\d+ m apart/);
      expect((await areas())[1]).toBe(6);

      // A weir wants a channel: on open ground it is refused in words, and nothing has changed.
      await v.menu('Draw another work', 'A weir across a gully');
      await v.draw([[200, 180], [214, 184]].map(([x, y]) => here([x, y]))); // prettier-ignore
      await v.reads('body', /a weir needs 0\.70 m/);
      expect((await works()).length).toBe(before + 2);
      await v.page.keyboard.press('Escape');
      const [x, y] = [mainAt(140), 140];
      await v.menu('Draw another work', 'A weir across a gully');
      await v.draw([[x - 6, y - 3], [x + 6, y + 3]].map(([a, b]) => here([a, b]))); // prettier-ignore
      await v.reads('aside', /Dig a pit beside it down to its base and say what it stands on/);
      await v.choose('Stands on', 'firm loam or clay');
      await v.until(() => named<Weir>('Weir 1'), (w) => w?.ground === 'firm'); // prettier-ignore
      await v.reads('aside', /Safety against sliding\s+[\d.]+ against at least 1\.50/);
      // What mends it is asked for its price and done, by keyboard.
      const said = await v.reads('aside', /Lay an apron [\d.]+ m long/);
      const apron = Number(/Lay an apron ([\d.]+) m long/.exec(said)?.[1]);
      await v.page.$$eval('button', (all) => all.find((b) => /^Lay an apron/.test(b.textContent))?.focus());
      await v.page.keyboard.press('Enter');
      await v.page.waitForFunction(() => [...document.querySelectorAll('button')].some((b) => b.textContent === 'Do it' && !b.disabled));
      await v.page.$$eval('button', (all) => all.find((b) => b.textContent === 'Do it')?.focus());
      await v.page.keyboard.press('Enter');
      const mended = await v.until(() => named<Weir>('Weir 1'), (w) => w !== undefined && w.dimensions.apronM !== 4); // prettier-ignore
      expect(mended?.dimensions.apronM).toBeCloseTo(apron, 1);

      await v.reads('aside', /Water at each level/);
      await v.choose('Work', 'Gully head');
      // Water only runs over it: there is none to be looked up by its level.
      expect(await v.reads('aside', /Reaches what stands uphill in\s+\d+ yr/)).not.toMatch(/Water at each level/);
      // Where it lands below what is laid in there is stone to lay, and to fetch.
      await v.choose('What is done', 'bales, logs or brush laid in');
      await v.reads('aside', /Stone\s+[\d.]+\s?m³/);
      await v.page.$$eval('summary, button', (all) =>
        (all as HTMLElement[]).find((b) => b.textContent?.trim() === 'If the ground above rests')?.scrollIntoView(),
      );
      await v.reads('aside', /10 years\s*\d+ L\/s/);

      for (let k = 0; k < 8; k++) await v.press('Undo');
      await v.until(async () => (await works()).length, (n) => n === before); // prettier-ignore
    });
  });

  describe('what suits a place', () => {
    on(
      'is asked on the plan, told in figures, placed by a button; other works of a slope are drawn, changed, refused and taken back',
      WORKS,
      async (v) => {
        await v.choose('Work', 'Upper gully');
        await v.verdict(/Upper gully, 13 dams, pass on at most/);
        const works = async (): Promise<readonly WorkBase[]> => (await v.kept()).options[0].works;
        const named = async <W extends WorkBase>(name: string): Promise<W | undefined> =>
          (await works()).find((w) => w.name === name) as W | undefined;
        const before = (await works()).length;
        const field = [[176, 30], [226, 34], [222, 66], [178, 62]].map(([x, y]) => here([x, y])); // prettier-ignore

        // What nobody has said is asked for; once it is said, one fits and is tried there.
        await v.menu('What suits here?', 'What suits this field?');
        await v.draw(field);
        await v.reads('aside', /Nothing fits by what is known\.|Not here:|Perhaps here:|Best here:/);
        await v.choose('Loose stone near', 'plenty');
        await v.reads('aside', /(Best|Perhaps) here: stone lines, since stone lies all over.*room for \d+ m³ in \d+ hours of one person/s);
        await v.type('An hour of work costs', '10');
        await v.reads('aside', /Would cost in work\s+[\d ,]+/);
        await v.reads('aside', /Pond: 0\.90 m of soil is too little to dig one in/);
        expect(await serious(v)).toEqual([]);
        // Placed by keyboard, in one step that one undo takes back.
        await v.page.$$eval('aside button', (all) =>
          (all as HTMLElement[]).find((b) => b.textContent?.trim() === 'Place stone lines')?.focus(),
        );
        await v.page.keyboard.press('Enter');
        await v.reads('aside', /Stone lines 1/);
        expect((await works()).length).toBe(before + 1);
        await v.press('Undo');
        await v.until(async () => (await works()).length, (n) => n === before); // prettier-ignore

        // In the gully, its head comes first.
        await v.press('Zoom out');
        await v.menu('What suits here?', 'What suits this channel?');
        await v.draw([HEAD_Y + 14, HEAD_Y - 16].map((y) => here([mainAt(y), y])));
        await v.reads('aside', /First mend Upper gully\. Best here: gully head, since a drop of [\d.]+ m eats back uphill/);
        await v.reads('aside', /A channel 4\d m long that falls 1\d\.\d %/);
        await v.press('Put it away');

        await v.menu('Draw another work', 'Swales over a field, by what runs off');
        await v.draw([[20, 150], [70, 155], [66, 215], [22, 212]].map(([x, y]) => here([x, y]))); // prettier-ignore
        await v.reads('aside', /Swales 1/);
        const set = await v.until(() => named<SwaleSet>('Swales 1'), (w) => w !== undefined); // prettier-ignore
        expect(set?.lines.length).toBeGreaterThan(3);
        await v.reads('aside', /Fall between, as in southern Africa\s+[\d.]+ m/);
        await v.choose('Filled with', 'woodchip');
        await v.reads('aside', /Stake or net it down/);
        await v.choose('What fills them', 'is staked or netted down');
        await v.until(() => named<SwaleSet>('Swales 1'), (w) => w?.held === 'pinned'); // prettier-ignore

        await v.menu('Draw another work', 'Terraces over a slope');
        await v.draw([[176, 90], [226, 94], [222, 126], [178, 122]].map(([x, y]) => here([x, y]))); // prettier-ignore
        await v.reads('aside', /Terraces 1/);
        await v.reads('aside', /Dig a pit where the highest wall is to stand/);
        await v.choose('Walls stand on', 'firm clay');
        await v.choose('Earth behind them', 'loam');
        await v.unfold('Fine');
        await v.reads('aside', /Safety of the highest wall against sliding\s+[\d.]+ against at least 1\.50/);
        // What cannot be is refused in words, and nothing has changed.
        await v.type('Water may stand over its outer side', '350');
        await v.reads('body', /its edge is 200 mm high/);
        expect((await named<Terraces>('Terraces 1'))?.dimensions.holdM).toBe(0.05);
        expect(await serious(v)).toEqual([]);

        await v.menu('Draw another work', 'Soak trench');
        await v.draw([here([186, 60]), here([200, 62])]);
        await v.reads('aside', /Dig a hole as deep as it/);
        await v.menu('Draw another work', 'Ripping over a field');
        await v.draw([[80, 30], [110, 34], [108, 60], [82, 58]].map(([x, y]) => here([x, y]))); // prettier-ignore
        await v.reads('aside', /Slots, end to end\s+\d+ m/);
        await v.choose('The ground at that depth is', 'wet: it smears');
        await v.reads('aside', /Wait for the dry season/);
        await v.press('Remove Ripping 1');
        await v.until(async () => (await works()).length, (n) => n === before + 3); // prettier-ignore
        for (let k = 0; k < 10; k++) await v.press('Undo');
        await v.until(async () => (await works()).length, (n) => n === before); // prettier-ignore
      },
    );
  });
}
