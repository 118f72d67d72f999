export * from './blank.js';
export * from './changes.js';
export * from './decisions.js';
export * from './geometry.js';
export * from './measuring.js';
export * from './record.js';
export * from './types.js';
