import { createContext, useContext } from 'react';
import type { TreeView } from '@ustle/contract';
import type { PlanDocument, Tree } from '@ustle/core';
import type { FrontSearchState } from '../work/use-planner';

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
  fronts: FrontSearchState;
}

export const TreeContext = createContext<TreeDesk | null>(null);

export function useDesk(): TreeDesk {
  const desk = useContext(TreeContext);
  if (!desk) throw new Error('Only a stage of a tree has a desk.');
  return desk;
}
