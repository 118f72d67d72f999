import type { Evidence } from '../space/index.js';
import type { Rule } from './profile.js';

export const ADVICE = ['remove', 'shorten', 'compact', 'move', 'reserve', 'wait'] as const;
export type Advice = (typeof ADVICE)[number];

/** One observation on a branch: never an act, always with what it rests on. */
export interface Finding {
  branch: string;
  rule: Rule;
  severity: 1 | 2 | 3;
  /** The numbers it rests on; `with` names the other branches. */
  evidence: Record<string, number | string | string[]>;
  /** What a teacher would try first, and what else would do. */
  advice: Advice;
  also: Advice[];
  because: string[];
  /** What would be lost with the branch: reasons to keep it. */
  against: string[];
  /** Ids of the runs and guys that would lose their branch. */
  conflicts: string[];
}

/** A finding as a rule makes it; what speaks for keeping the branch is added for all alike. `draw` is made when somebody looks. */
export interface Draft extends Omit<Finding, 'conflicts' | 'also' | 'against'> {
  also?: Advice[];
  draw: () => Evidence;
}

/** What the chosen front shows: its bearing, the branches that point at the viewer, and what hides the trunk. */
export interface SeenFromFront {
  bearing: number;
  atEye: readonly string[];
  hiding: readonly HiddenShare[];
}

/** Share of the lower trunk that a branch hides, and between which heights of it (0 base, 1 top). */
export interface HiddenShare {
  branch: string;
  share: number;
  from: number;
  to: number;
}
