import type { Due, Piece, RaceBar, RecordLine, Stock, Tree } from '@ustle/core';

export interface YardView {
  name: string;
  /** Today by the server's clock, ISO. */
  today: string;
  /** The sign or word that prices are told in. */
  money: string;
}

/** A tree as stored, with the revision that a guarded act must name. */
export interface StoredTree {
  id: string;
  revision: number;
  tree: Tree;
  /** The day it was put aside; null while it is on the bench. */
  asideOn: string | null;
  /** What undo and redo would do, in words; null where there is nothing. */
  undo: string | null;
  redo: string | null;
}

/** What an act did. The tree itself follows by applying the same act to the one it was made on. */
export interface ActAnswer {
  revision: number;
  /** Lines that it added to the record, and how many there are now. */
  lines: RecordLine[];
  recorded: number;
  undo: string | null;
  redo: string | null;
}

/** A task with the tree it is on. */
export interface DueView extends Due {
  tree: string;
  treeName: string;
}

export interface TreeSummary {
  id: string;
  name: string;
  species: string;
  revision: number;
  coils: number;
  /** The day it was put aside; null while it is on the bench. */
  asideOn: string | null;
  next: Due | null;
  race: RaceBar | null;
}

/** The rack as it stands, and the wire that settled plans have spoken for. */
export interface RackView {
  stock: Stock[];
  reserved: Piece[];
}

/** A piece that a tree's plan has cut, with the branches that it is for. */
export interface PieceView extends Piece {
  branches: string;
  /** Left for the next session. */
  later: boolean;
}

export interface SeasonView {
  from: string;
  days: DueView[];
}

export interface Fault {
  path: string;
  code: string;
  message: string;
}

/** What the server says when it will not do something. */
export interface Problem {
  code: string;
  /** A sentence a person can act on. */
  message: string;
  /** The field or file path concerned, where there is one. */
  field?: string;
  faults?: Fault[];
  /** Where somebody else was first: the tree as it is now. */
  current?: StoredTree;
}
