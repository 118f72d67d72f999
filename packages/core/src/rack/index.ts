export * from './cut.js';
export * from './needs.js';
export * from './rack-lines.js';
export * from './reserved.js';
export * from './stock.js';
