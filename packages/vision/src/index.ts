export { loadVision, type Followed, type Picture, type Vision } from './vision.js';
export { greenIn } from './green.js';
export { focalGuessOf } from './focal.js';
