import { add, alignedTo, limb, pointAt, sub, type Limb } from '../space/index.js';
import { parentsFirst, type Tree } from '../tree/index.js';

/** Lines of which some have moved: all that grows on those is carried along and turned as they turned there. */
export function rideAlong(tree: Tree, lines: ReadonlyMap<string, Limb>, moved: ReadonlyMap<string, Limb>): Map<string, Limb> {
  const now = new Map(lines);
  for (const [id, line] of moved) now.set(id, line);
  for (const { id, parent, at } of parentsFirst(tree.branches)) {
    const [was, is, own] = [lines.get(parent), now.get(parent), now.get(id)];
    if (!was || !is || !own || was === is) continue;
    const [from, to] = [pointAt(was, at), pointAt(is, at)];
    const turned = alignedTo(from.direction, to.direction);
    now.set(
      id,
      limb(
        own.points.map((p) => add(to.point, turned(sub(p, from.point)))),
        own.diameters,
      ),
    );
  }
  return now;
}
