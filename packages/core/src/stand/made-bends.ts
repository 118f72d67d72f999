import { dayOf, groupedBy } from '../units/index.js';
import { direction, type Vec } from '../space/index.js';
import { standing, type CoilOnce, type LineOf, type RecordLine, type Tree } from '../tree/index.js';

/** A bend as the hand made it, on the line that its layer lies on. */
export interface HandBend {
  at: number;
  length: number;
  handDeg: number;
  /** Which way, in the space of its wood there as it was measured: all below it may have moved since. */
  toward: Vec;
  /** The coil that was on when it was made, or the tie that makes it; null: neither. */
  coil: CoilOnce | null;
  tie: string | null;
  /** What held it came off. */
  released: boolean;
  /** Degrees of it that the line as it was measured has in it. */
  measured: number;
}

/** Bends that were made one with another, on the line as it lay before them. */
export interface Layer {
  bends: HandBend[];
  /** The tie or device that leads the branch so, and the twists or turns in it; null: it was bent by hand. */
  tie: string | null;
  twists?: number;
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
  /** Tells of the last layer's bends that are new, told in the tree's space, which way they turn in the space of the wood there as it was measured. */
  turnBack(branch: string, fresh: ReadonlySet<HandBend>): void;
  /** The angle that a bend has now, degrees. */
  angleOf(branch: string, bend: HandBend): number;
  /** Something of a branch is otherwise from here on. */
  changed(branch: string): void;
}

/** Fills in all bends of each branch by a day, in layers from the first on, as the record tells them one after the other. */
export function replay(tree: Tree, onDay: number, coils: readonly CoilOnce[], layers: Map<string, Layer[]>, moments: Moments): void {
  const there = new Set(['trunk', ...tree.branches.map((b) => b.id)]);
  const byBranch = groupedBy(coils, (c) => c.branch);
  const coilOf = (branch: string, day: number): CoilOnce | null =>
    byBranch
      .get(branch)
      ?.filter((c) => c.since <= day && (c.offOn === null || c.offOn >= day))
      .at(-1) ?? null;
  for (const line of standing(tree.record)) {
    const day = dayOf(line.on);
    if (day > onDay) break;
    const branch = branchBent(line);
    if (branch === null || !there.has(branch)) continue;
    const own = layersOf(branch);
    const other = line.kind === 'guyed' ? otherOf(line) : null;
    if (line.kind === 'guyed' && other && there.has(other)) {
      tie(other, layersOf(other), line, line.other?.bends);
      moments.changed(other);
    }
    if (line.kind === 'guyed') tie(branch, own, line, line.bends);
    else if (line.kind === 'bent' || line.kind === 'placed' || line.kind === 'wired') add(branch, own, line, day);
    else {
      for (const bend of own.flatMap((l) => l.bends)) {
        if (line.kind === 'measured') bend.measured = moments.angleOf(branch, bend);
        else if (bend.coil?.off === line) bend.released = true;
      }
      const last = own.filter((l) => l.tie === null).at(-1);
      if (last) last.closed = true;
    }
    moments.changed(branch);
  }

  function layersOf(branch: string): Layer[] {
    const own = layers.get(branch) ?? [];
    layers.set(branch, own);
    return own;
  }

  /** The other branch that a device moves, as its line says or said when it was set up. */
  function otherOf(line: LineOf<'guyed'>): string | null {
    if (line.other) return line.other.branch;
    const led = [...layers].find(([id, own]) => id !== line.branch && own.some((l) => l.tie === line.guy && !l.closed));
    return led ? led[0] : null;
  }

  /** A tie or a device put on, twisted on, or taken off. */
  function tie(branch: string, own: Layer[], { guy, done = 'placed', twists = 0 }: LineOf<'guyed'>, bends: LineOf<'guyed'>['bends']): void {
    const id = guy ?? branch;
    const on = own.find((l) => l.tie === id && !l.closed);
    if (!on) {
      if (!bends?.length || done === 'removed') return;
      const led = bends.map((b): HandBend => ({ ...ledBend(b), tie: id }));
      own.push({ bends: led, tie: id, twists, placed: null, closed: false });
      moments.turnBack(branch, new Set(led));
    } else if (done === 'removed') {
      on.closed = true;
      for (const bend of on.bends) bend.released = true;
    } else {
      // Told without how it leads its branch now, it leads it by as much more as it is twisted.
      const before = on.twists ?? 0;
      const after = Math.max(0, before + (done === 'loosened' ? -twists : twists));
      on.bends.forEach((bend, i) => (bend.handDeg = bends ? (bends[i]?.bentDeg ?? bend.handDeg) : before > 0 ? (bend.handDeg * after) / before : bend.handDeg));
      on.twists = after;
    }
  }

  function add(branch: string, own: Layer[], line: Bending, day: number): void {
    const isStage = line.kind === 'bent' && (line.stage ?? 1) > 1;
    let layer = own.at(-1);
    if (!layer || layer.closed || layer.tie !== null || (layer.placed && !isStage)) own.push((layer = { bends: [], tie: null, placed: null, closed: false }));
    let fresh = new Set<HandBend>();
    const told = (): void => {
      if (fresh.size) moments.turnBack(branch, fresh);
      fresh = new Set();
    };
    for (const bend of bendsIn(line)) {
      const open = isStage ? own.filter((l) => !l.closed && l.tie === null) : [layer];
      const before = open.flatMap((l) => l.bends).find((b) => Math.abs(b.at - bend.at) <= SAME_PLACE_MM);
      // Stages of a bend are told by the angle reached, not by what each added.
      if (before) {
        before.handDeg = bend.handDeg;
        continue;
      }
      // What is bent where a bend is already is bent on what that made.
      if (layer.bends.some((b) => b.at < bend.at + bend.length && bend.at < b.at + b.length)) {
        told();
        own.push((layer = { bends: [], tie: null, placed: null, closed: false }));
      }
      const further = layer.bends.findIndex((b) => b.at > bend.at);
      const made: HandBend = { ...bend, coil: coilOf(branch, day), tie: null, released: false, measured: 0 };
      layer.bends.splice(further < 0 ? layer.bends.length : further, 0, made);
      fresh.add(made);
    }
    told();
    if (line.kind === 'placed') layer.placed = { bearing: line.bearing ?? null, elevation: line.elevation ?? null };
  }
}

const ledBend = ({ at, over, bentDeg, toward }: NonNullable<LineOf<'guyed'>['bends']>[number]): HandBend => ({
  at,
  length: over,
  handDeg: bentDeg,
  toward: wayOf(toward),
  coil: null,
  tie: null,
  released: false,
  measured: 0,
});

/** The branch whose shape a line of the record tells something of; null where it tells nothing of a shape. */
function branchBent(line: RecordLine): string | null {
  if (line.kind === 'bent' || line.kind === 'placed' || line.kind === 'unwired' || line.kind === 'guyed') return line.branch;
  // A bend that was told with the wire that holds it.
  if (line.kind === 'wired') return line.toward ? line.branch : null;
  if (line.kind === 'measured') return line.trunkWas ? 'trunk' : line.was ? (line.branch ?? null) : null;
  return null;
}
