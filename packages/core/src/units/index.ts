export * from './angles.js';
export * from './days.js';
export * from './force.js';
export * from './normal.js';
export * from './reasoned.js';
export * from './keep.js';
export * from './series.js';
