import type { Static, TObject } from '@sinclair/typebox';
import { dayOf } from '../units/index.js';
import { trunkDevice } from '../pose/index.js';
import { trunkNotHeld } from '../stand/index.js';
import {
  DEVICE,
  guysOn,
  outcomeOf,
  part,
  placeTree,
  POSE,
  poseFaults,
  sayBranches,
  POSE_FIELDS,
  POSING,
  TRUNK_LEADS,
  TRUNK_WAYS,
  WORSE_WOOD,
  id,
  list,
  MOST_BRANCHES,
  oneOf,
  optional,
  orNull,
  type Device,
  type Pose,
  type PosingChoice,
  type Tree,
  type Worsening,
} from '../tree/index.js';
import { actKind, inPlan, isRefused, missing, refuse, type Outcome } from './act.js';
import { faultOf, freeDeviceId } from './device.js';

/** A list of what is said of branches, with what is said of one replaced or, with null, taken away. */
const withOne = <T extends { branch: string }>(all: readonly T[], branch: string, one: T | null): T[] => [
  ...all.filter((x) => x.branch !== branch),
  ...(one ? [one] : []),
];

const { bends, ...WHERE } = POSE_FIELDS;

/** A pose with what is not said of it left out. */
type GivenPose = Static<TObject<Omit<typeof POSE_FIELDS, 'bends'>>> & { bends?: Pose['bends'] };

/** A tree with one more branch posed, as it was given; or why not. */
function posed(tree: Tree, { bends: given = [], reach, arcs, planes, stays, ...where }: GivenPose): Outcome {
  const gone = missing(tree, where.branch, 'branch');
  if (gone) return gone;
  const pose: Pose = {
    ...where,
    ...(stays ? { stays } : {}),
    ...(reach ? { reach, arcs: arcs ?? 3, planes: planes ?? 1 } : {}),
    bends: [...given].sort((a, b) => a.at - b.at),
  };
  const faults = poseFaults(
    tree.branches.find((b) => b.id === pose.branch)!,
    pose,
  );
  if (faults.length) return { refused: faults };
  return inPlan(tree, { poses: withOne(tree.plan.poses, where.branch, pose) });
}

/** Says where a branch shall go, and by which bends. */
export const poseBranch = actKind({
  kind: 'pose',
  fields: { ...WHERE, bends: optional(bends) },
  guarded: true,
  apply: (tree, { id: _id, on: _on, kind: _kind, ...pose }) => posed(tree, pose),
  say: ({ branch, bearing, elevation }, names) => `pose ${names(branch)} at ${bearing.toFixed(0)}°, ${elevation.toFixed(0)}° steep`,
});

/** Takes the poses of several branches at once, as they were shown: all of them, or none. */
export const poseAll = actKind({
  kind: 'poses',
  fields: { poses: list(POSE, MOST_BRANCHES, 'where each shall go', 1) },
  guarded: true,
  apply: (tree, { poses }) => poses.reduce<Outcome>((now, pose) => (isRefused(now) ? now : posed(now.tree, pose)), { tree, lines: [] }),
  say: ({ poses }, names) => `pose ${sayBranches(names, poses.map((p) => p.branch), 3)} as shown`, // prettier-ignore
});

/** Lets go of a branch's pose: it is proposed again. */
export const unpose = actKind({
  kind: 'unpose',
  fields: { branch: id('which branch') },
  guarded: true,
  apply: (tree, { branch }) => missing(tree, branch, 'branch') ?? inPlan(tree, { poses: withOne(tree.plan.poses, branch, null) }),
  say: ({ branch }, names) => `let ${names(branch)} be posed anew`,
});

const ASIDE = ['keep', 'swap', 'forget'] as const;

