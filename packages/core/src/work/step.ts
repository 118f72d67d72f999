import type { Deed } from '../acts/index.js';
import type { WorkPart } from '../tree/index.js';

/** Kinds of steps in the order of the job. docs: A session of work. */
export const STEP_KINDS = [
  'shelter',
  'clear',
  'cut',
  'jin',
  'soak',
  'fast',
  'wrap',
  'wire',
  'bend',
  'guy',
  'device',
  'place',
  'clean',
  'pot',
  'aftercare',
] as const;
export type StepKind = (typeof STEP_KINDS)[number];

/** Which part of the work a step belongs to; null: it goes with any. */
export const PART_OF: Record<StepKind, WorkPart | null> = {
  shelter: null,
  clear: 'cuts',
  cut: 'cuts',
  jin: 'cuts',
  soak: 'bends',
  fast: null,
  wrap: 'wire',
  wire: 'wire',
  bend: 'bends',
  guy: 'ties',
  device: 'ties',
  place: 'bends',
  clean: 'finish',
  pot: 'finish',
  aftercare: null,
};

/** One step of a session. */
export interface WorkStep {
  /** The same step has the same key whatever else is planned meanwhile. */
  key: string;
  /** What is asked for, where the plan may ask for something else later: the step is then open again. */
  as: string;
  kind: StepKind;
  branches: string[];
  title: string;
  /** What to do, a sentence each. */
  what: string[];
  /** What to mind, and what can hurt. */
  mind: string[];
  danger: string[];
  /** Minutes by the rule or the artist's own pace, and minutes of rest before it. */
  minutes: number;
  rest: number;
  /** The run, tie or device that it is about. */
  of?: string;
  /** What speaks against it as it is planned: it is not begun. */
  against?: string;
  /** What the record takes when it is done as planned. */
  did: Deed[];
}
