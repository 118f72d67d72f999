export * from './plan.js';
export * from './planting.js';
export * from './wiring.js';
