export * from './budget.js';
export * from './pieces.js';
export * from './signs.js';
