export * from './consequences.js';
export * from './plan.js';
export * from './poses.js';
