export * from './as-it-stands.js';
export * from './worth-measuring.js';
