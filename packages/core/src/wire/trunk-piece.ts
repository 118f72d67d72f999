import { keepNothing, serialsOf, type Keep } from '../units/index.js';
import type { Vec } from '../space/index.js';
import { woodIn, type PlacedTree, type PlannedBend } from '../tree/index.js';
import { chooseWire, COIL_ANGLE, sayChoice, USUAL_PAST, type BendToHold, type WireChoice } from './choose.js';
import { WOUND_SHARE } from './coil-alone.js';
import { laidWire } from './laid.js';
import { metalFor, outsidesOf } from './needs.js';
import { pathOfCoil } from './path.js';
import { asPiece } from './piece.js';
import type { Piece } from './pieces.js';
import type { RunPlan, Unwired } from './run-plan.js';
import type { Surroundings } from './surroundings.js';
import { HANDS } from './touching.js';
import { SOIL_SHARE, trunkCoil } from './trunk-wire.js';
import { Wants, type Wanted } from './wanted.js';

/** The wire that holds a bent trunk, chosen for the stiffest of its bends with the others; or why none does. */
function wireFor(placed: PlacedTree, bends: readonly BendToHold[]): WireChoice | Unwired {
  const [bend, ...others] = bends;
  const wire = chooseWire(bend!, metalFor(placed, woodIn(placed, 'trunk')!), placed.tree.plan.firmness, { others });
  if (wire) return wire;
  const stiffest = bends.reduce((worst, b) => (b.diameter > worst.diameter ? b : worst));
  return { branch: 'trunk', because: sayChoice(stiffest, null).slice(0, 1) };
}

/** Whether a coil of the trunk's own would hold its bends. */
export function wireHoldsTrunk(placed: PlacedTree, bends: readonly PlannedBend[]): boolean {
  const wants = new Wants(placed, { poses: [], asGrown: [], trunk: bends }, () => USUAL_PAST, keepNothing);
  return !('because' in wireFor(placed, wants.bendsOf(woodIn(placed, 'trunk')!, { bends: [...bends] })));
}

interface BentTrunk {
  bends: readonly PlannedBend[];
  wants: Wants;
  surroundings: Surroundings;
  /** From the world into the tree's own space. */
  back: (way: Vec) => Vec;
  toward: Vec | null;
  keep: Keep;
}

/** The trunk's own wire, where the trunk is bent: out of the soil behind it, up and round over its bends. Null where it stays as it stands. */
export function trunkPiece(
  placed: PlacedTree,
  { bends: trunkBends, wants, surroundings, back, toward, keep }: BentTrunk,
): { piece: Piece; wanted: Wanted } | Unwired | null {
  const given = placed.tree.plan.runs.find((r) => r.branches.some((b) => b.branch === 'trunk')) ?? null;
  if (!given && !trunkBends.length) return null;
  const wood = woodIn(placed, 'trunk')!;
  const pose = { bends: [...trunkBends] };
  const bends = wants.bendsOf(wood, pose);
  const wire = given ?? wireFor(placed, bends);
  if ('because' in wire) return wire;
  const { metal, size, strands } = wire;
  const angle = given?.angle ?? COIL_ANGLE;
  const need = wants.needOf(wood, { metal, size, strands, angle }, { hand: null, start: null, must: 'neither' });
  const half = (size * strands) / 2;
  const bark = surroundings.bark('trunk');
  const asked = {
    angle,
    half,
    lift: size / 2,
    hands: given ? [given.branches[0]!.hand] : HANDS,
    toward,
    end: Math.min(WOUND_SHARE * bark.length, trunkBends.reduce((far, b) => Math.max(far, b.at + b.length), bark.length / 2) + 2 * need.diameter),
    outsides: outsidesOf(bark, pose.bends, back),
  };
  const knots = surroundings.knotsOn('trunk', half, 0.5, { keep });
  const wound = keep(`trunk ${serialsOf([bark, knots])} ${JSON.stringify(asked)}`, () => {
    const coiled = trunkCoil({ ...asked, bark, knots });
    const path = pathOfCoil('trunk', coiled.coil);
    return { ...coiled, path, wire: laidWire(path, half, size / 2) };
  });
  const soil = SOIL_SHARE * placed.tree.pot.height;
  const run: RunPlan = {
    id: given?.id ?? '',
    kind: 'trunk',
    ...asPiece({ metal, strands, angle }, size, wound.path.length + soil),
    order: 0,
    route: null,
    anchor: { run: null, turns: 0, soil },
    branches: [],
    because: ['It holds the trunk before any branch is wired: branch wires go beside it, with its hand.'],
    path: wound.path,
  };
  return {
    piece: { run, wire: wound.wire, parts: [{ need, wound: { hand: wound.hand, start: 'over' }, coil: wound.coil, said: [], onFrom: null }] },
    wanted: { need, ofItself: null, bends, holds: trunkBends, pose: undefined, tie: null, past: USUAL_PAST, run: given },
  };
}
