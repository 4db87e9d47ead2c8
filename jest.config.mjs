const swc = [
  '@swc/jest',
  {
    jsc: {
      target: 'es2022',
      parser: { syntax: 'typescript', tsx: true, decorators: true },
      transform: { legacyDecorator: true, decoratorMetadata: false, useDefineForClassFields: true, react: { runtime: 'automatic' } },
    },
    module: { type: 'commonjs' },
  },
];
// What stands on the sandbox's global is looked up slowly each time: what is used most is handed to every module instead.
const ARRAYS = ['Float64Array', 'Float32Array', 'Int32Array', 'Uint32Array', 'Int16Array', 'Uint16Array', 'Int8Array', 'Uint8Array'];
const OFTEN = ['Math', 'Object', 'Array', ...ARRAYS];
const common = {
  rootDir: '.',
  // Copies in which faults are planted.
  modulePathIgnorePatterns: ['<rootDir>/.stryker-tmp'],
  transform: { '^.+\\.(m?[jt]sx?)$': swc },
  transformIgnorePatterns: [],
  moduleFileExtensions: ['ts', 'tsx', 'js', 'mjs', 'cjs', 'jsx', 'json', 'node'],
  moduleNameMapper: { '^#core/(.*)$': '<rootDir>/core/$1/index.ts', '\\.(css|woff2?|png|svg)$': '<rootDir>/scripts/style-stub.cjs' },
};
const inFolder = (name) => ({
  ...common,
  displayName: name,
  testEnvironment: 'node',
  setupFiles: ['<rootDir>/scripts/node-setup.cjs'],
  // On the page libraries give these names to things of their own.
  sandboxInjectedGlobals: name === 'web' ? OFTEN : [...OFTEN, 'Map', 'Set', 'Number', 'String', 'JSON', 'Infinity'],
  testMatch: [`<rootDir>/${name}/**/*.test.ts`],
});
export default {
  // A limit is for what hangs, not for a slow machine.
  testTimeout: 30000,
  testSequencer: '<rootDir>/scripts/longest-first.cjs',
  // Jest would run a few files in turn if those it has met before were quick; with a limit it never does.
  workerIdleMemoryLimit: '3GB',
  projects: [
    inFolder('core'),
    inFolder('cli'),
    inFolder('server'),
    {
      ...inFolder('web'),
      testMatch: ['<rootDir>/web/**/*.test.{ts,tsx}'],
      testEnvironment: 'jsdom',
      setupFiles: ['<rootDir>/scripts/jsdom-setup.cjs'],
      testEnvironmentOptions: { customExportConditions: ['browser', 'require', 'default'] },
    },
    { ...inFolder('e2e'), testMatch: ['<rootDir>/e2e/**/*.e2e.ts'] },
  ],
};
