export { loadVision, type Picture, type Vision } from './vision.js';
export { focalGuessOf } from './focal.js';
