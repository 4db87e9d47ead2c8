import { copyFileSync, mkdirSync } from 'node:fs';
import { join } from 'node:path';
import react from '@vitejs/plugin-react';
import { type Plugin, defineConfig } from 'vite';

const SAMPLES = [
  'demo.outlet',
  'dry-fork.outlet',
  'plot.outlet',
  'sallow-rise.tif',
  'sample-survey.csv',
  'sample-rain.csv',
  'sample-gauge.csv',
];

/** Ships the demo and the sample files beside the app, so that they are there without a server. */
function samples(): Plugin {
  return {
    name: 'outlet-samples',
    configResolved: () => {
      const target = join(import.meta.dirname, 'public/samples');
      mkdirSync(target, { recursive: true });
      for (const name of SAMPLES) copyFileSync(join(import.meta.dirname, '../demo', name), join(target, name));
    },
  };
}

export default defineConfig({
  root: import.meta.dirname,
  plugins: [samples(), react()],
  // No field is a telephone number, but the validators would bring the numbering plans of the whole world along.
  resolve: {
    alias: {
      'libphonenumber-js/max': join(import.meta.dirname, 'kit/no-telephones.ts'),
      'node:fs': join(import.meta.dirname, 'kit/no-node.ts'),
      'node:crypto': join(import.meta.dirname, 'kit/no-node.ts'),
    },
  },
  worker: { format: 'es' },
  build: {
    outDir: join(import.meta.dirname, '../dist'),
    emptyOutDir: true,
    target: 'es2022',
    sourcemap: false,
    chunkSizeWarningLimit: 2500,
    // A formula or a law that nothing uses is not sent: making one does nothing else.
    rolldownOptions: { treeshake: { manualPureFunctions: ['defineFormula', 'defineLaw'] } },
  },
  server: { proxy: { '/api': 'http://127.0.0.1:4173' } },
});
