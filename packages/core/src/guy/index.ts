export * from './anchors.js';
export * from './checks.js';
export * from './guys.js';
export * from './windlass.js';
export type { GuyWorld } from './world.js';
