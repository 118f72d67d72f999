export * from './calendar.js';
export * from './faults.js';
export * from './tree-file.js';
