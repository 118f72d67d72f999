export * from './polyline.js';
export * from './vec.js';
export * from './view.js';
