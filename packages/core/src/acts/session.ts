import type { Static, TObject } from '@sinclair/typebox';
import {
  MOST_BRANCHES,
  answerTo,
  byTag,
  day,
  LINE_COMMON,
  LINE_FIELDS,
  list,
  openSession,
  optional,
  workSessions,
  type RecordLine,
  type Tree,
} from '../tree/index.js';
import { actKind, isRefused, missing, refuse, type ActKind, type Applied, type Outcome } from './act.js';
import { putTieOn } from './guy.js';
import { setUp } from './device.js';
import { PLAIN_ACTS } from './note-line.js';
import { poseBranch } from './pose.js';
import { promise } from './promise.js';
import { sayLine } from './say-line.js';
import { takeOff } from './take-off.js';
import { putWireOn, settleRun } from './wire.js';

const plain = (kind: string): ActKind => PLAIN_ACTS.find((k) => k.kind === kind)!;

/** What can be done to a tree in one step of a session. */
const DEEDS = [
  takeOff,
  putWireOn,
  settleRun,
  poseBranch,
  putTieOn,
  setUp,
  promise,
  plain('bent'),
  plain('placed'),
  plain('guyed'),
  plain('measured'),
  plain('styled'),
  plain('note'),
] as unknown as readonly ActKind[];
const deedKinds = new Map(DEEDS.map((k) => [k.kind, k]));
type PlainFields<K extends 'bent' | 'placed' | 'guyed' | 'measured' | 'styled' | 'note'> = (typeof LINE_FIELDS)[K] &
  Pick<typeof LINE_COMMON, 'text' | 'corrects'>;
type DeedFields = {
  'take-off': (typeof takeOff)['fields'];
  wired: (typeof putWireOn)['fields'];
  run: (typeof settleRun)['fields'];
  pose: (typeof poseBranch)['fields'];
  tie: (typeof putTieOn)['fields'];
  'set-up': (typeof setUp)['fields'];
  promised: (typeof promise)['fields'];
  bent: PlainFields<'bent'>;
  placed: PlainFields<'placed'>;
  guyed: PlainFields<'guyed'>;
  measured: PlainFields<'measured'>;
  styled: PlainFields<'styled'>;
  note: PlainFields<'note'>;
};
const DEED_COMMON = { on: day('the day of the step') };
const DEED = byTag('kind', DEED_COMMON, Object.fromEntries(DEEDS.map((k) => [k.kind, k.fields])) as unknown as DeedFields, 'something done in a step');
/** One thing done in a step of a session: an act without an id of its own. */
export type Deed = {
  [K in keyof DeedFields]: { kind: K } & Static<TObject<typeof DEED_COMMON>> & Static<TObject<DeedFields[K]>>;
}[keyof DeedFields & string];

const { text } = LINE_COMMON;

/** All that was done in a step, one deed after the other; refused whole with the first that cannot be. */
function doAll(tree: Tree, act: { id: string }, deeds: readonly Deed[]): Outcome {
  let now: Applied = { tree, lines: [] };
  for (const [i, deed] of deeds.entries()) {
    const outcome = deedKinds.get(deed.kind)!.apply({ ...now.tree, record: [...tree.record, ...now.lines] }, { ...deed, id: act.id } as never);
    if (isRefused(outcome)) return { refused: outcome.refused.map((r) => ({ ...r, field: `did.${i}.${r.field}` })) };
    now = { tree: outcome.tree, lines: [...now.lines, ...outcome.lines] };
  }
  return { tree: { ...now.tree, record: tree.record }, lines: now.lines };
}

/** A session of work begins, or is closed. A tree has one open session at most. */
export const session = actKind({
  kind: 'session',
  fields: { ...LINE_FIELDS.session, text, did: optional(list(DEED, MOST_BRANCHES, 'poses and pieces of wire that are settled with it')) },
  guarded: false,
  apply: (tree, { id, did = [], ...line }) => {
    const known = workSessions(tree).find((s) => s.id === line.session);
    if (line.done === 'closed') {
      if (!known) return refuse('session', 'not-found', 'There is no such session to close.');
      if (known.closed !== null) return refuse('session', 'closed', 'This session is closed already.');
      return { tree, lines: [line] };
    }
    if (known) return refuse('session', 'twice', 'This session was begun already.');
    const open = openSession(tree);
    if (open) return refuse('session', 'open', `A session${open.by ? ` of ${open.by}` : ''} is open on this tree: go on with it, or close it first.`);
    const gone = (line.holds ?? []).map((b) => (b === 'trunk' ? null : missing(tree, b, 'holds'))).find((f) => f !== null);
    if (gone) return gone;
    const settled = doAll(tree, { id }, did as readonly Deed[]);
    return isRefused(settled) ? settled : { tree: settled.tree, lines: [line as RecordLine, ...settled.lines] };
  },
  say: ({ done }) => (done === 'begun' ? 'begin a session' : 'close the session'),
});

/** A step of a session was answered, with what was done in it. A step is done once, whoever answers first. */
export const worked = actKind({
  kind: 'worked',
  fields: { ...LINE_FIELDS.worked, text, did: optional(list(DEED, 20, 'what was done in it')) },
  guarded: false,
  apply: (tree, { id, did = [], ...line }) => {
    const of = workSessions(tree).find((s) => s.id === line.session);
    if (!of) return refuse('session', 'not-found', 'There is no such session on this tree.');
    if (of.closed !== null) return refuse('session', 'closed', 'This session is closed; begin another one for what is left.');
    const answered = answerTo(of, line.step, line.as);
    if (answered) return refuse('step', 'answered', `This step was answered before: ${sayLine(answered, (b) => b)}. Nothing was done twice.`);
    const done = doAll(tree, { id }, did as readonly Deed[]);
    if (isRefused(done)) return done;
    return { tree: done.tree, lines: [line as RecordLine, ...done.lines] };
  },
  say: ({ title, step }) => `answer "${title ?? step}"`,
});
