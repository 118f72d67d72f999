const swc = {
  jsc: { parser: { syntax: 'typescript', decorators: true }, transform: { legacyDecorator: true, decoratorMetadata: true }, target: 'es2022' },
  module: { type: 'commonjs' },
};

export default {
  testEnvironment: 'node',
  roots: ['<rootDir>/packages', '<rootDir>/apps', '<rootDir>/demo', '<rootDir>/bench', '<rootDir>/scripts'],
  testMatch: ['**/*.test.ts'],
  setupFiles: ['<rootDir>/jest.setup.mjs'],
  transform: { '^.+\\.(ts|mjs)$': ['@swc/jest', swc], '/three/(build|examples)/.+\\.js$': ['@swc/jest', swc] },
  // The scene's library comes as modules only.
  transformIgnorePatterns: ['/node_modules/(?!three/)'],
  moduleNameMapper: {
    '^@ustle/contract/bodies$': '<rootDir>/packages/contract/src/bodies/index.ts',
    '^@ustle/vision/simulated$': '<rootDir>/packages/vision/src/simulated/index.ts',
    '^@ustle/(core|files|contract|data)$': '<rootDir>/packages/$1/src/index.ts',
    '^(\\.{1,2}/.*)\\.js$': '$1',
  },
  modulePathIgnorePatterns: ['<rootDir>/.*/dist/', '<rootDir>/.mutate/'],
  // Found at once: looked up in the sandbox, these take much of the time of what computes.
  sandboxInjectedGlobals: ['Math', 'Number', 'Infinity', 'Array', 'Map', 'Set', 'WeakMap', 'Float64Array', 'Int8Array', 'Object', 'JSON', 'Int32Array'],
  maxWorkers: 2,
  testTimeout: 120_000,
};
