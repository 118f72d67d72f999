export { ACT_COMMON, isRefused, type Applied, type Outcome as ActOutcome, type Refusal } from './act.js';
export * from './all.js';
export * from './log.js';
export * from './where-done.js';
export { PRINTED_SIDE } from './add-photo.js';
export { PLAIN_LINES, type PlainFields, type PlainLine } from './note-line.js';
export { AGREED_WORDS, byWhom, PROMISE_WORDS, sayAbout, sayLine, sayMinutes } from './say-line.js';
export type { Deed } from './session.js';
export { freeDeviceId } from './device.js';
