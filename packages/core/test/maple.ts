import type { Intent, Tree } from '../src/index.js';
import { after, branch, tree } from './trees.js';

/** A maple of three branches and their twigs, seen from its mark, to be worked and said things of. */
export const maple = (own: Partial<Tree> = {}): Tree =>
  after(
    tree(
      [
        branch('low', { at: 120, bearing: 80, d: 12, green: 0.2 }),
        branch('twig', { parent: 'low', at: 90, bearing: 40, d: 4, length: 90, green: 0.1 }),
        branch('right', { at: 260, bearing: 280, d: 10, green: 0.2 }),
        branch('back', { at: 380, bearing: 180, d: 8, green: 0.15 }),
      ],
      { species: 'maple-trident', ...own },
    ),
    { kind: 'front', front: { bearing: 0, pitch: 0, roll: 0 } },
  );
export const wire = (branchId: string, on: string, own: object = {}): Intent =>
  ({
    kind: 'wired',
    on,
    branch: branchId,
    metal: 'aluminium',
    size: 3,
    strands: 1,
    angle: 50,
    hand: 'cw',
    start: 'over',
    gap: 0.5,
    wrap: 'none',
    bentDeg: 40,
    targetDeg: 32,
    over: 60,
    ...own,
  }) as Intent;
