import { describe, expect, it } from '@jest/globals';
import { mkdirSync, mkdtempSync, writeFileSync } from 'node:fs';
import { get } from 'node:http';
import { type AddressInfo, connect } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import request from 'supertest';
import { importFile } from '#core/formats';
import { type RainTable, type TableLimits, checkTable } from '#core/rain';
import { statsOf } from '#core/terrain';
import { createApp, createLimited } from './app.ts';
import { readingOf } from './telemetry.ts';

describe('the rainfall-frequency stand-in', () => {
  const app = createApp();
  it('gives a sound table and says that it is simulated', async () => {
    const { body, status } = await request(app).get('/api/rainfall-frequency?wetness=1.4');
    const answer = body as { simulated: boolean; source: string; table: RainTable; limits: TableLimits };
    expect(status).toBe(200);
    expect(answer.simulated).toBe(true);
    expect(answer.source).toContain('simulated');
    expect(checkTable(answer.table)).toEqual([]);
    answer.table.depthMm.forEach((row, r) =>
      row.forEach((mm, c) => {
        expect(answer.limits.lowMm[r][c]).toBeLessThan(mm);
        expect(answer.limits.highMm[r][c]).toBeGreaterThan(mm);
      }),
    );
  });
  it('is wetter where asked, and the same for the same question', async () => {
    const depth = async (w: number): Promise<number> =>
      ((await request(app).get(`/api/rainfall-frequency?wetness=${w}`)).body as { table: RainTable }).table.depthMm[2][4];
    expect(await depth(2)).toBeGreaterThan(1.9 * (await depth(1)));
    expect(await depth(1)).toBe(await depth(1));
  });
  it('refuses nonsense in words, and knows no other service', async () => {
    const bad = await request(app).get('/api/rainfall-frequency?wetness=soaking');
    expect(bad.status).toBe(400);
    expect((bad.body as { errors: { where: { field: string } }[] }).errors[0].where.field).toBe('wetness');
    expect((await request(app).get('/api/nothing')).status).toBe(404);
  });
  it('lets the page run nothing that it did not serve', async () => {
    const { headers } = await request(app).get('/api/rainfall-frequency');
    expect(headers['content-security-policy']).toMatch(/script-src 'self' 'wasm-unsafe-eval'(;|$)/);
  });
});

describe('the elevation stand-in', () => {
  const app = createApp();
  const asked = async (query: string): Promise<{ simulated: boolean; source: string; asc: string }> =>
    (await request(app).get(`/api/elevation?${query}`)).body as never;
  it('makes land up that says so, is the same for the same question, and reads as a grid that water runs off', async () => {
    const told = await asked('across=100&land=4');
    expect([told.simulated, told.source]).toEqual([true, 'made-up land 4 (simulated)']);
    expect((await asked('across=100&land=4')).asc).toBe(told.asc);
    expect((await asked('across=100&land=5')).asc).not.toBe(told.asc);
    const read = await importFile({ name: 'land.asc', bytes: new TextEncoder().encode(told.asc) }, { crs: null, as: 'terrain' });
    if (read.kind !== 'terrain') throw new Error('it is no ground');
    const { ncols, nrows, cellM } = read.grid;
    expect([ncols, nrows, cellM]).toEqual([50, 50, 2]);
    const { minM, maxM } = statsOf(read.grid);
    expect(maxM! - minM!).toBeGreaterThan(3);
    expect(maxM! - minM!).toBeLessThan(30);
  }, 60000);
  it('refuses nonsense in words', async () => {
    for (const [query, field] of [['across=9', 'across'], ['across=wide', 'across'], ['land=1.5', 'land'], ['tall=4', 'tall']]) {
      const { status, body } = await request(app).get(`/api/elevation?${query}`);
      expect([status, (body as { errors: { where: { field: string } }[] }).errors[0].where.field]).toEqual([400, field]);
    }
  }); // prettier-ignore
});

