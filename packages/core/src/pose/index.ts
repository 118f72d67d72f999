export * from './propose.js';
export * from './compaction.js';
export * from './equilibrium.js';
export * from './rod.js';
