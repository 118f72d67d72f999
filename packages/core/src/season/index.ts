export * from './due.js';
export * from './promises.js';
