// Serves the built app and the stand-ins. Run after the build; `npm run demo` does both.
// Usage: tsx server/main.ts [--host ADDRESS]; this machine alone can reach it unless a host is named.
import { parseArgs } from 'node:util';
import { createApp, createLimited } from './app.ts';

const LOOPBACK = '127.0.0.1';
const { values } = parseArgs({ options: { host: { type: 'string', default: LOOPBACK } } });
const { host } = values;
const port = Number(process.env.PORT ?? 4173);
const isOpen = host !== LOOPBACK && host !== 'localhost' && host !== '::1';
const server = createLimited(createApp());
server.on('error', (error: NodeJS.ErrnoException) => {
  console.error(error.code === 'EADDRINUSE' ? `Port ${port} is taken: set PORT to another.` : `Outlet cannot listen on ${host}:${port}.`);
  process.exitCode = 1;
});
server.listen(port, host, () => {
  console.log(`Outlet is at http://${host.includes(':') ? `[${host}]` : host}:${port}/`);
  if (isOpen)
    console.log('Every machine that reaches this address can open it; it has no password. Leave --host out to keep it to this one.');
});
