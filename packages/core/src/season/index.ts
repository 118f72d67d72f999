export * from './rounds.js';
export * from './due.js';
export * from './promises.js';
export * from './held-due.js';
export * from './walk.js';
