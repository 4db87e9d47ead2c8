// The tests of one folder alone: what is planted there must be caught by what stands beside it.
import config from '../jest.config.mjs';

const core = config.projects.find((p) => p.displayName === 'core');
const part = process.env.MUTANTS_OF ?? 'works';
export default { ...core, displayName: undefined, rootDir: '..', testMatch: [`<rootDir>/core/${part}/**/*.test.ts`] };