/** Keeps a branch's pose to compare another one with; takes the kept one in its place; or forgets it. */
export const poseAside = actKind({
  kind: 'pose-aside',
  fields: { branch: id('which branch'), what: oneOf(ASIDE, 'keep its pose to compare, take the kept one in its place, or forget that') },
  guarded: true,
  apply: (tree, { branch, what }) => {
    const { poses, aside = [] } = tree.plan;
    const own = poses.find((p) => p.branch === branch) ?? null;
    const kept = aside.find((p) => p.branch === branch) ?? null;
    const gone = missing(tree, branch, 'branch');
    if (gone) return gone;
    if (what === 'keep' && !own) return refuse('branch', 'nothing-there', 'It has no pose of its own yet: accept one first.');
    if (what === 'swap' && !kept) return refuse('branch', 'nothing-there', 'No other pose of it is kept.');
    if (what === 'swap') return inPlan(tree, { poses: withOne(poses, branch, kept), aside: withOne(aside, branch, own) });
    return inPlan(tree, { aside: withOne(aside, branch, what === 'keep' ? own : null) });
  },
  say: ({ branch, what }, names) =>
    `${{ keep: 'keep a pose to compare', swap: 'take the other pose', forget: 'forget the other pose' }[what]}: ${names(branch)}`,
});

const parts = ({ habit, curve, movement }: PosingChoice): string =>
  movement ? `${movement} movement` : curve ? 'slopes of its own' : habit ? `slopes ${habit}` : 'slopes by its kind';

/** Says how a tree's branches are posed: by which slopes, with how much movement. What is null is left to its kind again. */
export const setPosing = actKind({
  kind: 'posing',
  fields: POSING,
  guarded: true,
  apply: (tree, { habit, curve, movement }) => {
    const all = {
      ...tree.plan.posing,
      ...(habit !== undefined ? { habit } : {}),
      ...(curve !== undefined ? { curve } : {}),
      ...(movement ? { movement } : {}),
    };
    const said = Object.entries(all).filter(([, value]) => value !== null && value !== undefined);
    return inPlan(tree, { posing: Object.fromEntries(said) as PosingChoice });
  },
  say: (act) => parts(act),
});

const { at, anchor, bearing, by, pitch } = DEVICE.properties;
/** What leads the trunk, where its own wire does not. */
const LEADS = part({ kind: oneOf(TRUNK_LEADS, 'what it is'), at, anchor, bearing, by, pitch }, 'what leads it there');

/** Chooses what the trunk is bent into, in place of cutting it; null leaves it as it stands. */
export const bendTrunk = actKind({
  kind: 'trunk-way',
  fields: { way: orNull(oneOf(TRUNK_WAYS, 'what the trunk is bent into')), device: optional(LEADS) },
  guarded: true,
  apply: (tree, { way, device, on }) => {
    const standing = tree.plan.devices ?? [];
    // What led the trunk to another way goes with that, unless it is on the tree.
    const old = trunkDevice({ ...tree, plan: { ...tree.plan, trunkWay: 'slanting' } });
    const isOn = old && guysOn(tree, dayOf(on)).some((g) => g.guy === old.id);
    const others = isOn ? standing : standing.filter((d) => d !== old);
    const leads: Device | null = way && device && !isOn ? { ...device, id: freeDeviceId(others), branch: 'trunk' } : null;
    const fault = leads && faultOf(tree, leads);
    if (fault) return fault;
    const devices = leads ? [...others, leads] : others;
    const next = { ...tree, plan: { ...tree.plan, trunkWay: way, devices } };
    const why = way && trunkNotHeld(placeTree(outcomeOf(next).tree), dayOf(on));
    return why ? refuse('way', 'not-held', why) : inPlan(tree, { trunkWay: way, ...(devices.length || standing.length ? { devices } : {}) });
  },
  say: ({ way }) => (way ? `bend the trunk: ${way.replace('-', ' ')}` : 'leave the trunk as it stands'),
});

/** Notes what makes the wood of a branch worse to bend; an empty list says that it was asked and nothing does. */
export const noteWood = actKind({
  kind: 'wood',
  fields: WORSE_WOOD.properties,
  guarded: true,
  apply: (tree, { branch, what }) =>
    missing(tree, branch, 'branch') ?? inPlan(tree, { worse: withOne(tree.plan.worse ?? [], branch, { branch, what: what as Worsening[] }) }),
  say: ({ branch, what }, names) => `${names(branch)}: ${what.length ? `its wood is worse (${what.join(', ')})` : 'its wood is sound'}`,
});
