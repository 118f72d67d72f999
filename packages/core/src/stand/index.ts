export * from './as-it-stands.js';
export * from './trunk-held.js';
export * from './worth-measuring.js';
