export * from './consequences.js';
export * from './plan.js';
