export * from './advice.js';
export * from './forecast.js';
export * from './learn.js';
export * from './marking.js';
export * from './thickening.js';
export * from './tolerance.js';
export * from './unknown.js';
export * from './watch.js';
