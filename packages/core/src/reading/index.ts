export * from './budget.js';
export * from './signs.js';
