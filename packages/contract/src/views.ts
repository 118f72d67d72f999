import type { Bench, Calibration, DayMean, DoneIn, Due, Hemisphere, Piece, RaceBar, RecordLine, Silhouette, Stock, Tree, WalkItem } from '@ustle/core';

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
  /** What undo and redo would do on the device that asks; null where there is nothing of its own. */
  undo: StepBack | null;
  redo: StepBack | null;
}

/** An act that can be taken back, or made again, and what it was in words. */
export interface StepBack {
  of: string;
  said: string;
  /** Where it is done, and the one branch it is about. */
  at: { stage: DoneIn; branch: string | null };
}

/** A tree that was changed: what it counts now, and the device that did it; null where that did not say. */
export interface Change {
  tree: string;
  revision: number;
  recorded: number;
  desk: string | null;
}

/** What an act did. The tree itself follows by applying the same act to the one it was made on. */
export interface ActAnswer {
  revision: number;
  /** Lines that it added to the record, and how many there are now. */
  lines: RecordLine[];
  recorded: number;
  undo: StepBack | null;
  redo: StepBack | null;
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
  /** Lines of its record: each may have bent it. */
  recorded: number;
  coils: number;
  /** The day it was put aside; null while it is on the bench. */
  asideOn: string | null;
  next: Due | null;
  race: RaceBar | null;
  /** The bench that it stands on; null where nobody said. */
  bench: string | null;
  /** Its place along that bench, from 0; null where it stands on none. */
  place: number | null;
  hemisphere: Tree['site']['hemisphere'];
  /** Why it cannot be worked with, or what is due on it not be told; null where all is well. */
  trouble: string | null;
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

/** A small picture of a tree from another side than its front, with the outlines of branches by their ids. */
export interface Side extends Silhouette {
  outlines: Record<string, string>;
}

/** A thing to look at, with the tree that it is on. */
export interface WalkStop extends WalkItem {
  tree: string;
  treeName: string;
  species: string;
  bench: string | null;
  revision: number;
  recorded: number;
  /** The day of the walk that takes it along, ISO. */
  walk: string;
}

/** All that wants looks in the yard, and the walks that take it along. */
export interface WalkView {
  on: string;
  benches: Bench[];
  stops: WalkStop[];
}

/** How a kind of tree has grown and sprung back here, against what was foreseen. */
export interface LearnedView {
  species: string;
  name: string;
  trees: number;
  looks: number;
  /** How much faster than usual its trees thicken here, times, with the range of four in five for a further tree. */
  pace: { likely: number; low: number; high: number };
  /** How much more than computed springs back, times. */
  spring: { likely: number; low: number; high: number };
  cases: Calibration;
}

export interface WeatherView {
  /** Whether growth is counted by its warmth. */
  on: boolean;
  station: string;
  /** The half of the earth that the station stands on: its season says nothing of trees in the other one. */
  hemisphere: Hemisphere;
  /** The last weeks' daily means, °C. */
  days: DayMean[];
  /** By how many days the season is ahead of the usual one of the place. */
  ahead: number;
  missing: number;
}

/** A notice that the yard sent. */
export interface MailView {
  id: string;
  on: string;
  subject: string;
  text: string;
}

export interface AccessView {
  /** Whether other devices of the network are let in at all. */
  open: boolean;
  passphrase: boolean;
  /** Whether the one who asks is in: always on the machine itself. */
  inside: boolean;
  here: boolean;
  /** Addresses by which a phone reaches it. */
  addresses: string[];
}
