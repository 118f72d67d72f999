export * from './paths.js';
export * from './views.js';
