export * from './paths.js';
export * from './plan-bodies.js';
export * from './record-bodies.js';
export * from './revised.js';
export * from './tree-bodies.js';
export * from './views.js';
