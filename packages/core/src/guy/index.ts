export {
  anchorAt,
  ANCHOR_KINDS,
  anchorsFor,
  isBehind,
  potStands,
  potStandsFast,
  potWeight,
  type AnchorKind,
  type AnchorPlace,
  type AnchorRef,
} from './anchors.js';
export * from './checks.js';
export * from './device-words.js';
export { stickFor, workOutDevice, type DevicePart, type DevicePlan, type MovedWood } from './devices.js';
export * from './solve-ties.js';
export { deviceKindsOn, findDevice, leadTo, type LedTo } from './find-device.js';
export * from './windlass.js';
export { worldOn, type GuyWorld } from './world.js';
