import { clockOf, namesOf, cutsAmong, sessionOf, slope, takenOff, type Fate, type PlacedTree } from '../tree/index.js';
import { pointAt } from '../space/index.js';

/** One cut to take to the tree: its tag, where to find the branch, and what to cut where. */
export interface CutItem {
  tag: number;
  branch: string;
  act: Fate;
  session: number;
  /** "210 mm up the trunk, towards 4 o'clock (300°)". */
  where: string;
  /** "Cut off at the trunk." */
  what: string;
  /** Branches that go with it. */
  along: string[];
  /** Width of the cut, mm, and green that goes; dead wood is thinner than nothing to the tree. */
  widthMm: number;
  green: number;
  why: string | null;
}

/**
 * The cuts of one session in the order to make them: from below, what is inside before what is outside.
 * Once the first of a list is cut, its numbers stay, and what is decided after that comes behind.
 */
export function cutList(placed: PlacedTree, session: number): CutItem[] {
  const { tree } = placed;
  const names = namesOf(tree);
  const cuts = cutsAmong(tree).filter((d) => sessionOf(d) === session);
  const goesAlong = new Set(cuts.flatMap((d) => [...takenOff(tree, [d]).gone].filter((id) => id !== d.branch)));
  const items = cuts
    .filter((d) => placed.byId.has(d.branch) && !goesAlong.has(d.branch))
    .map((d): CutItem & { height: number } => {
      const b = placed.byId.get(d.branch)!;
      const { gone, cut, green } = takenOff(tree, [d]);
      const kept = gone.has(d.branch) ? 0 : cut.get(d.branch)!.kept;
      const along = [...gone].filter((id) => id !== d.branch).sort();
      const { bearing } = slope(b);
      const on = b.branch.parent === 'trunk' ? 'up the trunk' : `along ${names(b.branch.parent)}`;
      const at = names(b.branch.parent);
      const what =
        d.act === 'stub'
          ? `Cut to ${kept.toFixed(0)} mm and leave the stub ${d.stub === 'anchor' ? 'to tie to' : 'for a jin'}.`
          : d.act === 'shorten'
            ? `Shorten to ${kept.toFixed(0)} mm${d.toShoot ? `, just past ${names(d.toShoot)}` : ''}.`
            : `Cut off at ${at}.`;
      return {
        tag: d.tag ?? 0,
        branch: d.branch,
        act: d.act,
        session,
        where: `${b.branch.at.toFixed(0)} mm ${on}, towards ${clockOf(bearing).toFixed(0)} o'clock (${bearing.toFixed(0)}°)`,
        what,
        along,
        widthMm: pointAt(b.line, kept).diameter,
        green,
        why: d.why ?? null,
        height: b.line.points[0]![2],
      };
    })
    .sort((a, b) => (a.tag || Infinity) - (b.tag || Infinity) || a.height - b.height || (a.branch < b.branch ? -1 : 1));
  const before = items.some((i) => i.tag) ? (tree.plan.cutting?.numbers ?? 0) : 0;
  let fresh = before;
  return items.map(({ height: _height, ...item }) => ({ ...item, tag: item.tag || ++fresh }));
}
