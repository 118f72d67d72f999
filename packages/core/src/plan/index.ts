export * from './consequences.js';
export * from './plan.js';
export * from './poses.js';
export * from './coverage.js';
export * from './guys.js';
export * from './runs.js';
export { deviceFor, type FaultyDevice, type PlanDevice } from './devices.js';
export * from './watching.js';
export { pastsFor, type PastChoice } from './past.js';
