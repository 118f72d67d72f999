export { loadVision, type Followed, type Picture, type Vision } from './vision.js';
export { focalGuessOf } from './focal.js';
