import unit from '../jest.config.mjs';

export default { ...unit, rootDir: '..', roots: ['<rootDir>/e2e'], testMatch: ['**/*.e2e.ts'], testTimeout: 300_000, maxWorkers: 1 };
