import { bearingAndElevation, direction, sub, type Limb, type Vec } from '../space/index.js';
import { keptOf, keptOfTies, thicknessOn } from '../growth/index.js';
import { turnedBy } from '../pose/index.js';
import { asMeasured, coilHistory, outcomeOf, placeTree, woodIn, type Branch, type HeldShape, type PlacedTree, type Station, type Tree } from '../tree/index.js';
import { anglesOf } from './angles.js';
import { replay, type HandBend, type Layer } from './made-bends.js';
import { LEAST_DEG, Moment } from './moment.js';
import { trunkNotHeld } from './trunk-held.js';

const thousandth = (x: number): number => Math.round(x * 1000) / 1000;
const tidy = ([x, y, z]: Vec): Vec => [thousandth(x), thousandth(y), thousandth(z)];

/** What a record makes of the lines of a tree: as they stand, and as they lay before what is bent now. */
interface Lines {
  now: Pick<Tree, 'branches' | 'trunk'>;
  lay: Pick<Tree, 'branches' | 'trunk'>;
  held: Record<string, HeldShape>;
  unsure: Record<string, number>;
  /** Whether a tie or a device leads wood. */
  led: boolean;
  /** The trunk was bent, and let go, before: it is not asked of it again. */
  trunkDone: boolean;
}

interface Stood {
  stands: Tree;
  lay: Tree;
}
const remembered = new WeakMap<Tree, Map<number, Stood>>();
/** Lines rest on the measures and the record; a plan that changes leaves them as they are. */
const drawn = new WeakMap<readonly Branch[], { of: readonly unknown[]; lines: Lines }>();

function linesOf(tree: Tree, onDay: number): Lines {
  const of = [tree.trunk, tree.record, tree.plan.runs, tree.species, tree.vigour, tree.site, tree.repottedOn, tree.plan.pace, onDay];
  const before = drawn.get(tree.branches);
  if (before && before.of.every((x, i) => x === of[i])) return before.lines;
  const lines = bentLines(tree, onDay);
  drawn.set(tree.branches, { of, lines });
  return lines;
}

function stood(tree: Tree, onDay: number): Stood {
  const measured = asMeasured(tree);
  const known = remembered.get(measured) ?? new Map<number, Stood>();
  remembered.set(measured, known);
  let found = known.get(onDay);
  if (!found) {
    const { now, lay, held, unsure, led, trunkDone } = linesOf(measured, onDay);
    const { branches, trunk } = measured;
    const bendable = { ...measured, ...lay };
    const stays = measured.plan.trunkWay && (trunkDone || trunkNotHeld(placeTree(outcomeOf(bendable).tree), onDay));
    const plan = stays ? { ...measured.plan, trunkWay: null } : measured.plan;
    const stands: Tree = { ...measured, ...now, plan, stands: { day: onDay, branches, trunk, layTrunk: lay.trunk, held, unsure } };
    found = { stands, lay: Object.keys(held).length || led ? { ...measured, ...lay, plan, calledBy: now } : { ...measured, ...now, plan } };
    known.set(onDay, found);
  }
  return found;
}

/**
 * A tree as it stands on a day: every line as last measured, then bent as the record tells, by what stays under the wire, and
 * let go by what came back. The record is not changed; asMeasured() gives the measures back. docs: As it stands.
 */
export const asItStands = (tree: Tree, onDay: number): Tree => (tree.stands?.day === onDay ? tree : stood(tree, onDay).stands);

/** Why the trunk is not bent into what the plan asks for, as a list; null where it is, or nothing is asked. */
export function trunkStays(tree: Tree, onDay: number): string[] | null {
  if (!tree.plan.trunkWay || asItStands(tree, onDay).plan.trunkWay) return null;
  const { lay } = linesOf(asMeasured(tree), onDay);
  const why = trunkNotHeld(placeTree(outcomeOf({ ...asMeasured(tree), ...lay }).tree), onDay);
  return why ? [why] : null;
}

/** The same without what was bent under the wire that is on now, and without what ties and devices lead: the lines on which that was wound, and from which its bends are told. */
export const asItLay = (tree: Tree, onDay: number): Tree => stood(tree, onDay).lay;

