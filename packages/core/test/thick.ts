import { planTree, type Intent, type PlanDocument, type Tree } from '../src/index.js';
import { after, branch, tree } from './trees.js';

/** Wire as it is put on in these tests. */
export const COIL = { metal: 'copper', size: 3.26, strands: 1, angle: 50, hand: 'cw', start: 'over', gap: 0 } as const;

/** A spruce of thick branches: their drops are made in stages. */
export const thick = (): Tree =>
  after(
    tree(
      [
        branch('low', { at: 140, bearing: 80, elevation: 30, d: 16, length: 320, green: 0.2 }),
        branch('shoot', { parent: 'low', at: 150, bearing: 40, elevation: 20, d: 5, length: 120, green: 0.05 }),
        branch('right', { at: 260, bearing: 275, elevation: 25, d: 11, length: 260, green: 0.2 }),
        branch('back', { at: 360, bearing: 180, elevation: 20, d: 9, length: 220, green: 0.15 }),
      ],
      { species: 'spruce', vigour: 'strong' },
    ),
    { kind: 'front', front: { bearing: 0, pitch: 4, roll: -3 } },
    ...(['low', 'right', 'back', 'shoot'] as const).map((b): Intent => ({ kind: 'decide', branch: b, act: 'keep' })),
  );
export const planOn = (t: Tree, day: number): PlanDocument => planTree(t, day, { fronts: false });
