import { greatestOf, clamp, toDeg, toRad, turnDeg } from '../units/index.js';
import { lengthOf, pointAt, smooth, viewer, wedge, type Vec, type View } from '../space/index.js';
import { formOf, greenWithChildren, namesOf, slope, type Form, type Names, type PlacedTree, type Tree } from '../tree/index.js';
import { hidingOf, type HiddenBy, type Hiding } from './hiding.js';
import { movementOf, sayMovement } from './movement.js';

export const PARTS = ['base', 'movement', 'trunkInSight', 'apex', 'eye', 'firstBranch', 'features', 'greenKept'] as const;
export type Part = (typeof PARTS)[number];
export type PartScores = Record<Part, number>;

export interface Front extends View {
  /** Weighted mean of the parts, 0..1. */
  score: number;
  /** Height of the wedge under the pot, mm. */
  wedge: number;
  parts: PartScores;
  because: Record<Part, string>;
  /** The first branch and the back branch, where there are such. */
  leading: string[];
  /** Branches that point at the viewer's eye, and those that hide the trunk. */
  atEye: string[];
  hiding: HiddenBy[];
}

/** A branch this close to the line of sight points at the viewer. */
export const EYE_DEG = 20;

export type Weights = Record<Part, number>;
const BALANCED: Weights = { base: 1, movement: 1.5, trunkInSight: 1, apex: 0.7, eye: 1, firstBranch: 0.8, features: 1, greenKept: 0.5 };
export const WEIGHT_PROFILES: Record<string, Weights> = {
  'slender tree': BALANCED,
  'heavy trunk': { ...BALANCED, base: 1.8, movement: 1, features: 1.2 },
  cascade: { ...BALANCED, base: 0.5, movement: 2.5, trunkInSight: 2, apex: 0.2, firstBranch: 0.3 },
  clump: { ...BALANCED, base: 1.4, movement: 0.8, trunkInSight: 1.4 },
  // One behind the other is no front: that both are seen counts most.
  'twin trunks': { ...BALANCED, base: 1.2, movement: 1.2, trunkInSight: 2.5 },
};

/** The weights that a tree's form suggests. */
export const usualWeights = (tree: Tree): string => ({ upright: 'slender tree', cascade: 'cascade', twin: 'twin trunks', clump: 'clump' })[formOf(tree)];

type OfBearing = { base: Scored; firstBranch: ReturnType<typeof firstBranch>; features: Scored };

interface Context {
  placed: PlacedTree;
  names: Names;
  /** Living main branches from below: where they leave (share of the height) and their bearing. */
  low: { id: string; share: number; bearing: number }[];
  trunkLine: Vec[];
  form: Form;
  widestBase: number;
  greenWith: Map<string, number>;
  /** What depends on the bearing alone, and on bearing and pitch: roll turns the picture about the line of sight. */
  faced: (view: View) => OfBearing;
  pitched: (view: View) => { hiding: Hiding; eyes: Eye };
}

function rootExtent(placed: PlacedTree, bearing: number): number {
  const baseRadius = placed.trunk.diameters[0]! / 2;
  let left = baseRadius;
  let right = baseRadius;
  for (const root of placed.tree.roots) {
    const x = -Math.sin(toRad(turnDeg(bearing, root.bearing))) * (baseRadius + root.length);
    right = Math.max(right, x);
    left = Math.max(left, -x);
  }
  return left + right;
}

/** What does not depend on the view, prepared once for a scan. */
export function prepare(placed: PlacedTree): Context {
  const hide = hidingOf(placed);
  const context: Context = {
    placed,
    names: namesOf(placed.tree),
    low: placed.branches
      .filter((b) => b.order === 1 && b.branch.state !== 'dead')
      .map((b) => ({ id: b.branch.id, share: b.line.points[0]![2] / placed.height, bearing: slope(b).bearing }))
      .sort((a, b) => a.share - b.share),
    trunkLine: resample(placed),
    form: formOf(placed.tree),
    widestBase: greatestOf(Array.from({ length: 120 }, (_, i) => rootExtent(placed, i * 3))),
    greenWith: greenWithChildren(placed.tree),
    faced: remember(
      (view) => ({ base: base(context, view), firstBranch: firstBranch(context, view), features: features(context, view) }),
      (a, b) => a.bearing === b.bearing,
    ),
    pitched: remember(
      (view) => ({ hiding: hide(view.bearing, view.pitch), eyes: eye(context, viewer(view)) }),
      (a, b) => a.bearing === b.bearing && a.pitch === b.pitch,
    ),
  };
  return context;
}

