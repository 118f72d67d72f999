export * from './season.js';
export * from './species.js';
export type * from './types.js';
export * from './habit.js';