describe('the gauges that stand in for real ones', () => {
  it('tell levels a second apart, simulated, with gaps and nonsense among them; refuse what names no store', async () => {
    const server = createApp().listen(0, '127.0.0.1');
    await new Promise((done) => server.once('listening', done));
    const { port } = server.address() as AddressInfo;
    const { type, text } = await new Promise<{ type: string | undefined; text: string }>((done, fail) => {
      const asked = get(`http://127.0.0.1:${port}/api/telemetry?of=tank:9.05,pond:950`, (response) => {
        let heard = '';
        response.on('data', (part: Buffer) => {
          heard += part.toString();
          if (heard.split('\n\n').length <= 2) return;
          asked.destroy();
          done({ type: response.headers['content-type'], text: heard });
        });
        response.on('error', () => undefined);
      });
      asked.on('error', fail);
    });
    server.closeAllConnections();
    await new Promise((done) => server.close(done));
    expect(type).toBe('text/event-stream');
    const [first, second] = text.split('\n\n').map((m) => JSON.parse(m.replace(/^data: /, '')|| 'null') as { simulated: boolean; n: number; levelM3: object } | null); // prettier-ignore
    expect([first?.simulated, first?.n, second?.n, Object.keys(first?.levelM3 ?? {})]).toEqual([true, 0, 1, ['tank', 'pond']]);
    const heard = Array.from({ length: 126 }, (_, n) => readingOf({ id: 'tank', roomM3: 9 }, n));
    expect([heard.filter((v) => v === null).length, heard.filter((v) => v !== null && (v < 0 || v > 9)).length]).toEqual([18, 12]);
    for (const asked of ['', 'tank', 'tank:-1', 'a:0', Array(51).fill('a:1').join()])
      expect((await request(createApp()).get(`/api/telemetry?of=${asked}`)).status).toBe(400);
    expect((await request(createApp()).get('/api/telemetry')).status).toBe(400);
  });
});

describe('the server', () => {
  const dist = mkdtempSync(join(tmpdir(), 'outlet-dist-'));
  mkdirSync(join(dist, 'assets'));
  writeFileSync(join(dist, 'index.html'), '<!doctype html><title>the app</title>');
  writeFileSync(join(dist, 'assets', 'a.js'), 'export const a = 1;'.repeat(20));
  const app = createApp(dist);
  const expectPlain = (text: string): void => {
    expect(text).not.toMatch(/\n\s+at |node_modules|\/tmp|\/work|Error:/);
    expect(JSON.parse(text)).toHaveProperty('errors.0.do');
  };

  it('answers nonsense in words, without a stack or a path', async () => {
    for (const path of ['/%', '/assets/%E0%A4%A', '/p/%ff/works', '/assets/a.js%00']) {
      const { status, text } = await request(app).get(path);
      expect([path, status]).toEqual([path, 400]);
      expectPlain(text);
    }
    for (const range of ['bytes=abc', 'bytes=-', 'lines=1-2', 'bytes=1-2-3']) {
      const { status, text } = await request(app).get('/assets/a.js').set('Range', range);
      expect([range, status]).toEqual([range, 400]);
      expectPlain(text);
    }
    const beyond = await request(app).get('/assets/a.js').set('Range', 'bytes=9000-9001');
    expect(beyond.status).toBe(416);
    expectPlain(beyond.text);
    const part = await request(app).get('/assets/a.js').set('Range', 'bytes=0-5');
    expect([part.status, (part.body as Buffer | undefined)?.toString() ?? part.text]).toEqual([206, expect.anything()]);
  });
  it('shows the app at its pages only: a missing file is missing', async () => {
    for (const path of ['/', '/start', '/projects', '/p/x', '/p/x/storm', '/p/x/book/b'])
      expect((await request(app).get(path)).text).toContain('the app');
    for (const path of ['/assets/b.js', '/favicon.ico', '/nothing', '/p/x/y/z', '/.git/config', '/../package.json']) {
      const { status, text } = await request(app).get(path);
      expect([path, status]).toEqual([path, 404]);
      expectPlain(text);
    }
    expect((await request(app).post('/start').send('x')).status).toBe(405);
  });
  it('takes no large body, says nothing of https, and lets styles come from itself', async () => {
    expect((await request(app).post('/').send('x'.repeat(5000))).status).toBe(413);
    const { headers } = await request(app).get('/');
    expect(headers).not.toHaveProperty('strict-transport-security');
    expect(headers['content-security-policy']).toMatch(/style-src 'self' 'unsafe-inline'(;|$)/);
  });
  it('closes a request that comes too slowly, and refuses too long a header', async () => {
    const server = createLimited(app);
    await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
    const { port } = server.address() as AddressInfo;
    // The limits themselves; a test does not wait half a minute for a slow body.
    expect(server.requestTimeout).toBeLessThanOrEqual(25_000);
    expect(server.headersTimeout).toBeLessThan(server.requestTimeout);
    server.headersTimeout = 200;
    const answer = await new Promise<string>((done) => {
      const socket = connect(port, '127.0.0.1', () => socket.write('GET / HTTP/1.1\r\nHost: a\r\nX-Slow: '));
      let text = '';
      socket.on('data', (d) => (text += d.toString()));
      socket.on('close', () => done(text));
    });
    expect(answer).toMatch(/^HTTP\/1.1 408|^$/);
    const long = await request(server).get('/').set('X-Long', 'x'.repeat(9000));
    expect(long.status).toBe(431);
    server.closeAllConnections();
    await new Promise((done) => server.close(done));
  }, 20_000);
});
