import { GUY, LINE_COMMON, LINE_FIELDS, optional, placeTree, type Guy, type RecordLine, type Tree } from '../tree/index.js';
import { ANCHOR_KINDS } from '../guy/index.js';
import { actKind, inPlan, isRefused, missing, refuse } from './act.js';

const { id: GUY_ID, branch, at, anchor, wire, cushion } = GUY.properties;

const freeGuyId = ({ guys }: Tree['plan']): string => {
  const used = new Set(guys.map((g) => g.id));
  let n = 1;
  while (used.has(`g${n}`)) n++;
  return `g${n}`;
};

/** So many ties pull at one branch at most. */
const MOST_TIES = 2;

/** Why an anchor cannot be: it is not there; null where it can. */
export function noAnchor(tree: Tree, own: Guy['anchor'], held: string): string | null {
  if (!ANCHOR_KINDS.some((kind) => kind === own.kind)) return `"${own.kind}" is no anchor; one of ${ANCHOR_KINDS.join(', ')}.`;
  if (own.kind === 'pot-hole' && !tree.pot.holes?.[own.index ?? 0]) return 'This pot has no such hole: measure its holes first, or choose the rim.';
  if (own.kind === 'root' && !tree.roots[own.index ?? 0]) return 'This tree has no such surface root.';
  if (own.kind === 'pot-rim' && own.bearing === undefined) return 'On which side of the rim? Say its bearing.';
  if ((own.kind === 'trunk' || own.kind === 'screw') && own.at === undefined) return 'How far up the trunk? Say it in mm.';
  if (own.kind === 'jin' || own.kind === 'branch') {
    const other = tree.branches.find((b) => b.id === own.branch);
    if (!other) return `Branch "${own.branch ?? ''}" is not on this tree.`;
    if (other.id === held) return 'A branch cannot be tied to itself.';
    if ((other.state === 'dead') !== (own.kind === 'jin'))
      return own.kind === 'jin' ? 'That branch lives: it is no dead wood.' : 'That branch is dead wood: tie to it as that.';
  }
  return null;
}

/** Fixes a tie: where on the branch, to what, and with what. */
export const settleGuy = actKind({
  kind: 'guy',
  fields: { guy: optional(GUY_ID), branch, at, anchor, wire, cushion },
  guarded: true,
  apply: (tree, { guy, branch: id, at: along, anchor: to, wire: size, cushion: pad }) => {
    const gone = missing(tree, id, 'branch');
    if (gone) return gone;
    const { length } = placeTree(tree).byId.get(id)!.branch;
    if (along > length)
      return refuse('at', 'range', `at: the branch ends after ${length.toFixed(0)} mm; a tie at ${along.toFixed(0)} mm would be beyond its tip.`);
    const why = noAnchor(tree, to, id);
    if (why) return refuse('anchor', 'no-anchor', why);
    const others = tree.plan.guys.filter((g) => g.id !== guy);
    if (others.filter((g) => g.branch === id).length >= MOST_TIES) return refuse('branch', 'twice', 'Two ties pull at this branch already: let one go first.');
    const free = others.some((g) => g.id === guy) || !guy ? freeGuyId({ ...tree.plan, guys: others }) : guy;
    return inPlan(tree, { guys: [...others, { id: free, branch: id, at: along, anchor: to, wire: size, ...(pad ? { cushion: pad } : {}) }] });
  },
  say: ({ branch: id }, names) => `fix a tie on ${names(id)}`,
});

/** Lets go of a tie that is not on: it is proposed again where one is needed. */
export const letGuyGo = actKind({
  kind: 'unguy',
  fields: { guy: GUY_ID },
  guarded: true,
  apply: (tree, { guy }) =>
    tree.plan.guys.some((g) => g.id === guy)
      ? inPlan(tree, { guys: tree.plan.guys.filter((g) => g.id !== guy) })
      : refuse('guy', 'not-found', `Tie "${guy}" is not in this plan.`),
  say: ({ guy }) => `let tie ${guy} be planned anew`,
});

const { twists, tension, cameDeg, length, bends, next } = LINE_FIELDS.guyed;

/** A tie was put on: the plan takes it, the record a line. */
export const putTieOn = actKind({
  kind: 'tie',
  fields: { ...settleGuy.fields, twists, tension, cameDeg, length, bends, next, text: LINE_COMMON.text },
  guarded: true,
  apply: (tree, act) => {
    const { twists: turned, tension: pull, cameDeg: came, length: taut, bends: drawn, next: then, text, on, ...guy } = act;
    const settled = settleGuy.apply(tree, { ...guy, on, kind: 'guy' });
    if (isRefused(settled)) return settled;
    const { id } = settled.tree.plan.guys[settled.tree.plan.guys.length - 1]!;
    const line: RecordLine = {
      on,
      kind: 'guyed',
      branch: act.branch,
      guy: id,
      done: 'placed',
      ...(turned === undefined ? {} : { twists: turned }),
      ...(pull === undefined ? {} : { tension: pull }),
      ...(came === undefined ? {} : { cameDeg: came }),
      ...(taut === undefined ? {} : { length: taut }),
      ...(drawn === undefined ? {} : { bends: drawn }),
      ...(then === undefined ? {} : { next: then }),
      ...(text === undefined ? {} : { text }),
    };
    return { tree: settled.tree, lines: [line] };
  },
  say: ({ branch: id }, names) => `tie ${names(id)}`,
});

/** A tie was taken off: it leaves the plan, and a screw that stays in the wood is noted to be found again. */
export const takeTieOff = actKind({
  kind: 'untie',
  fields: { guy: GUY_ID, text: LINE_COMMON.text },
  guarded: true,
  apply: (tree, { guy, on, text }) => {
    const own = tree.plan.guys.find((g) => g.id === guy);
    if (!own) return refuse('guy', 'not-found', `Tie "${guy}" is not in this plan.`);
    const screw = own.anchor.kind === 'screw' ? `Its screw is still in the wood, ${own.anchor.at ?? '?'} mm up the trunk: take it out or remember it.` : '';
    const said = [text, screw].filter(Boolean).join(' ');
    const line: RecordLine = { on, kind: 'guyed', branch: own.branch, guy, done: 'removed', ...(said ? { text: said } : {}) };
    return { tree: inPlan(tree, { guys: tree.plan.guys.filter((g) => g.id !== guy) }).tree, lines: [line] };
  },
  say: ({ guy }) => `take tie ${guy} off`,
});
