// Writes the demo studio's tree files: made-up trees, grown by the program from seeds and then touched up.
import { mkdirSync, writeFileSync } from 'node:fs';
import { bearingAndElevation, generateTree, placeTree, searchFronts, wrapDeg } from '@ustle/core';
import { checkTree, writeTreeFile } from '@ustle/files';

const trees = [
  {
    file: 'lantern',
    grow: {
      seed: 41,
      name: 'Lantern',
      species: 'larch',
      height: 610,
      base: 62,
      primaries: 9,
      secondaries: 3,
      swing: 0.13,
      faults: ['bar', 'dead', 'blind', 'hanging'],
    },
    touch: {
      vigour: 'strong',
      features: [
        { kind: 'shari', bearing: 20, z: [20, 150], good: true, weight: 2 },
        { kind: 'saw scar', bearing: 200, z: [210, 240], good: false, weight: 1 },
      ],
    },
  },
  {
    file: 'squall',
    grow: { seed: 12, name: 'Squall', species: 'maple-trident', height: 430, base: 58, primaries: 7, secondaries: 3, swing: 0.11, slopes: [28, 55] },
    touch: {
      vigour: 'normal',
      pot: {
        shape: 'oval',
        width: 330,
        depth: 240,
        height: 48,
        holes: [
          { bearing: 90, radius: 90 },
          { bearing: 270, radius: 90 },
        ],
      },
    },
  },
  {
    file: 'old-ferry',
    grow: {
      seed: 87,
      name: 'Old Ferry',
      species: 'hornbeam-korean',
      height: 540,
      base: 64,
      primaries: 8,
      secondaries: 3,
      swing: 0.16,
      lean: 0.08,
      leanBearing: 100,
      faults: ['whorl', 'blind'],
    },
    touch: { vigour: 'normal', features: [{ kind: 'old bark', bearing: 330, z: [10, 200], good: true, weight: 1 }] },
  },
  {
    file: 'levanter',
    grow: {
      seed: 61,
      name: 'Levanter',
      species: 'bald-cypress',
      height: 640,
      base: 58,
      primaries: 9,
      secondaries: 3,
      swing: 0.12,
      slopes: [30, 55],
    },
    touch: {
      vigour: 'strong',
      pot: {
        shape: 'oval',
        width: 340,
        depth: 250,
        height: 64,
        holes: [
          { bearing: 90, radius: 95 },
          { bearing: 270, radius: 95 },
        ],
      },
    },
  },
  {
    file: 'gannet',
    grow: { seed: 23, name: 'Gannet', species: 'hemlock', height: 680, base: 54, primaries: 10, secondaries: 3, swing: 0.1, faults: ['bar', 'hanging'] },
    touch: {
      vigour: 'normal',
      pot: {
        shape: 'rectangle',
        width: 380,
        depth: 260,
        height: 78,
        holes: [
          { bearing: 90, radius: 100 },
          { bearing: 270, radius: 100 },
        ],
      },
    },
  },
  {
    file: 'marigold',
    grow: { seed: 5, name: 'Marigold', species: 'azalea', form: 'cascade', height: 620, base: 48, primaries: 9, secondaries: 3, swing: 0.12, faults: ['bar'] },
    touch: { vigour: 'normal' },
  },
  {
    file: 'perseverance',
    grow: {
      seed: 9,
      name: 'Perseverance',
      species: 'redwood',
      form: 'clump',
      height: 640,
      base: 52,
      primaries: 8,
      secondaries: 2,
      swing: 0.05,
      faults: ['hanging'],
    },
    touch: { vigour: 'strong' },
  },
];

/** The tree turned on its axis, all bearings by the same angle. */
function turned(tree, by) {
  const spin = (x, y) => {
    const { bearing } = bearingAndElevation([x, y, 0]);
    const reach = Math.hypot(x, y);
    const a = ((bearing + by) * Math.PI) / 180;
    return [Math.sin(a) * reach, Math.cos(a) * reach].map((v) => Math.round(v * 10) / 10 + 0);
  };
  const bearing = (b) => Math.round(wrapDeg(b + by) * 10) / 10;
  return {
    ...tree,
    trunk: tree.trunk.map((s) => ({ ...s, x: spin(s.x, s.y)[0], y: spin(s.x, s.y)[1] })),
    roots: tree.roots.map((r) => ({ ...r, bearing: bearing(r.bearing) })),
    branches: tree.branches.map((b) => ({ ...b, bearing: bearing(b.bearing), path: b.path.map(([x, y, z]) => [...spin(x, y), z]) })),
  };
}

/** Set in its pot as a grower would: the best front a little off the pot's, which lies at bearing 0. */
const set = (tree, off) => turned(tree, off - searchFronts(placeTree(tree)).candidates[0].bearing);

const folder = new URL('./trees/', import.meta.url);
mkdirSync(folder, { recursive: true });
for (const { file, grow, touch } of trees) {
  const tree = { ...set(generateTree(grow), 352), ...touch };
  const checked = checkTree(tree);
  if ('faults' in checked) throw new Error(`${file}: ${JSON.stringify(checked.faults)}`);
  writeFileSync(new URL(`${file}.ustle.json`, folder), writeTreeFile(tree));
}
