import fc from 'fast-check';
import { dayOf, frontEvidence, judgeFront, namesOf, norm, PARTS, placeTree, sayDay, sub, watch, type Intent, type Tree, type Vec } from '../src/index.js';
import { after, branch, tree } from './trees.js';

/** A bent trunk with roots, a scar and a shari, and branches of which one comes at the eye from 90°. */
const pine = (): Tree =>
  tree(
    [
      branch('low', { at: 110, bearing: 200, elevation: -5, length: 260, d: 14, tipD: 4, green: 0.2, bareTo: 0.3 }),
      branch('twig', { parent: 'low', at: 150, bearing: 150, elevation: 20, length: 110, d: 5, tipD: 2, green: 0.1 }),
      branch('spear', { at: 230, bearing: 92, elevation: 4, length: 240, d: 12, tipD: 4, green: 0.15 }),
      branch('back', { at: 330, bearing: 300, elevation: 15, length: 180, d: 9, tipD: 3, green: 0.15 }),
      branch('dead', { at: 380, bearing: 30, elevation: 10, length: 120, d: 7, tipD: 2, state: 'dead', green: 0 }),
      branch('top', { at: 520, bearing: 150, elevation: 35, length: 110, d: 6, tipD: 2, green: 0.15 }),
    ],
    {
      species: 'pine-two-needle',
      trunk: [[0, 0, 0, 52], [18, 30, 120, 40], [-14, 52, 240, 33], [10, 30, 360, 25], [2, -6, 470, 17], [12, -14, 580, 8]].map(([x, y, z, d]) => ({ x: x!, y: y!, z: z!, d: d! })), // prettier-ignore
      roots: [
        { bearing: 0, length: 70, d: 16 },
        { bearing: 95, length: 50, d: 18 },
        { bearing: 190, length: 90, d: 14 },
      ],
      features: [
        { kind: 'shari', bearing: 100, z: [40, 160], good: true, weight: 2 },
        { kind: 'saw scar', bearing: 250, z: [200, 220], good: false, weight: 1 },
      ],
    },
  );

/** How far a point lies from the wood of a tree: its trunk, branches and roots, mm. */
function fromWood(t: Tree, p: Vec): number {
  const placed = placeTree(t);
  const points = [...placed.trunk.points, ...placed.branches.flatMap((b) => b.line.points), ...t.roots.map((r): Vec => [0, 0, -r.d])];
  return Math.min(...points.map((q) => norm(sub(p, q))));
}

test('what is said of a front is what was computed of it: shares, thicknesses and names, from any side and tilt', () => {
  const placed = placeTree(pine());
  const names = namesOf(pine());
  fc.assert(
    fc.property(fc.nat(359), fc.integer({ min: -12, max: 12 }), fc.integer({ min: -12, max: 12 }), (bearing, pitch, roll) => {
      const f = judgeFront(placed, { bearing, pitch, roll });
      const hidden = f.hiding.reduce((sum, h) => sum + h.share, 0);
      expect(f.parts.trunkInSight).toBeCloseTo(1 - hidden, 6);
      expect(f.because.trunkInSight).toMatch(new RegExp(`^${Math.round(100 * (1 - hidden))}% of the lower two thirds`));
      const [wide, most] = f.because.base.match(/\d+/g)!.map(Number);
      expect(wide!).toBeLessThanOrEqual(most!);
      const goes = Math.round(100 * (1 - f.parts.greenKept));
      expect(f.because.greenKept).toContain(goes ? `${goes}%` : 'nothing');
      // Who points at the viewer is named with its thickness, and nobody else is.
      for (const b of placed.branches.filter((x) => x.order === 1))
        if (f.atEye.includes(b.branch.id) && f.atEye.length === 1) expect(f.because.eye).toContain(`${names(b.branch.id)} (${b.branch.d} mm)`);
      if (!f.atEye.length) expect(f.because.eye).not.toMatch(/ mm\)/);
      expect(f.because.features).toMatch(/^shari (shown|hidden|.*%).*saw scar (shown|hidden|.*%)/);
      // What is drawn of branches and the trunk lies on them, with its word at the place.
      for (const part of PARTS) {
        const { lines, words } = frontEvidence(placed, f, part);
        if (part !== 'base' && part !== 'apex') for (const p of lines.flat()) expect(fromWood(pine(), p)).toBeLessThan(60);
        for (const w of words) expect(fromWood(pine(), w.at)).toBeLessThan(120);
      }
    }),
    { numRuns: 40 },
  );
});

const coil = (branchId: string, on: string, own: object = {}): Intent =>
  ({
    kind: 'wired',
    on,
    branch: branchId,
    metal: 'copper',
    size: 3,
    strands: 1,
    angle: 50,
    hand: 'cw',
    start: 'over',
    gap: 0,
    wrap: 'none',
    bentDeg: 45,
    targetDeg: 40,
    over: 90,
    ...own,
  }) as Intent;

test('what is told of a coil is what its race says: chances in order, the day to act on in the sentence, what was seen before what is foreseen', () => {
  const worn = after(
    pine(),
    coil('low', '2026-03-01', { size: 4, targetDeg: 30 }),
    coil('twig', '2026-03-01', { size: 1.6, wrap: 'raffia', bentDeg: 60, targetDeg: 40 }),
    coil('spear', '2026-04-01', { strands: 2, metal: 'aluminium', size: 4, targetDeg: 25 }),
    coil('back', '2025-09-01', { gap: 1.5, over: undefined, targetDeg: 30 }),
    coil('top', '2026-05-01', { bentDeg: undefined, targetDeg: undefined, over: undefined, size: 2 }),
    { kind: 'inspected', on: '2026-06-01', branch: 'low', stage: 'clear' },
    { kind: 'inspected', on: '2026-07-15', branch: 'twig', stage: 'marking' },
    { kind: 'inspected', on: '2026-07-15', branch: 'back', stage: 'touching' },
  );
  for (const t of [worn, { ...worn, vigour: 'weak', species: 'maple-trident', site: { hemisphere: 'south' } } as Tree]) {
    const found = watch(placeTree(t), dayOf('2026-07-20'));
    expect(found.map((w) => w.coil.branch).sort()).toEqual(['back', 'low', 'spear', 'top', 'twig']);
    for (const { coil: on, race: r, lastSeen, state } of found) {
      const { touching, marking, deep, set } = r.forecast;
      const day = (d: number | null): number => d ?? Infinity;
      for (const stage of [touching, marking, deep, set]) expect([day(stage.p10) <= day(stage.p50), day(stage.p50) <= day(stage.p90)]).toEqual([true, true]);
      for (const p of ['p10', 'p50', 'p90'] as const) expect([day(touching[p]) <= day(marking[p]), day(marking[p]) <= day(deep[p])]).toEqual([true, true]);
      const told = r.because.join(' ');
      if (r.advice === 'rewire' || r.advice === 'guy') expect(told).toContain(sayDay(r.limit!));
      // Without a bend noted there is nothing that could set.
      expect(set.p50 === null || state.bend !== null).toBe(true);
      expect(told.includes('No bend is noted')).toBe(on.branch === 'top');
      expect(told.includes('was not noted')).toBe(on.branch === 'back');
      expect(lastSeen?.stage).toBe({ low: 'clear', twig: 'marking', back: 'touching' }[on.branch as 'low']);
      if (lastSeen?.stage === 'marking') expect(marking.p90).toBeLessThanOrEqual(lastSeen.day);
    }
  }
});
