export * from './generate.js';
export * from './random.js';
