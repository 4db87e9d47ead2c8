import { existsSync } from 'node:fs';
import { type Server, createServer } from 'node:http';
import { fileURLToPath } from 'node:url';
import express, { type ErrorRequestHandler, type Express, type RequestHandler } from 'express';
import helmet from 'helmet';
import { elevation } from './elevation.ts';
import { rainfallFrequency } from './rainfall-frequency.ts';
import { telemetry } from './telemetry.ts';

const DIST = fileURLToPath(new URL('../dist', import.meta.url));

/** Addresses the app itself shows; all else is a file or nothing. */
const PAGES = ['/', '/start', '/projects', '/p/:id', '/p/:id/:stage', '/p/:id/book/:book'];
/** Nothing here takes a body: a few bytes are let pass, for clients that always send some. */
const MOST_BODY = 1024;

const plainly = (status: number, what: string, advice: string): RequestHandler => {
  return (_request, response) => {
    response.status(status).json({ errors: [{ code: `http.${status}`, what, where: {}, do: advice }] });
  };
};

/** Requests that no browser of ours makes: a body, or a range that is none. */
const refuseOdd: RequestHandler = (request, response, next) => {
  const { range } = request.headers;
  const length = Number(request.headers['content-length'] ?? 0);
  if (length > MOST_BODY || 'transfer-encoding' in request.headers) {
    response.setHeader('Connection', 'close');
    return void plainly(413, 'nothing here takes a body as large', 'Ask without one.')(request, response, next);
  }
  if (range !== undefined && !/^bytes=(\d+-\d*|-\d+)(,\s*(\d+-\d*|-\d+)){0,4}$/.test(range))
    return void plainly(400, 'the range asked for is none', 'Ask for the whole file.')(request, response, next);
  next();
};

const WORDS: Readonly<Record<number, readonly [what: string, advice: string]>> = {
  400: ['the address cannot be read', 'Check the address.'],
  404: ['there is no such file', 'Begin at the start page.'],
  405: ['that can only be read', 'Ask with GET.'],
  416: ['the file has no such range', 'Ask for the whole file.'],
};

/** Whatever went wrong, in words: never a stack, never a path of this machine. */
// Express knows a handler of errors by its four parameters.
// oxlint-disable-next-line max-params
const inWords: ErrorRequestHandler = (error: { status?: number } | undefined, request, response, next) => {
  if (response.headersSent) return next(error);
  // What lies outside is as good as not there.
  const status = error?.status === 403 ? 404 : (error?.status ?? 500);
  const [what, advice] = WORDS[status] ?? ['something went wrong here', 'Try again.'];
  response.removeHeader('Content-Range');
  plainly(status in WORDS ? status : 500, what, advice)(request, response, next);
};

/** The app with its stand-ins; every one of them says that it is simulated. */
export function createApp(dist = DIST): Express {
  const app = express();
  app.use(
    helmet({
      // Plain http on this machine: a browser told to insist on https would lock itself out.
      strictTransportSecurity: false,
      contentSecurityPolicy: {
        directives: {
          'img-src': ["'self'", 'data:', 'blob:'],
          'worker-src': ["'self'", 'blob:'],
          'script-src': ["'self'", "'wasm-unsafe-eval'"],
          'connect-src': ["'self'", 'blob:', 'data:'],
          // The styling writes its rules into the page as it goes, so they cannot be named beforehand.
          'style-src': ["'self'", "'unsafe-inline'"],
          'font-src': ["'self'", 'data:'],
          'upgrade-insecure-requests': null,
        },
      },
    }),
  );
  app.use(refuseOdd);
  app.get('/api/rainfall-frequency', rainfallFrequency);
  app.get('/api/elevation', elevation);
  app.get('/api/telemetry', telemetry);
  app.use('/api', (_request, response) => {
    response
      .status(404)
      .json({
        errors: [
          { code: 'api.unknown', what: 'there is no such service', where: {}, do: 'Use /api/rainfall-frequency or /api/telemetry.' },
        ],
      });
  });
  if (existsSync(dist)) {
    app.get(PAGES, (_request, response) => response.sendFile('index.html', { root: dist, acceptRanges: false }));
    app.use(express.static(dist, { fallthrough: false, index: false, redirect: false }));
  }
  app.use(plainly(404, WORDS[404][0], WORDS[404][1]));
  app.use(inWords);
  return app;
}

/** Times after which a connection that says nothing, or says it too slowly, is closed [ms]. */
const [HEADERS_MS, REQUEST_MS, IDLE_MS, LOOK_MS] = [8_000, 15_000, 25_000, 2_000];

/** The server with its limits on headers, slow requests and idle connections. */
export function createLimited(app: Express): Server {
  const server = createServer(
    {
      maxHeaderSize: 8192,
      headersTimeout: HEADERS_MS,
      requestTimeout: REQUEST_MS,
      keepAliveTimeout: 5_000,
      connectionsCheckingInterval: LOOK_MS,
    },
    app,
  );
  server.maxHeadersCount = 60;
  server.maxConnections = 256;
  server.setTimeout(IDLE_MS);
  return server;
}