/** Remembers the last answer for as long as the view is the same in what matters. */
function remember<T>(ask: (view: View) => T, same: (a: View, b: View) => boolean): (view: View) => T {
  let last: { view: View; answer: T } | null = null;
  return (view) => {
    if (!last || !same(last.view, view)) last = { view, answer: ask(view) };
    return last.answer;
  };
}

/** The trunk at thirteen even steps of its smoothed line, so that the stations chosen by the ruler do not count. */
function resample(placed: PlacedTree): Vec[] {
  const fine = smooth(placed.trunk, 8);
  return Array.from({ length: 13 }, (_, i) => pointAt(fine, (lengthOf(fine) * i) / 12).point);
}

/** A score, and its words when somebody asks: thousands of views are scored, a few are explained. */
type Scored = { score: number; because: () => string };

function base({ placed, widestBase }: Context, view: View): Scored {
  const width = rootExtent(placed, view.bearing);
  const baseRadius = placed.trunk.diameters[0]! / 2;
  const pointing = placed.tree.roots.filter((r) => Math.abs(turnDeg(view.bearing, r.bearing)) < EYE_DEG);
  const cost = pointing.reduce((sum, r) => sum + 0.25 * clamp(r.d / (baseRadius * 0.6), 0, 1), 0);
  const note = pointing.length ? `; ${pointing.length === 1 ? 'a root points' : `${pointing.length} roots point`} at you` : '';
  return {
    score: clamp(width / widestBase - cost, 0, 1),
    because: () => (placed.tree.roots.length ? `${width.toFixed(0)} mm wide of at most ${widestBase.toFixed(0)}${note}` : 'no surface roots measured'),
  };
}

function movement({ trunkLine, form }: Context, see: (p: Vec) => Vec): Scored {
  const line = trunkLine.map(see);
  const [base, end] = [line[0]!, line[line.length - 1]!];
  const fall = form === 'cascade' ? { aside: end[0] - base[0], toward: end[2] - base[2] } : null;
  const found = movementOf(line, fall);
  return { score: found.score, because: () => sayMovement(found, fall) };
}

function apex({ placed }: Context, see: (p: Vec) => Vec): Scored {
  const total = lengthOf(placed.trunk);
  const from = see(pointAt(placed.trunk, total * 0.67).point);
  const to = see(pointAt(placed.trunk, total).point);
  // Of a cascade the growing end hangs: it too comes a little to the viewer.
  const hangs = to[1] < from[1];
  const lean = toDeg(Math.atan2(to[2] - from[2], Math.max(1e-6, Math.abs(to[1] - from[1]))));
  const score = lean < 0 ? clamp(1 + lean / 25, 0, 1) : lean <= 15 ? 1 : clamp(1 - (lean - 15) / 35, 0, 1);
  const way = hangs ? 'hangs' : 'leans';
  const because = (): string =>
    Math.abs(lean) < 0.5 ? (hangs ? 'hangs straight down' : 'upright') : lean > 0 ? `${way} ${lean.toFixed(0)}° to you` : `${way} ${(-lean).toFixed(0)}° away`;
  return { score, because };
}

interface Eye extends Scored {
  atEye: string[];
}

function eye({ placed, names }: Context, see: (p: Vec) => Vec): Eye {
  const limit = (placed.height * 2) / 3;
  const size = placed.trunk.diameters[0]! * placed.height;
  const found: { id: string; d: number; load: number }[] = [];
  for (const { branch, line } of placed.branches) {
    const from = see(line.points[0]!);
    if (line.points[0]![2] > limit) continue;
    const to = see(line.points[line.points.length - 1]!);
    const angle = toDeg(Math.atan2(Math.hypot(to[0] - from[0], to[1] - from[1]), to[2] - from[2]));
    if (angle < EYE_DEG) found.push({ id: branch.id, d: branch.d, load: ((1.2 - angle / EYE_DEG) * branch.d * branch.length) / size });
  }
  found.sort((a, b) => b.load - a.load || (a.id < b.id ? -1 : 1));
  const load = found.reduce((sum, f) => sum + f.load, 0);
  const named = (): string =>
    found
      .slice(0, 3)
      .map((f) => `${names(f.id)} (${f.d.toFixed(0)} mm)`)
      .join('; ');
  return {
    score: 1 / (1 + 12 * load),
    atEye: found.map((f) => f.id),
    because: () => (found.length ? `${named()} ${found.length === 1 ? 'points' : 'point'} at you` : 'nothing points at you'),
  };
}

