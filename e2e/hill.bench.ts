// How the page itself keeps up on a hill full of works: a dam in the middle of its gully is dragged along it for some seconds, and
// answers and frames are counted. `npm run bench:page`; the build must be there.
import { writeSync } from 'node:fs';
import { type Point, pointAlong } from '#core/geometry';
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
  /** How long the page itself worked at each frame, style, layout and painting with it [ms]. */
  workMs: number[];
}

function countAnswers(): void {
  const counted: Counting = { answers: 0, frames: 0, workMs: [] };
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
  // What is posted while a frame is made comes once it is made.
  const { port1, port2 } = new MessageChannel();
  let begunMs = 0;
  port1.onmessage = () => counted.workMs.push(performance.now() - begunMs);
  const frame = (): void => {
    counted.frames++;
    begunMs = performance.now();
    port2.postMessage(0);
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

const [IDLE_S, MOVED_S] = [2, 3];

/** Frames a second, and how long the page worked at each: half of them, and all but a twentieth, took no longer. */
interface Frames {
  readonly framesASecond: number;
  readonly frameMs: number;
  readonly slowFrameMs: number;
}

/** What was counted since. */
async function since(v: Visitor, on: readonly [before: Counting, startMs: number]): Promise<Frames & { readonly answersASecond: number }> {
  const [{ answers, frames, workMs }, startMs] = on;
  const seconds = (performance.now() - startMs) / 1000;
  const now = await counted(v);
  const work = now.workMs.slice(workMs.length).sort((a, b) => a - b);
  const part = (share: number): number => work[Math.floor(share * (work.length - 1))] ?? NaN;
  return {
    framesASecond: (now.frames - frames) / seconds,
    answersASecond: (now.answers - answers) / seconds,
    frameMs: part(0.5),
    slowFrameMs: part(0.95),
  };
}

/** Frames a second while nothing happens: what a machine whose processors are taken elsewhere does not give anybody. */
async function framesIdle(v: Visitor): Promise<number> {
  // What is asked beside the answer, the shaded ground and its contours, comes before.
  await rests(3000);
  const before = [await counted(v), performance.now()] as const;
  await rests(1000 * IDLE_S);
  return (await since(v, before)).framesASecond;
}

/** The pointer goes round a place of the plan for some seconds, so far to the sides and up and down [px]: what is counted meanwhile. */
async function goingRound(
  v: Visitor,
  [x, y]: Point,
  on: { readonly wide: number; readonly high: number; readonly seconds: number },
): Promise<Frames> {
  const [before, start] = [await counted(v), performance.now()];
  for (let k = 0; performance.now() - start < 1000 * on.seconds; k++) {
    await v.page.mouse.move(x + on.wide * Math.sin(k / 20), y - on.high * Math.sin(k / 13));
    await rests(10);
  }
  const { framesASecond, frameMs, slowFrameMs } = await since(v, [before, start]);
  return { framesASecond, frameMs, slowFrameMs };
}

/** The pointer passes over the middle of the plan; then the whole hill is moved about by hand, from a corner where nothing is taken instead. */
async function pointed(v: Visitor): Promise<{ readonly hillPassedOver: Frames; readonly hillMoved: Frames }> {
  const box = await (await v.page.waitForSelector('[data-testid="plan"]'))?.boundingBox();
  if (!box) throw new Error('there is no plan');
  const middle: Point = [box.x + box.width / 2, box.y + box.height / 2];
  const hillPassedOver = await goingRound(v, middle, { wide: 150, high: 100, seconds: IDLE_S });
  const corner: Point = [box.x + 40, box.y + box.height - 60];
  await v.page.mouse.move(...corner);
  await v.page.mouse.down();
  const hillMoved = await goingRound(v, corner, { wide: 60, high: 40, seconds: MOVED_S });
  await v.page.mouse.move(...corner);
  await v.page.mouse.up();
  await rests(500);
  return { hillPassedOver, hillMoved };
}

async function measured(v: Visitor): Promise<object> {
  await v.drop('hill.outlet', hillFile());
  // A first visit opens the demo; the hill takes its place.
  await v.page.waitForFunction(() => location.pathname.startsWith('/p/crowded'));
  const firstMs = await isAnswered(v);
  const idleFramesASecond = await framesIdle(v);
  const { hillPassedOver, hillMoved } = await pointed(v);
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
  const damDragged = await since(v, [before, start]);
  await v.page.mouse.up();
  return { firstMs, idleFramesASecond, hillPassedOver, hillMoved, damDragged };
}

const bench = await openBench();
try {
  writeSync(1, `${JSON.stringify(await measured(await Visitor.arrive(bench, '/', { before: countAnswers })))}\n`);
} finally {
  await bench.close();
}
