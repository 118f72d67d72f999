export * from './bodies.js';
export * from './paths.js';
export * from './views.js';
