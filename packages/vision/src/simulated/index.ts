export { cardsRound } from './cards-laid.js';
export { LAID_SIDE, photographOf, type Stand } from './photograph.js';
export { FOCAL_ON_35MM, heldAt, type Size } from './stands.js';
export { takePicture, type Subject } from './take.js';
