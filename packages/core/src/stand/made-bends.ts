import { dayOf } from '../units/index.js';
import { direction, type Vec } from '../space/index.js';
import { standing, type CoilOnce, type LineOf, type RecordLine, type Tree } from '../tree/index.js';

/** A bend as the hand made it, on the line that its layer lies on. */
export interface HandBend {
  at: number;
  length: number;
  handDeg: number;
  /** Which way, in the space of its wood there as it was measured: all below it may have moved since. */
  toward: Vec;
  /** The coil that was on when it was made; null: none was. */
  coil: CoilOnce | null;
  /** Degrees of it that the line as it was measured has in it. */
  measured: number;
}

/** Bends that were made one with another, on the line as it lay before them. */
export interface Layer {
  bends: HandBend[];
  placed: { bearing: number | null; elevation: number | null } | null;
  /** What comes next lies on what these made: wire came off, or the line was measured anew. */
  closed: boolean;
}

/** A stage goes on with the bend that begins so near, mm. */
const SAME_PLACE_MM = 1.5;

type Bending = LineOf<'bent'> | LineOf<'placed'> | LineOf<'wired'>;
interface NewBend {
  at: number;
  length: number;
  handDeg: number;
  toward: Vec;
}

const wayOf = ({ bearing, elevation }: { bearing: number; elevation: number }): Vec => direction({ bearingDeg: bearing, elevationDeg: elevation });

/** The bends that a line of the record tells, in the tree's own space; a bend of which it is not told where or which way cannot be drawn. */
function bendsIn(line: Bending): NewBend[] {
  if (line.kind === 'placed') return line.bends.map(({ at, over, bentDeg, toward }) => ({ at, length: over, handDeg: bentDeg, toward: wayOf(toward) }));
  const { at, over, bentDeg, toward } = line;
  return at === undefined || !over || bentDeg === undefined || !toward ? [] : [{ at, length: over, handDeg: bentDeg, toward: wayOf(toward) }];
}

/** What the replay of a record asks of the tree as it stands at that moment. */
export interface Moments {
  /** A direction of the tree's space, in that of the wood at a place of a branch as it was measured. */
  turnedBack(branch: string, at: number, way: Vec): Vec;
  /** The angle that a bend has on a day, degrees. */
  angleOn(branch: string, bend: HandBend, day: number): number;
  /** Something of a branch is otherwise from here on. */
  changed(branch: string): void;
}

/** Fills in all bends of each branch by a day, in layers from the first on, as the record tells them one after the other. */
export function replay(tree: Tree, onDay: number, coils: readonly CoilOnce[], layers: Map<string, Layer[]>, moments: Moments): void {
  const there = new Set(['trunk', ...tree.branches.map((b) => b.id)]);
  const coilOf = (branch: string, day: number): CoilOnce | null =>
    coils.filter((c) => c.branch === branch && c.since <= day && (c.offOn === null || c.offOn >= day)).at(-1) ?? null;
  for (const line of standing(tree.record)) {
    const day = dayOf(line.on);
    if (day > onDay) break;
    const branch = branchBent(line);
    if (branch === null || !there.has(branch)) continue;
    const own = layers.get(branch) ?? [];
    layers.set(branch, own);
    if (line.kind === 'bent' || line.kind === 'placed' || line.kind === 'wired') add(branch, own, line, day);
    else {
      if (line.kind === 'measured') for (const bend of own.flatMap((l) => l.bends)) bend.measured = moments.angleOn(branch, bend, day);
      const last = own.at(-1);
      if (last) last.closed = true;
    }
    moments.changed(branch);
  }

  function add(branch: string, own: Layer[], line: Bending, day: number): void {
    const isStage = line.kind === 'bent' && (line.stage ?? 1) > 1;
    let layer = own.at(-1);
    if (!layer || layer.closed || (layer.placed && !isStage)) own.push((layer = { bends: [], placed: null, closed: false }));
    for (const bend of bendsIn(line)) {
      const before = layer.bends.find((b) => Math.abs(b.at - bend.at) <= SAME_PLACE_MM);
      // Stages of a bend are told by the angle reached, not by what each added.
      if (before) before.handDeg = bend.handDeg;
      else {
        // What is bent where a bend is already is bent on what that made.
        if (layer.bends.some((b) => b.at < bend.at + bend.length && bend.at < b.at + b.length)) own.push((layer = { bends: [], placed: null, closed: false }));
        const further = layer.bends.findIndex((b) => b.at > bend.at);
        const made: HandBend = { ...bend, toward: moments.turnedBack(branch, bend.at, bend.toward), coil: coilOf(branch, day), measured: 0 };
        layer.bends.splice(further < 0 ? layer.bends.length : further, 0, made);
      }
      moments.changed(branch);
    }
    if (line.kind === 'placed') layer.placed = { bearing: line.bearing ?? null, elevation: line.elevation ?? null };
  }
}

/** The branch whose shape a line of the record tells something of; null where it tells nothing of a shape. */
function branchBent(line: RecordLine): string | null {
  if (line.kind === 'bent' || line.kind === 'placed' || line.kind === 'unwired') return line.branch;
  // A bend that was told with the wire that holds it.
  if (line.kind === 'wired') return line.toward ? line.branch : null;
  if (line.kind === 'measured') return line.trunkWas ? 'trunk' : line.was ? (line.branch ?? null) : null;
  return null;
}
