export * from './propose.js';
