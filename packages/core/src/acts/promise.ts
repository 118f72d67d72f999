import { LINE_COMMON, LINE_FIELDS, vowsOf, type LineOf } from '../tree/index.js';
import { actKind, missing, refuse } from './act.js';
import { sayLine } from './say-line.js';

const { text, corrects } = LINE_COMMON;

/** Something is promised to a tree for its season. */
export const promise = actKind({
  kind: 'promised',
  fields: { ...LINE_FIELDS.promised, text, corrects },
  guarded: false,
  apply: (tree, { id: _id, ...line }) => {
    const gone = line.branch ? missing(tree, line.branch, 'branch') : null;
    if (gone) return gone;
    if (line.from && line.until && line.until < line.from) return refuse('until', 'value', 'until: it ends before it begins.');
    if (line.corrects && !vowsOf(tree).some((v) => v.line.id === line.corrects && !v.ended))
      return refuse('corrects', 'not-found', 'That promise is not owed any more.');
    if (line.what === 'other' && !line.text?.trim()) return refuse('text', 'missing', 'Say what is promised.');
    return { tree, lines: [line] };
  },
  say: (act, names) => sayLine(act as unknown as LineOf<'promised'>, names),
});

/** A promise was kept, or is let go of with a reason. */
export const fulfil = actKind({
  kind: 'fulfilled',
  fields: { ...LINE_FIELDS.fulfilled, text },
  guarded: false,
  apply: (tree, { id: _id, ...line }) => {
    const vow = vowsOf(tree).find((v) => v.line.id === line.promise);
    if (!vow) return refuse('promise', 'not-found', 'This was not promised, or was taken back.');
    if (vow.ended) return refuse('promise', 'ended', 'This promise is done with already.');
    if (line.how === 'let-go' && !line.text?.trim()) return refuse('text', 'missing', 'Say why it is let go of, so that whoever reads it later knows.');
    return { tree, lines: [line] };
  },
  say: ({ how }) => (how === 'done' ? 'a promise kept' : 'let a promise go'),
});
