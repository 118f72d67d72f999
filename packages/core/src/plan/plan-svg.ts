import { posedLines } from '../pose/index.js';
import { fitInto, outcomeOf, outlinePath, placeTree, shapesOf, shortNamesOf, withLines, type Shapes, type Tree } from '../tree/index.js';
import type { Point } from '../space/index.js';
import { escaped } from './escaped.js';
import type { PlanDocument } from './plan.js';

const BOX = 1000;
const WORDS = 60;
const pointsOf = ({ wood, pads, pot }: Shapes): Point[] => [...[...wood, ...pads].flatMap((s) => s.points), ...pot];
/** The far end of a branch's outline: where its name stands. */
const tipOf = (points: readonly Point[]): Point => points[Math.floor(points.length / 2) - 1]!;

/** A tree's plan drawn from its front as an SVG file: as it is meant to stand, what goes as a dashed outline, how branches lie now as a fine line, with their names; `labels` names others instead. */
export function planSvg(tree: Tree, plan: Pick<PlanDocument, 'poses' | 'on'>, labels?: ReadonlyMap<string, string>): string {
  const now = shapesOf(placeTree(tree));
  const after = placeTree(outcomeOf(tree).tree);
  const meant = shapesOf(withLines(after, posedLines(after, plan.poses)));
  const fit = fitInto([...pointsOf(now), ...pointsOf(meant)], BOX);
  const left = new Set(after.branches.map((b) => b.branch.id));
  const posed = new Set(plan.poses.map((p) => p.branch));
  const d = (points: readonly Point[]): string => outlinePath(points.map(fit));
  const short = shortNamesOf(tree);
  const named = labels ?? new Map(tree.branches.filter((b) => b.parent === 'trunk').map((b) => [b.id, short(b.id)]));
  const names = (labels ? now : meant).wood
    .filter((w) => named.has(w.id))
    .map((w) => {
      const [x, y] = fit(tipOf(w.points));
      return `<text x="${x.toFixed(0)}" y="${(y - 8).toFixed(0)}" text-anchor="${x < BOX / 2 ? 'end' : 'start'}">${escaped(named.get(w.id)!)}</text>`;
    });
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="${-WORDS} ${-WORDS} ${BOX + 2 * WORDS} ${BOX + 2 * WORDS}" font-family="sans-serif" font-size="20" fill="#24251f">`,
    `<title>${escaped(tree.name)}, the plan of ${plan.on}</title>`,
    `<path d="${d(meant.pot)}" fill="#8a5a44"/>`,
    `<g fill="none" stroke="#b9ab94" stroke-width="1.5">${now.wood
      .filter((w) => posed.has(w.id))
      .map((w) => `<path d="${d(w.points)}"/>`)
      .join('')}</g>`,
    `<g fill="#faf7ef" stroke="#a03a34" stroke-width="2" stroke-dasharray="7 5">${now.wood
      .filter((w) => w.id !== 'trunk' && !left.has(w.id))
      .map((w) => `<path d="${d(w.points)}"/>`)
      .join('')}</g>`,
    `<path d="${meant.wood.map((w) => d(w.points)).join('')}" fill="#6e5844"/>`,
    `<path d="${meant.pads.map((p) => d(p.points)).join('')}" fill="#566e43" fill-opacity="0.6"/>`,
    ...names,
    '</svg>',
    '',
  ].join('\n');
}
