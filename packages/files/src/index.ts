export type { FileFault } from '@ustle/core';
export * from './acts-file.js';
export * from './sight-file.js';
export * from './branch-csv.js';
export * from './calendar.js';
export * from './cylinder-csv.js';
export * from './shape-faults.js';
export * from './tree-file.js';
export * from './record-csv.js';
