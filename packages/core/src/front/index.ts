export * from './evidence.js';
export * from './hiding.js';
export { BUFFER_HEIGHT, BUFFER_WIDTH } from './screen.js';
export * from './planting.js';
export * from './tilts.js';
export { movementOf, sayMovement, turningOf, type Movement } from './movement.js';
export { PARTS, WEIGHT_PROFILES, EYE_DEG, usualWeights, type Front, type Part, type PartScores, type Weights } from './scores.js';
export * from './search.js';
