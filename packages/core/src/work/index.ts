export * from './aftercare.js';
export * from './instead.js';
export * from './lay-out.js';
export { CRACK_NOW } from './minding.js';
export * from './pace.js';
export * from './step.js';
export { openSteps, towardsYou } from './steps.js';
export * from './touched.js';
export * from './papers.js';
