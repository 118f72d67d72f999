export * from './budget.js';
export * from './findings.js';
export { conflictsOf } from './keeping.js';
export * from './signs.js';
