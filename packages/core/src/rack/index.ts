export * from './cut.js';
export * from './needs.js';
export * from './rack-lines.js';
export * from './reserved.js';
export * from './say-stock.js';
export * from './stock.js';
