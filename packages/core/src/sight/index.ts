export * from './card-codes.js';
export { SIGHT_SET } from './fields.js';
export { cornersOf, type LaidCard, type SeenCard, type SeenPhoto } from './cards.js';
export { depthOf, project, rayAt, type Camera } from './camera.js';
export { type DrawnLine, type FoundLine } from './lines.js';
export { SightMemory, workOutSight, type Sight, type SightSet } from './set.js';
export { cameraOf, keptCamera, setOf } from './kept.js';
export { nextPhoto, sightIn } from './guide.js';
export { measuredBySight, type MeasuredBySight } from './to-tree.js';