function bentLines(tree: Tree, onDay: number): Lines {
  const layers = new Map<string, Layer[]>();
  const placed = placeTree(tree);
  const coils = coilHistory(tree, onDay).filter((c) => woodIn(placed, c.branch) !== undefined);
  const bendNow = anglesOf(placed, { kept: keptOf(placed, coils, onDay), keptOfTie: keptOfTies(placed, onDay) });
  const angleOf = (branch: string, bend: HandBend): number => bendNow(branch, bend).angle;
  const moment = new Moment(placed, layers, angleOf);
  replay(tree, onDay, coils, layers, {
    turnBack: (branch, fresh) => moment.turnBack(branch, fresh),
    angleOf,
    changed: (branch) => moment.changed(branch),
  });
  const held: Record<string, HeldShape> = {};
  const unsure: Record<string, number> = {};
  for (const [id, own] of layers) {
    // What was measured since is as sure as a measure, until wire lets go of it.
    const off = own.flatMap((l) => l.bends.map((b) => (b.measured && Math.abs(angleOf(id, b) - b.measured) <= LEAST_DEG ? 0 : bendNow(id, b).unsure)));
    if (off.some((deg) => deg > 0)) unsure[id] = Math.hypot(...off);
    // What a tie leads is the tie's: the plan asks of the hand what is left of the bends.
    const open = own.filter((l) => !l.closed && l.bends.length && l.tie === null);
    if (open.length) held[id] = { made: moment.madeIn(id, own.indexOf(open.at(-1)!)), further: open.length > 1, placed: open.at(-1)!.placed };
  }
  const closed = new Map([...layers].map(([id, own]) => [id, own.filter((l) => l.closed)]));
  // What a tie or a device leads is let go; measured while it was led, its line is laid back by as much.
  const unled = new Map([...layers].map(([id, own]) => [id, own.filter((l) => l.closed || l.tie !== null)]));
  const angleUnled = (branch: string, bend: HandBend): number => (bend.tie !== null && !bend.released ? 0 : angleOf(branch, bend));
  return {
    now: onLines(tree, placed, moment, onDay),
    lay: onLines(tree, placed, new Moment(placed, unled, angleUnled), onDay),
    held,
    unsure,
    led: [...layers.values()].some((own) => own.some((l) => !l.closed && l.tie !== null)),
    trunkDone: Boolean(closed.get('trunk')?.length),
  };
}

/** Trunk and branches on the lines of a moment, as thick as they are on a day; the same where nothing is bent, or grew. */
function onLines({ trunk, branches }: Tree, placed: PlacedTree, moment: Moment, onDay: number): Pick<Tree, 'branches' | 'trunk'> {
  const { line } = moment.shapeOf('trunk');
  const bent = branches.map((b) => grown(branchOn(b, placed.byId.get(b.id)!.line, moment), thicknessOn(placed, b.id, onDay)!));
  return { trunk: line === placed.trunk ? trunk : stationsOf(line), branches: bent.every((b, i) => b === branches[i]) ? branches : bent };
}

const stationsOf = ({ points, diameters }: Limb): Station[] =>
  points.map(([x, y, z], i) => ({ x: thousandth(x), y: thousandth(y), z: thousandth(z), d: thousandth(diameters[i]!) }));

const tenth = (x: number): number => Math.round(x * 10) / 10;

/** A branch so thick, in tenths of a millimetre, and at its tip in the same measure. */
function grown(branch: Branch, thick: number): Branch {
  const d = tenth(thick);
  return Math.abs(d - branch.d) < 0.1 ? branch : { ...branch, d, tipD: Math.min(d, tenth((branch.tipD * d) / branch.d)) };
}

/** A branch on its line; turned about its shoulder as that was carried. */
function branchOn(branch: Branch, measured: Limb, moment: Moment): Branch {
  const { line } = moment.shapeOf(branch.id);
  if (line === measured) return branch;
  const out = direction({ bearingDeg: branch.bearing, elevationDeg: branch.elevation });
  const turn = moment.carriedTo(branch.id)?.turn;
  const { bearing, elevation } = turn ? bearingAndElevation(turnedBy(turn, out)) : branch;
  return { ...branch, bearing, elevation, path: line.points.map((p) => tidy(sub(p, line.points[0]!))) };
}
