export * from './as-it-stands.js';