function firstBranch({ low, names }: Context, view: View): Scored & { leading: string[] } {
  const seen = low.map((b) => ({ ...b, off: turnDeg(view.bearing, b.bearing) }));
  const first = seen.find((b) => b.share > 0.12);
  if (!first) return { score: 0, because: () => 'no branch to start from', leading: [] };
  const aside = Math.abs(first.off);
  const toSide = clamp(1 - Math.abs(aside - 75) / 60, 0, 1);
  const atHeight = clamp(1 - Math.max(0, first.share - 0.45) / 0.3, 0, 1);
  const back = seen.find((b) => Math.abs(b.off) > 125 && b.share > 0.15 && b.share < 0.85);
  const because = (): string => {
    // Bearings run clockwise from above and the viewer looks at the tree: a greater bearing is to the left.
    const side = first.off > 0 ? 'left' : 'right';
    const way =
      aside < 30 ? 'comes at you' : aside > 150 ? 'goes to the back' : `goes ${side}, ${Math.abs(90 - aside).toFixed(0)}° ${aside <= 90 ? 'forward' : 'back'}`;
    const behind = back === first ? '' : `; ${back ? `${names(back.id)} behind` : 'no back branch'}`;
    return `${names(first.id)} ${way}${behind}`;
  };
  return { score: 0.65 * toSide * atHeight + (back ? 0.35 : 0), because, leading: [first.id, ...(back ? [back.id] : [])] };
}

function features({ placed }: Context, view: View): Scored {
  const all = placed.tree.features;
  if (!all.length) return { score: 0.5, because: () => 'none noted' };
  const total = all.reduce((sum, f) => sum + f.weight, 0);
  const sum = all.reduce((s, f) => {
    const facing = (1 + Math.cos(toRad(turnDeg(view.bearing, f.bearing)))) / 2;
    return s + f.weight * (f.good ? facing : 1 - facing);
  }, 0);
  const because = (): string => all.map((f) => `${f.kind} ${Math.abs(turnDeg(view.bearing, f.bearing)) < 70 ? 'shown' : 'hidden'}`).join(', ');
  return { score: sum / total, because };
}

const SEEN_PART: Record<Form, string> = {
  upright: 'the lower two thirds',
  cascade: 'the trunk',
  twin: "both trunks' lower two thirds",
  clump: 'the lower two thirds',
};

function inSight(form: Form, hiding: Hiding): string {
  const pot = hiding.by().find((h) => h.branch === 'pot');
  return `${((1 - hiding.hidden) * 100).toFixed(0)}% of ${SEEN_PART[form]}${pot && pot.share >= 0.005 ? `; the pot hides ${(pot.share * 100).toFixed(0)}%` : ''}`;
}

export interface Rated {
  view: View;
  score: number;
  found: Record<Part, Scored>;
  leading: string[];
  atEye: string[];
  hiding: Hiding;
}

/** Score of one view; its words are made by explain(). */
export function rate(context: Context, view: View, weights: Weights): Rated {
  const see = viewer(view);
  const faced = context.faced(view);
  const { hiding, eyes } = context.pitched(view);
  const off = eyes.atEye.reduce((sum, id) => sum + context.greenWith.get(id)!, 0);
  const found: Record<Part, Scored> = {
    ...faced,
    movement: movement(context, see),
    trunkInSight: { score: 1 - hiding.hidden, because: () => inSight(context.form, hiding) },
    apex: apex(context, see),
    eye: eyes,
    greenKept: { score: clamp(1 - off, 0, 1), because: () => (off > 0.005 ? `${(off * 100).toFixed(0)}% of the green must move or go` : 'nothing must go') },
  };
  let sum = 0;
  let weight = 0;
  for (const part of PARTS) {
    sum += weights[part] * found[part].score;
    weight += weights[part];
  }
  return { view, score: sum / weight, found, leading: faced.firstBranch.leading, atEye: eyes.atEye, hiding };
}

/** A rated view with its parts and reasons. */
export function explain(context: Context, { view, score, found, leading, atEye, hiding }: Rated): Front {
  return {
    ...view,
    score,
    wedge: wedge(view, context.placed.tree.pot).height,
    parts: Object.fromEntries(PARTS.map((p) => [p, found[p].score])) as PartScores,
    because: Object.fromEntries(PARTS.map((p) => [p, found[p].because()])) as Record<Part, string>,
    leading,
    atEye,
    hiding: hiding.by(),
  };
}
