import { generateTree, type Tree } from '@ustle/core';

const grown = generateTree({ seed: 3, name: 'Full', species: 'larch', height: 500, base: 40, primaries: 4, secondaries: 1 });
const [first, second] = grown.branches as [Tree['branches'][number], Tree['branches'][number]];

/** A tree with something of everything that a file may hold. */
export const fullTree: Tree = {
  ...grown,
  repottedOn: '2025-03-20',
  styledOn: '2025-10-01',
  collectedOn: '2019-09-09',
  client: 'The ferry office',
  branches: [{ ...first, green: 0.01 }, ...grown.branches.slice(1).map((b) => ({ ...b, green: 0 }))],
  features: [{ kind: 'shari', bearing: 75, z: [20, 160], good: true, weight: 2 }],
  plan: {
    front: { bearing: 348, pitch: 4, roll: -2 },
    pinned: [{ bearing: 120, pitch: 0, roll: 0 }],
    reading: { on: '2026-02-01', signs: ['dense'], season: 'dormant' },
    removal: { profile: 'refinement', limits: { barDeg: 25 }, rules: { low: true } },
    either: [[first.id, second.id]],
    decisions: [
      { branch: first.id, act: 'stub', stub: 'jin', length: 30, session: 2, until: '2026-11-07', why: 'too low' },
      { branch: second.id, act: 'sacrifice', untilD: 40 },
    ],
    poses: [{ branch: first.id, bearing: 255, elevation: -18, bends: [{ at: 30, angle: 35, toward: { bearing: 255, elevation: -60 }, over: 40 }] }],
    runs: [{ id: 'w1', metal: 'copper', size: 2.6, strands: 1, angle: 45, branches: [{ branch: first.id, hand: 'ccw', start: 'over' }] }],
    guys: [{ id: 'g1', branch: first.id, at: 20, anchor: { kind: 'pot-hole', index: 0 }, wire: 1.5, cushion: { kind: 'tube', width: 12 } }],
    devices: [
      { id: 'd1', kind: 'bar', branch: first.id, at: 30, other: { branch: second.id, at: 25 }, anchor: { kind: 'pot-rim', bearing: 60 }, by: 6 },
      { id: 'd2', kind: 'clamp', branch: 'trunk', at: 180, bearing: 90, span: 120, by: 4, pitch: 1.25 },
    ],
  },
  record: [
    {
      on: '2026-02-14',
      kind: 'wired',
      run: 'w1',
      branch: first.id,
      metal: 'copper',
      size: 2.6,
      strands: 1,
      angle: 45,
      hand: 'ccw',
      start: 'over',
      gap: 0,
      wrap: 'none',
      bentDeg: 38,
      targetDeg: 35,
      over: 40,
    },
    { on: '2026-06-14', kind: 'unwired', branch: first.id, method: 'cut', heldDeg: 36 },
    { on: '2026-07-01', kind: 'removed', branch: 'gone', was: [{ ...second, id: 'gone', green: 0.1 }], green: 0.1, length: 0 },
    { on: '2026-11-01', kind: 'guyed', branch: 'trunk', guy: 'd2', device: 'clamp', done: 'removed', backMm: 1.5 },
  ],
};
