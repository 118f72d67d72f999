import type { Static } from '@sinclair/typebox';
import { asMeasured, byTag, type Names, type Tagged, type Tree } from '../tree/index.js';
import { ACT_COMMON, isRefused, readable, refuse, type ActKind, type Outcome } from './act.js';
import { listBranch, remeasure, unlist } from './branches.js';
import { chooseRules } from './choose-rules.js';
import { decide, either, putOff } from './decide.js';
import { addPhoto } from './add-photo.js';
import { drawLine } from './draw-line.js';
import { dropDevice, setUp, settleDevice, takeDown } from './device.js';
import { chooseFront, keepOpen } from './fronts.js';
import { branchManner, wireManner } from './manner.js';
import { letGuyGo, putTieOn, settleGuy, takeTieOff } from './guy.js';
import { measure } from './measure.js';
import { PLAIN_ACTS, withdraw, type PlainFields } from './note-line.js';
import { bendTrunk, noteWood, poseAll, poseAside, poseBranch, setPosing, unpose } from './pose.js';
import { noteReading } from './note-reading.js';
import { fulfil, promise } from './promise.js';
import { session, worked } from './session.js';
import { snooze } from './snooze.js';
import { takeOff } from './take-off.js';
import { letRunGo, putWireOn, settleRun } from './wire.js';
import { dayOf } from '../units/index.js';

/** Every way to change a tree; a new one is a file beside these and a word here. */
const OWN = [
  wireManner,
  branchManner,
  chooseFront,
  keepOpen,
  noteReading,
  decide,
  putOff,
  either,
  chooseRules,
  measure,
  addPhoto,
  drawLine,
  remeasure,
  listBranch,
  unlist,
  poseBranch,
  poseAll,
  unpose,
  poseAside,
  setPosing,
  bendTrunk,
  noteWood,
  settleRun,
  letRunGo,
  putWireOn,
  settleGuy,
  letGuyGo,
  putTieOn,
  takeTieOff,
  settleDevice,
  dropDevice,
  setUp,
  takeDown,
  snooze,
  promise,
  fulfil,
  session,
  worked,
  takeOff,
  withdraw,
] as const;
const KINDS = [...OWN, ...PLAIN_ACTS] as unknown as readonly ActKind[];

type FieldsByKind = { [K in (typeof OWN)[number] as K['kind']]: K['fields'] } & PlainFields;
/** A change of a tree as a value: it can be sent, queued, stored, replayed. */
export type Act = Tagged<'kind', typeof ACT_COMMON, FieldsByKind>;
export type ActName = Act['kind'];
export type ActOf<K extends ActName> = Extract<Act, { kind: K }>;
/** An act as it is thought of, before it is given an id and a day. */
export type Intent = { [K in ActName]: Omit<ActOf<K>, 'id' | 'on' | 'who' | 'desk'> & { on?: string } }[ActName];

const byKind = new Map<string, ActKind>(KINDS.map((k) => [k.kind, k]));
export const ACT_NAMES = [...byKind.keys()] as ActName[];
export const kindOf = (act: Pick<Act, 'kind'>): ActKind => byKind.get(act.kind)!;

/** The description of any act. */
export const ACT = byTag('kind', ACT_COMMON, Object.fromEntries(KINDS.map((k) => [k.kind, k.fields])) as unknown as FieldsByKind, 'a change of a tree');
({}) as Static<typeof ACT> satisfies Act;

/** What an act makes of a tree on a day (number of it); the lines it adds to the record get their ids from the act's. */
export function applyAct(shown: Tree, act: Act, today: number): Outcome {
  const tree = asMeasured(shown);
  if (dayOf(act.on) > today) return refuse('on', 'not-yet', `on: ${act.on} has not come yet; the record tells what was done. Nothing was changed.`);
  const { who, desk: _desk, ...deed } = act;
  const outcome = kindOf(act).apply(tree, deed as never);
  if (isRefused(outcome)) return outcome;
  const { lines } = outcome;
  return readable(tree, {
    tree: outcome.tree,
    lines: lines.map((line, i) => ({ ...line, ...(who ? { who } : {}), id: lines.length > 1 ? `${act.id}.${i + 1}` : act.id })),
  });
}

/** An act in a few words, to stand after "Take back:". */
export const sayAct = (act: Act, names: Names): string => kindOf(act).say(act as never, names);

/** The branches that an act is about; null where it names none, or is about more than branches. */
export function branchesOf(act: Act): readonly string[] | null {
  const named = act as { branch?: unknown; branches?: readonly unknown[] };
  const ids = [...(named.branch === undefined ? [] : [named.branch]), ...(named.branches ?? [])].map((b) =>
    typeof b === 'object' && b !== null && 'branch' in b ? b.branch : b,
  );
  return ids.length && ids.every((b) => typeof b === 'string' && b !== 'trunk') ? (ids as string[]) : null;
}

/** Whether an act overwrites what somebody else may have changed meanwhile. */
export const isGuarded = (act: Act): boolean => kindOf(act).guarded;
