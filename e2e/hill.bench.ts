// How the page itself keeps up on a hill full of works: a dam in the middle of its gully is dragged along it for some seconds, and
// answers and frames are counted. `npm run bench:page`; the build must be there.
import { writeSync } from 'node:fs';
import { pointAlong } from '#core/geometry';
import { writeProjectFile } from '#core/formats';
import { type Project, assetName, gridToBytes } from '#core/project';
import type { CheckDams } from '#core/works';
import { crowded } from '../cli/bench/field-works.ts';
import { Visitor, openBench } from './driver.ts';

const DRAGGED_S = 6;

/** What the page counts by itself. */
interface Counting {
  answers: number;
  frames: number;
}

function countAnswers(): void {
  const counted: Counting = { answers: 0, frames: 0 };
  const on = globalThis as unknown as { counted: Counting; Worker: typeof Worker };
  on.counted = counted;
  on.Worker = class extends Worker {
    constructor(...made: ConstructorParameters<typeof Worker>) {
      super(...made);
      // Of what comes only whole parcels are answers: what was given up is told too.
      this.addEventListener('message', ({ data }: MessageEvent<{ readonly value?: { readonly value?: object | null } | null }>) => {
        const { value } = data.value ?? {};
        if (typeof value === 'object' && value !== null && 'fresh' in value) counted.answers++;
      });
    }
  };
  const frame = (): void => {
    counted.frames++;
    requestAnimationFrame(frame);
  };
  requestAnimationFrame(frame);
}

/** The hill as a file: its ground beside its document. */
function hillFile(): Uint8Array {
  const { project, context } = crowded();
  const bytes = gridToBytes(context.grids());
  const sha256 = assetName(bytes);
  const terrain = { ...project.terrain, sha256 } as Project['terrain'];
  return writeProjectFile({ ...project, terrain }, new Map([[sha256, bytes]]));
}

const counted = (v: Visitor): Promise<Counting> => v.page.evaluate(() => ({ ...(globalThis as unknown as { counted: Counting }).counted }));
const rests = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));

async function isAnswered(v: Visitor): Promise<number> {
  const start = performance.now();
  // What is still being worked out ends in dots, or in how far it is.
  await v.page.waitForFunction(() => /[^…%]$/.test(document.querySelector('[data-testid="verdict"] p')?.textContent?.trim() ?? ''));
  return performance.now() - start;
}

const MOVED_S = 3;

/** Frames a second while the whole hill is moved about by hand, from a corner where nothing is taken instead. */
async function framesMoved(v: Visitor): Promise<number> {
  // What is asked beside the answer, the shaded ground and its contours, comes before.
  await rests(3000);
  const box = await (await v.page.waitForSelector('[data-testid="plan"]'))?.boundingBox();
  if (!box) throw new Error('there is no plan');
  const [x, y] = [box.x + 40, box.y + box.height - 60];
  await v.page.mouse.move(x, y);
  await v.page.mouse.down();
  const [before, start] = [await counted(v), performance.now()];
  for (let k = 0; performance.now() - start < 1000 * MOVED_S; k++) {
    await v.page.mouse.move(x + 60 * Math.sin(k / 20), y - 40 * Math.sin(k / 13));
    await rests(10);
  }
  const seconds = (performance.now() - start) / 1000;
  const { frames } = await counted(v);
  await v.page.mouse.move(x, y);
  await v.page.mouse.up();
  await rests(500);
  return (frames - before.frames) / seconds;
}

async function measured(v: Visitor): Promise<Readonly<Record<string, number>>> {
  await v.drop('hill.outlet', hillFile());
  // A first visit opens the demo; the hill takes its place.
  await v.page.waitForFunction(() => location.pathname.startsWith('/p/crowded'));
  const firstMs = await isAnswered(v);
  const movedFramesASecond = await framesMoved(v);
  const project = await v.kept();
  const series = project.options[0].works.find((w): w is CheckDams => 'dams' in w);
  if (!series) throw new Error('no dams stand on the hill');
  const at = pointAlong(series.line, series.dams[Math.floor(series.dams.length / 2)].atM).point;
  const { x, y } = await v.onPage(at);
  await v.page.mouse.click(x, y);
  for (let k = 0; k < 3; k++) {
    const near = await v.onPage(at);
    await v.page.mouse.move(near.x, near.y);
    await v.page.mouse.wheel({ deltaY: -300 });
    await rests(500);
  }
  const from = await v.onPage(at);
  await v.page.mouse.move(from.x, from.y);
  await v.page.mouse.down();
  const [before, start] = [await counted(v), performance.now()];
  for (let k = 0; performance.now() - start < 1000 * DRAGGED_S; k++) {
    await v.page.mouse.move(from.x, from.y + 12 * Math.sin(k / 15));
    await rests(15);
  }
  const after = await counted(v);
  const seconds = (performance.now() - start) / 1000;
  await v.page.mouse.up();
  return {
    firstMs,
    movedFramesASecond,
    answersASecond: (after.answers - before.answers) / seconds,
    framesASecond: (after.frames - before.frames) / seconds,
  };
}

const bench = await openBench();
try {
  writeSync(1, `${JSON.stringify(await measured(await Visitor.arrive(bench, '/', { before: countAnswers })))}\n`);
} finally {
  await bench.close();
}
