import { DEVICE, LINE_COMMON, LINE_FIELDS, optional, placeTree, woodIn, type Device, type RecordLine, type Tree } from '../tree/index.js';
import { lengthOf } from '../space/index.js';
import { DEVICE_WORDS } from '../guy/index.js';
import { actKind, inPlan, refuse } from './act.js';
import { noAnchor } from './guy.js';

const { id: DEVICE_ID, kind: WHAT, ...PLACED } = DEVICE.properties;

export const freeDeviceId = (devices: readonly Pick<Device, 'id'>[]): string => {
  const used = new Set(devices.map((d) => d.id));
  let n = 1;
  while (used.has(`d${n}`)) n++;
  return `d${n}`;
};

/** Devices with two ends on wood, those that go to an anchor, and those that work towards a side. */
const TWO_ENDS = new Set(['spreader', 'spacer', 'bar']);
const ANCHORED = new Set(['prop', 'jack', 'bar']);
const SIDED = new Set(['clamp', 'frame', 'stays']);

/** Why a device cannot be set so, beside the field that is wrong; null where it can. */
export function faultOf(tree: Tree, { kind, branch, at, other, anchor, bearing, span }: Device): ReturnType<typeof refuse> | null {
  const { name } = DEVICE_WORDS[kind];
  const placed = placeTree(tree);
  const ends = [['', branch, at] as const, ...(other ? [['other.', other.branch, other.at] as const] : [])];
  for (const [of, id, along] of ends) {
    const wood = woodIn(placed, id);
    if (!wood) return refuse(`${of}branch`, 'not-found', `Branch "${id}" is not on this tree.`);
    const length = lengthOf(wood.line);
    if (along > length)
      return refuse(`${of}at`, 'range', `It ends after ${length.toFixed(0)} mm; a ${name} at ${along.toFixed(0)} mm would be beyond its tip.`);
  }
  if (TWO_ENDS.has(kind) && !other) return refuse('other', 'needed', `A ${name} has two ends on wood: say what its other end goes to.`);
  if (other && other.branch === branch) return refuse('other', 'same', `Both ends of the ${name} are on one branch: choose another for one of them.`);
  if (ANCHORED.has(kind)) {
    if (!anchor) return refuse('anchor', 'needed', `A ${name} goes to an anchor: choose one.`);
    const why = noAnchor(tree, anchor, branch);
    if (why) return refuse('anchor', 'no-anchor', why);
  }
  if (SIDED.has(kind) && bearing === undefined) return refuse('bearing', 'needed', `Towards which side does the ${name} work? Say its bearing.`);
  if (kind !== 'clamp') return null;
  if (span === undefined) return refuse('span', 'needed', 'How far is it from hook to hook? Say its span.');
  const length = lengthOf(woodIn(placed, branch)!.line);
  const room = 2 * Math.min(at, length - at);
  return span > room
    ? refuse('span', 'range', `There are ${room.toFixed(0)} mm of wood for its hooks, half to either side; ${span.toFixed(0)} mm is too much.`)
    : null;
}

/** Fixes a device: what it is, where it acts and by how much. */
export const settleDevice = actKind({
  kind: 'device',
  fields: { device: optional(DEVICE_ID), what: WHAT, ...PLACED },
  guarded: true,
  apply: (tree, { id: _id, on: _on, kind: _kind, device, what, ...of }) => {
    const { devices = [] } = tree.plan;
    const own: Device = { ...of, id: device ?? freeDeviceId(devices), kind: what };
    const fault = faultOf(tree, own);
    if (fault) return fault;
    return inPlan(tree, { devices: devices.some((d) => d.id === own.id) ? devices.map((d) => (d.id === own.id ? own : d)) : [...devices, own] });
  },
  say: ({ what, branch }, names) => `set a ${DEVICE_WORDS[what].name} on ${names(branch)}`,
});

const ownDevice = (tree: Tree, device: string): Device | undefined => tree.plan.devices?.find((d) => d.id === device);
const notThere = (device: string) => refuse('device', 'not-found', `Device "${device}" is not in this plan.`);
const without = (tree: Tree, device: string): Tree => inPlan(tree, { devices: tree.plan.devices!.filter((d) => d.id !== device) }).tree;

/** Lets go of a device that is not on the tree. */
export const dropDevice = actKind({
  kind: 'drop-device',
  fields: { device: DEVICE_ID },
  guarded: true,
  apply: (tree, { device }) => (ownDevice(tree, device) ? { tree: without(tree, device), lines: [] } : notThere(device)),
  say: ({ device }) => `leave device ${device} out`,
});

const { twists, tension, cameDeg, backMm, bends, other, next } = LINE_FIELDS.guyed;

/** A device of the plan was set on the tree: the record takes a line. */
export const setUp = actKind({
  kind: 'set-up',
  fields: { device: DEVICE_ID, twists, tension, cameDeg, bends, other, next, text: LINE_COMMON.text },
  guarded: true,
  apply: (tree, { id: _id, kind: _kind, device, ...done }) => {
    const own = ownDevice(tree, device);
    if (!own) return notThere(device);
    const line: RecordLine = { kind: 'guyed', branch: own.branch, guy: device, device: own.kind, done: 'placed', ...done };
    return { tree, lines: [line] };
  },
  say: ({ device }) => `set device ${device} up`,
});

/** A device came off: it leaves the plan, and what the wood went back by is kept. */
export const takeDown = actKind({
  kind: 'take-down',
  fields: { device: DEVICE_ID, backMm, text: LINE_COMMON.text },
  guarded: true,
  apply: (tree, { id: _id, kind: _kind, device, ...done }) => {
    const own = ownDevice(tree, device);
    if (!own) return notThere(device);
    const line: RecordLine = { kind: 'guyed', branch: own.branch, guy: device, device: own.kind, done: 'removed', ...done };
    return { tree: without(tree, device), lines: [line] };
  },
  say: ({ device }) => `take device ${device} off`,
});
