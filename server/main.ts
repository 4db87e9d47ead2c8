// Serves the built app and the stand-ins. Run after the build; `npm run demo` does both.
import { createApp } from './app.ts';

const port = Number(process.env.PORT ?? 4173);
createApp().listen(port, () => console.log(`Outlet is at http://127.0.0.1:${port}/`));
