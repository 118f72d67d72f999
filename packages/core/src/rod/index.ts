export * from './equilibrium.js';
export * from './rod.js';
export * from './tied.js';
export * from './led.js';
