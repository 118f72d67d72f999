import { createContext, useContext, type ComponentType } from 'react';
import type { PlanDocument, Tree } from '@ustle/core';
import type { Key } from '../shared/keys';
import type { DrawnCoil } from '../turntable/coil-geometry';
import type { TurntableProps } from '../turntable/Turntable';
import type { Desk } from './desk';
import type { Picture } from './SideBySide';

/** What a stage puts on the turntable, beyond the tree itself with its coils. */
export interface Drawing extends Partial<
  Pick<
    TurntableProps,
    | 'rose'
    | 'flags'
    | 'onFlag'
    | 'labels'
    | 'poses'
    | 'bent'
    | 'threaded'
    | 'ties'
    | 'closer'
    | 'foliage'
    | 'evidence'
    | 'wipe'
    | 'onWipe'
    | 'onPull'
    | 'bendable'
    | 'onMovePoint'
    | 'onMoved'
    | 'view'
  >
> {
  /** Wire that is not on yet. */
  planned?: readonly DrawnCoil[];
  /** The tree as it is being measured, in place of the stored one; nothing is taken off it. */
  measured?: Tree | null;
  /** The stage's own tools stand in the turntable's place. */
  instead?: boolean;
  /** Pictures beside each other, in place of the one. */
  beside?: readonly Picture[];
}

/** What a stage keeps while it is open: whatever its own parts work with, what it draws, and its keys. */
export interface Kit {
  drawing: Drawing;
  keys?: readonly Key[];
}

/** A stage of the work on one tree. All there is of it lies in its own folder; the page knows none by name. */
export interface Stage {
  /** Its part of the address. */
  key: string;
  name: string;
  /** How one begins in it, in a line: told until something was done there. */
  first: string;
  /** Whether it needs nothing more for now. */
  settled: (tree: Tree, plan: PlanDocument) => boolean;
  /** Its place in the address, its questions to the worker, its drawing. A hook: the stage is laid out anew when it is opened. */
  useKit: (desk: Desk) => Kit;
  Panel: ComponentType;
  /** Tools over the turntable. */
  Over?: ComponentType;
  /** Its panel needs more room. */
  wide?: boolean;
}

export const KitContext = createContext<Kit | null>(null);

/** The open stage's own kit, as its `useKit` made it. */
export const kitOf =
  <K extends Kit>(_useKit: (desk: Desk) => K) =>
  (): K =>
    useContext(KitContext) as K;
