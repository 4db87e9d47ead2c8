import 'reflect-metadata';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import express, { type Express } from 'express';
import helmet from 'helmet';
import { rainfallFrequency } from './rainfall-frequency.ts';

const DIST = fileURLToPath(new URL('../dist', import.meta.url));

/** The app with its stand-ins; every one of them says that it is simulated. */
export function createApp(dist = DIST): Express {
  const app = express();
  app.use(
    helmet({
      contentSecurityPolicy: {
        directives: {
          'img-src': ["'self'", 'data:', 'blob:'],
          'worker-src': ["'self'", 'blob:'],
          'script-src': ["'self'", "'wasm-unsafe-eval'"],
          'connect-src': ["'self'", 'blob:', 'data:'],
          'upgrade-insecure-requests': null,
        },
      },
    }),
  );
  app.get('/api/rainfall-frequency', rainfallFrequency);
  app.use('/api', (_request, response) => {
    response
      .status(404)
      .json({ errors: [{ code: 'api.unknown', what: 'there is no such service', where: {}, do: 'Use /api/rainfall-frequency.' }] });
  });
  if (existsSync(dist)) {
    app.use(express.static(dist));
    app.get('/{*page}', (_request, response) => response.sendFile(join(dist, 'index.html')));
  }
  return app;
}
