export * from './card-codes.js';
export { SIGHT_SET } from './fields.js';
export { cornersOf, type LaidCard, type SeenCard, type SeenPhoto } from './cards.js';
export { depthOf, project, rayAt, type Camera, type Px } from './camera.js';
export { type DrawnLine, type FoundLine } from './lines.js';
export { workOutSight, type Sight, type SightSet } from './set.js';
