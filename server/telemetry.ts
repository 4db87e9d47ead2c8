// A stand-in for level gauges on tanks and a rain gauge: invented readings as an event stream, with the gaps and nonsense such gauges have.
import type { RequestHandler } from 'express';

/** Readings come so often, for so long at the most [ms]; stores that are read at the most. */
const [EVERY_MS, LONGEST_MS, MOST_STORES] = [1000, 600_000, 50];
/** Every so many readings nothing is heard of a store, or something that cannot be. */
const [SILENT_EVERY, NONSENSE_EVERY] = [7, 9];

interface Gauged {
  readonly id: string;
  readonly roomM3: number;
}

/** Stores as "id:room" with commas between; null where that cannot be read. */
function gaugedIn(text: unknown): readonly Gauged[] | null {
  if (typeof text !== 'string') return null;
  const parts = text.split(',');
  const found = parts.flatMap((part): Gauged[] => {
    const [, id, room] = /^([\w#:.-]{1,80}):(\d{1,9}(?:\.\d{1,9})?)$/.exec(part) ?? [];
    return id !== undefined && Number(room) > 0 ? [{ id, roomM3: Number(room) }] : [];
  });
  return found.length === parts.length && found.length <= MOST_STORES ? found : null;
}

/** What the gauge of a store would say the n-th time [m3]; null: nothing. */
export function readingOf({ id, roomM3 }: Gauged, n: number): number | null {
  const seed = [...id].reduce((a, c) => (a * 31 + c.charCodeAt(0)) % 997, 7);
  if ((n + seed) % SILENT_EVERY === 3) return null;
  if ((n + seed) % NONSENSE_EVERY === 4) return seed % 2 === 0 ? -0.6 * roomM3 : 4.2 * roomM3;
  return roomM3 * (0.52 + 0.2 * Math.sin((n + seed) / 40) + 0.005 * Math.sin(n * 1.7));
}

/** Rain since the last reading [mm]: a shower now and then. */
export const rainOf = (n: number): number => (n % 60 < 12 ? 0.2 * ((n % 5) + 1) : 0);

/** Readings of the stores asked for, one message a second. */
export const telemetry: RequestHandler = (request, response) => {
  const stores = gaugedIn(request.query.of);
  if (!stores) {
    response.status(400).json({ errors: [{ code: 'telemetry.of', what: 'the stores to read are not given', where: { field: 'of' }, do: 'Ask with of=id:room,id:room, rooms in cubic metres, 50 at the most.' }] }); // prettier-ignore
    return;
  }
  response.writeHead(200, { 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store', Connection: 'keep-alive' });
  let n = 0;
  const say = (): void => {
    const levelM3 = Object.fromEntries(stores.map((s) => [s.id, readingOf(s, n)]));
    response.write(`data: ${JSON.stringify({ simulated: true, n, rainMm: rainOf(n), levelM3 })}\n\n`);
    n++;
  };
  say();
  const every = setInterval(say, EVERY_MS);
  const end = setTimeout(() => response.end(), LONGEST_MS);
  response.on('close', () => {
    clearInterval(every);
    clearTimeout(end);
  });
};
