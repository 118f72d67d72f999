export * from './branch-csv.js';
export * from './calendar.js';
export * from './cylinder-csv.js';
export * from './faults.js';
export * from './tree-file.js';
