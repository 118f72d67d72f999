export * from './paths.js';
export * from './views.js';
export * from './file-name.js';
export * from './in-order.js';
