export * from './generate.js';
export * from './random.js';
export * from './only-wire.js';
