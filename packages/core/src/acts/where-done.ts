import { branchesOf, type Act, type ActName } from './all.js';

/** Where of a tree's stages something is done, as the address has it. */
export type DoneIn = 'read' | 'measure' | 'front' | 'remove' | 'pose' | 'wire' | 'guy' | 'work' | 'watch' | 'record';

const DONE_IN: Record<ActName, DoneIn> = {
  manner: 'wire',
  'branch-manner': 'wire',
  front: 'front',
  'keep-open': 'front',
  reading: 'read',
  decide: 'remove',
  'put-off': 'remove',
  either: 'remove',
  rules: 'remove',
  measure: 'measure',
  'add-photo': 'measure',
  'draw-line': 'measure',
  remeasure: 'measure',
  'list-branch': 'measure',
  unlist: 'measure',
  pose: 'pose',
  poses: 'pose',
  unpose: 'pose',
  'pose-aside': 'pose',
  posing: 'pose',
  'trunk-way': 'pose',
  wood: 'pose',
  run: 'wire',
  unrun: 'wire',
  wired: 'wire',
  guy: 'guy',
  unguy: 'guy',
  tie: 'guy',
  untie: 'guy',
  device: 'guy',
  'drop-device': 'guy',
  'set-up': 'guy',
  'take-down': 'guy',
  snoozed: 'watch',
  promised: 'work',
  fulfilled: 'work',
  session: 'work',
  worked: 'work',
  'take-off': 'remove',
  withdrawn: 'record',
  bent: 'pose',
  placed: 'pose',
  guyed: 'guy',
  pushed: 'wire',
  measured: 'watch',
  inspected: 'watch',
  cut: 'watch',
  unwired: 'watch',
  agreed: 'record',
  repotted: 'read',
  fed: 'read',
  styled: 'read',
  pruned: 'record',
  defoliated: 'record',
  ailing: 'record',
  note: 'record',
  photo: 'record',
  hours: 'work',
};

/** The stage where acts of a kind are done. */
export const doneIn = (kind: ActName): DoneIn => DONE_IN[kind];

/** Where an act is done, and the branch it is about; null where it is about none, or more. */
export const whereDone = (act: Act): { stage: DoneIn; branch: string | null } => {
  const about = branchesOf(act);
  return { stage: doneIn(act.kind), branch: about?.length === 1 ? about[0]! : null };
};
