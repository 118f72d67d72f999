export * from './choose.js';
export * from './coil.js';
export * from './helix.js';
export * from './wiring.js';
