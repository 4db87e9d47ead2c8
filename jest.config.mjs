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
  testMatch: [`<rootDir>/${name}/**/*.test.ts`],
});
export default {
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
