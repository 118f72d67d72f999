export * from './bend-risk.js';
export * from './coil-hold.js';
export * from './metals.js';
export * from './push.js';
export * from './section.js';
export * from './bend-energy.js';
export * from './spring-back.js';
