export * from './consequences.js';
export * from './plan.js';
export * from './planting.js';
export * from './promises.js';
export * from './wiring.js';
