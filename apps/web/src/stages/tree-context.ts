import { createContext, useContext } from 'react';
import type { TreeView } from '@ustle/contract';
import type { Consequences, Evidence, Part, PlanDocument, Tree, View, Weights } from '@ustle/core';
import type { Drafting } from './measure/use-draft';
import type { FrontSearchState, Judged } from '../work/use-planner';

export const REMOVE_SHEETS = ['decide', 'outcome', 'cut'] as const;
export type RemoveSheet = (typeof REMOVE_SHEETS)[number];

export type TiltRange = 'level' | 'trim' | 'free';

/** What every stage of one tree works with; the user's place (branch, bearing, day) is in the address. */
export interface TreeDesk {
  view: TreeView;
  tree: Tree;
  plan: PlanDocument | null;
  today: string;
  /** The day shown on the turntable, today unless the ribbon was drawn along. */
  day: string;
  setDay: (day: string) => void;
  branch: string | null;
  setBranch: (branch: string | null) => void;
  bearing: number;
  setBearing: (bearing: number) => void;
  /** The view looked at: bearing and planting angle. */
  here: View;
  setView: (view: View) => void;
  /** Front stage: which tilts are searched, the score part drawn, fronts beside each other, weights. */
  tilts: TiltRange;
  setTilts: (tilts: TiltRange) => void;
  part: Part | null;
  setPart: (part: Part | null) => void;
  plumb: boolean;
  setPlumb: (on: boolean) => void;
  compare: boolean;
  setCompare: (compare: boolean) => void;
  profile: string;
  weights: Weights;
  setProfile: (name: string) => void;
  setWeights: (weights: Weights) => void;
  fronts: FrontSearchState;
  /** Remove stage: which of its sheets is open, what the cuts lead to, and what is pointed at on the tree. */
  sheet: RemoveSheet;
  setSheet: (sheet: RemoveSheet) => void;
  weighed: Consequences | null;
  found: Evidence | null;
  spot: Evidence | null;
  setSpot: (spot: Evidence | null) => void;
  /** Before and after in one picture, with a wipe between them. */
  wiping: boolean;
  setWiping: (on: boolean) => void;
  /** A pair of which one goes, shown both ways; its place among the plan's. */
  pair: number | null;
  setPair: (pair: number | null) => void;
  /** What is being measured. */
  drafting: Drafting;
  judged: Judged | null;
}

export const TreeContext = createContext<TreeDesk | null>(null);

export function useDesk(): TreeDesk {
  const desk = useContext(TreeContext);
  if (!desk) throw new Error('Only a stage of a tree has a desk.');
  return desk;
}
