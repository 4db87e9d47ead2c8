// Junk sent to a server on this machine: it answers in words, closes what is slow, and goes on.
import { type AddressInfo, connect } from 'node:net';
import { createApp, createLimited } from '../server/app.ts';
import { type Chance, chanceOf } from './mutate.ts';

export interface RequestsReport {
  readonly sent: number;
  /** Answers of the 500s, or with a stack or a path of this machine in them. */
  readonly wrong: readonly string[];
  /** Requests that were never answered nor closed. */
  readonly hanging: number;
  /** Seconds until a body that comes a byte at a time was cut off. */
  readonly slowBodyS: number;
  readonly isAlive: boolean;
}

const pick = <T>(list: readonly T[], chance: Chance): T => list[Math.floor(chance() * list.length)];
const METHODS = ['GET', 'HEAD', 'POST', 'PUT', 'OPTIONS', 'TRACE', 'get', 'G\u0000T', ''];
const PATHS = [
  '/',
  '/%',
  '/%00',
  '/../../etc/passwd',
  '/..%2f..%2fpackage.json',
  '/p/%ff/works',
  '/assets/',
  '/samples/demo.outlet',
  '/api/rainfall-frequency?wetness=NaN',
  '/api/rainfall-frequency?wetness[]=1',
  '/api/x',
  `/${'a'.repeat(9000)}`,
  '//',
  '/\\..\\',
  '*',
  'http://other/',
  '/start?x=%E0%A4%A',
];
const HEADERS = [
  'Range: bytes=0-1,3-4,99999999-',
  'Range: bytes=abc',
  'Range: bytes=-0',
  'Content-Length: 99999999',
  'Content-Length: -1',
  'Transfer-Encoding: chunked',
  `X-A: ${'x'.repeat(9000)}`,
  'Host:',
  'If-Modified-Since: never',
  'Expect: 100-continue',
  'Upgrade: websocket',
  'Accept-Encoding: \u0001',
  'Cookie: a=%',
];

function junk(chance: Chance): Buffer {
  if (chance() < 0.1) return Buffer.from(Array.from({ length: 200 }, () => Math.floor(chance() * 256)));
  const lines = [
    `${pick(METHODS, chance)} ${pick(PATHS, chance)} HTTP/${pick(['1.1', '1.0', '9.9', ''], chance)}`,
    'Host: a',
    'Connection: close',
  ];
  for (let k = 0; k < Math.floor(chance() * 4); k++) lines.push(pick(HEADERS, chance));
  return Buffer.from(`${lines.join('\r\n')}\r\n\r\n${chance() < 0.3 ? 'x'.repeat(Math.floor(chance() * 3000)) : ''}`, 'latin1');
}

/** Sends bytes and gives what comes back until the connection is closed; null when it is not closed in time. */
function exchange(port: number, bytes: Buffer, ms: number): Promise<string | null> {
  return new Promise((resolve) => {
    const socket = connect(port, '127.0.0.1', () => socket.write(bytes));
    let text = '';
    const timer = setTimeout(() => {
      socket.destroy();
      resolve(null);
    }, ms);
    socket.on('data', (d) => (text += text.length < 20_000 ? d.toString('latin1') : ''));
    socket.on('error', () => undefined);
    socket.on('close', () => {
      clearTimeout(timer);
      resolve(text);
    });
  });
}

const LEAKS = /\n\s+at \S+ \(|node_modules|\/work\/|\/tmp\/|TypeError|URIError/;

/** Seconds until the server cuts off a request whose body never comes to an end. */
async function slowBody(port: number): Promise<number> {
  const start = performance.now();
  await new Promise<void>((done) => {
    const socket = connect(port, '127.0.0.1', () => socket.write('POST /start HTTP/1.1\r\nHost: a\r\nContent-Length: 900\r\n\r\n'));
    const drip = setInterval(() => socket.write('x'), 500);
    const end = (): void => {
      clearInterval(drip);
      socket.destroy();
      done();
    };
    socket.on('error', end);
    socket.on('close', end);
    socket.resume();
    setTimeout(end, 40_000).unref();
  });
  return (performance.now() - start) / 1000;
}

export async function abuseRequests(on: {
  readonly count: number;
  readonly seed: number;
  readonly dist?: string;
}): Promise<RequestsReport> {
  const server = createLimited(createApp(on.dist));
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
  const { port } = server.address() as AddressInfo;
  const chance = chanceOf(on.seed);
  const wrong: string[] = [];
  let hanging = 0;
  const slow = slowBody(port);
  for (let k = 0; k < on.count; k += 20) {
    const batch = Array.from({ length: Math.min(20, on.count - k) }, () => junk(chance));
    for (const [i, text] of (await Promise.all(batch.map((bytes) => exchange(port, bytes, 30_000)))).entries()) {
      if (text === null) hanging++;
      else if (/^HTTP\/1\.1 5(?!05)/.test(text) || LEAKS.test(text.slice(0, 4000))) wrong.push(batch[i].toString('latin1').slice(0, 60));
    }
  }
  const slowBodyS = await slow;
  const isAlive = (
    (await exchange(port, Buffer.from('GET /start HTTP/1.1\r\nHost: a\r\nConnection: close\r\n\r\n'), 5000)) ?? ''
  ).startsWith('HTTP/1.1 200');
  server.closeAllConnections();
  await new Promise((done) => server.close(done));
  return { sent: on.count, wrong, hanging, slowBodyS, isAlive };
}
