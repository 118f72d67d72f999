import { dayOf } from '../units/index.js';
import { coilsOn, LINE_COMMON, LINE_FIELDS, type LineOf } from '../tree/index.js';
import { actKind, missing, refuse } from './act.js';
import { sayLine } from './say-line.js';

const MOST_WEEKS = 12;

/** The next look at a coil is put off, with a reason: what is overdue should not be so for nothing. */
export const snooze = actKind({
  kind: 'snoozed',
  fields: { ...LINE_FIELDS.snoozed, text: LINE_COMMON.text, corrects: LINE_COMMON.corrects },
  guarded: false,
  apply: (tree, { id: _id, ...line }) => {
    const gone = missing(tree, line.branch, 'branch');
    if (gone) return gone;
    const [on, until] = [dayOf(line.on), dayOf(line.until)];
    if (!coilsOn(tree, on).some((c) => c.branch === line.branch))
      return refuse('branch', 'not-found', 'No wire is on that branch, so there is no look to put off.');
    if (until <= on) return refuse('until', 'value', 'A look is put off to a later day.');
    if (until > on + MOST_WEEKS * 7) return refuse('until', 'value', `A look is put off by ${MOST_WEEKS} weeks at most: nothing is left alone for longer.`);
    if (!line.text?.trim()) return refuse('text', 'missing', 'Say why it is put off, so that whoever reads it later knows.');
    return { tree, lines: [line] };
  },
  say: (act, names) => `${names(act.branch)}: ${sayLine(act as unknown as LineOf<'snoozed'>, names)}`,
});
