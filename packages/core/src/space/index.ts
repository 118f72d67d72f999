export * from './closest.js';
export * from './coverage.js';
export * from './evidence.js';
export * from './polyline.js';
export * from './vec.js';
export * from './view.js';
