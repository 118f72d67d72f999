export * from './cut.js';
