import type { Names, PlacedTree, Tree } from '../tree/index.js';
import type { PlanDocument } from '../plan/index.js';
import type { WorkStep } from './step.js';

/** Minutes of a step before anything is known of its artist's own: rules of ours. docs: Hours. */
export const MINUTES = {
  /** Of the tree, and each branch that is worked on. */
  clear: 5,
  clearEach: 0.5,
  cut: (widthMm: number): number => 2 + 0.15 * widthMm,
  jin: (widthMm: number): number => 10 + widthMm,
  /** Cutting and anchoring it, each turn of it, and its thickness in the hand. */
  wire: (turns: number, size: number, strands: number): number => 4 + strands * turns * (0.5 + 0.15 * size),
  bend: (diameter: number): number => 2 + 0.4 * diameter,
  /** Winding raffia over a bend. */
  wrap: 6,
  guy: 15,
  device: 25,
  place: 2,
};

export type Draft = Omit<WorkStep, 'mind' | 'danger' | 'minutes' | 'as' | 'rest' | 'did' | 'branches'> &
  Partial<Pick<WorkStep, 'as' | 'rest' | 'did' | 'branches'>> & { rule: number };

export interface Laying {
  tree: Tree;
  placed: PlacedTree;
  plan: PlanDocument;
  onDay: number;
  on: string;
  names: Names;
}
