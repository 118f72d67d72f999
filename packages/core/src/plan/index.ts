export * from './plan.js';
export * from './wiring.js';
