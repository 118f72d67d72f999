import type { MarkStage, Tree } from '@ustle/core';

export interface YardView {
  name: string;
  /** Today by the server's clock, ISO. */
  today: string;
}

/** A tree as stored, with the revision that a change must name. */
export interface TreeView {
  id: string;
  revision: number;
  tree: Tree;
  /** What undo and redo would do, in words; null where there is nothing. */
  undo: string | null;
  redo: string | null;
}

/** Outline of a tree from its front, for small pictures: SVG path data in a box 100 × 100, standing on the bottom edge. */
export interface Silhouette {
  wood: string;
  foliage: string;
  pot: string;
}

/** Dates of the most urgent coil on a tree. */
export interface RaceBar {
  branch: string;
  setFrom: string | null;
  touchFrom: string | null;
  markFrom: string | null;
  markSure: string | null;
}

export type DueKind = 'look' | 'remove' | 'window' | 'promise' | 'plan';

export interface DueView {
  tree: string;
  treeName: string;
  on: string;
  kind: DueKind;
  branches: string[];
  /** What to do, and why. */
  title: string;
  text: string;
  stage: MarkStage | null;
}

export interface TreeSummary {
  id: string;
  name: string;
  species: string;
  revision: number;
  silhouette: Silhouette;
  coils: number;
  next: DueView | null;
  race: RaceBar | null;
}

export interface SeasonView {
  from: string;
  days: DueView[];
}

/** What the server says when it will not do something. */
export interface Problem {
  code: string;
  /** A sentence a person can act on. */
  message: string;
  /** The field or file path concerned, where there is one. */
  field?: string;
  faults?: { path: string; code: string; message: string }[];
  /** With code "stale": the tree as it is now. */
  current?: TreeView;
}
