import unit from '../jest.config.mjs';

export default {
  ...unit,
  rootDir: '..',
  roots: ['<rootDir>/e2e'],
  testMatch: ['**/*.e2e.ts'],
  globalSetup: '<rootDir>/e2e/studio-setup.ts',
  testTimeout: 300_000,
  maxWorkers: 2,
};
