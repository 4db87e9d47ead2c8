import { describe, expect, it } from '@jest/globals';
import request from 'supertest';
import { type RainTable, type TableLimits, checkTable } from '#core/rain';
import { createApp } from './app.ts';

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
