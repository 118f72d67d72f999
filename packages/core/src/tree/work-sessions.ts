import { dayOf } from '../units/index.js';
import type { LineOf, WorkPart } from './lines.js';
import { WORK_PARTS } from './lines.js';
import { standing } from './record.js';
import type { Tree } from './types.js';

/** Work within so many days is one session for the tree. */
export const SAME_SESSION_DAYS = 14;

/** A session of work on a tree, as its record tells it. */
export interface WorkSession {
  id: string;
  /** Day numbers: begun, last worked at, and closed (null: still open). */
  begun: number;
  last: number;
  closed: number | null;
  by: string | null;
  hours: number | null;
  parts: readonly WorkPart[];
  holds: readonly string[];
  leaves: readonly string[];
  answers: LineOf<'worked'>[];
}

/** The sessions of a tree, oldest first. */
export function workSessions(tree: Tree): WorkSession[] {
  const found = new Map<string, WorkSession>();
  for (const line of standing(tree.record)) {
    if (line.kind === 'session') {
      const day = dayOf(line.on);
      const before = found.get(line.session);
      if (before) Object.assign(before, line.done === 'closed' ? { closed: day, last: day } : {});
      else if (line.done === 'begun')
        found.set(line.session, {
          id: line.session,
          begun: day,
          last: day,
          closed: null,
          by: line.by ?? null,
          hours: line.hours ?? null,
          parts: line.parts ?? WORK_PARTS,
          holds: line.holds ?? [],
          leaves: line.leaves ?? [],
          answers: [],
        });
    } else if (line.kind === 'worked') {
      const session = found.get(line.session);
      session?.answers.push(line);
      if (session) session.last = Math.max(session.last, dayOf(line.on));
    }
  }
  return [...found.values()];
}

/** The session that is open on a tree: there is one at most. */
export const openSession = (tree: Tree): WorkSession | null => workSessions(tree).find((s) => s.closed === null) ?? null;

/** Answers after which a step is open still. */
const LEAVES_OPEN = new Set(['ran-out', 'changed']);

/** What a session answered to a step as it is asked for; none where it was not asked, or otherwise. */
export const answerTo = (session: WorkSession, step: string, as = ''): LineOf<'worked'> | undefined =>
  session.answers.find((a) => a.step === step && (a.as ?? '') === as && !LEAVES_OPEN.has(a.answer));
