import { useEffect, useMemo } from 'react';
import { add, anySquare, lerp, limb, scale, sub, unit, type Band, type Limb, type Vec } from '@ustle/core';
import { BAND_COLOURS, type Room } from './colours';
import { woodMesh } from './wood-geometry';

/** A tie, or a part of a device, as it is drawn, in the tree's own space. */
export interface DrawnTie {
  from: Vec;
  to: Vec;
  /** A tie that is on or meant, or one of those that there could be; a device's bar, its stay, its cushion by itself. */
  look: 'tie' | 'candidate' | 'rod' | 'stay' | 'pad' | 'strain';
  /** Which way its branch runs there, how thick it is, and how wide the cushion is; mm. None on a candidate. */
  cushion?: { along: Vec; diameter: number; width: number };
  /** Where the wood is strained most, how much that is for it: rings round it, the more the heavier. */
  band?: Band;
}

const tube = (line: Limb) => ({ id: '', line, flare: 0, sides: 6 });
const straight = (from: Vec, to: Vec, thick: number) => tube(limb([from, to], [thick, thick]));

const THICKNESS = { candidate: 0.45, stay: 1 };

const RINGS: Record<Band, number> = { calm: 1, careful: 2, heavy: 3, no: 4 };

/** Rings round the wood where it is strained most. */
function ringsOf({ from, cushion, band }: DrawnTie, thick: number): ReturnType<typeof tube>[] {
  if (!cushion || !band) return [];
  return Array.from({ length: RINGS[band] }, (_, i) => {
    const at = add(from, scale(cushion.along, (i - (RINGS[band] - 1) / 2) * 3 * thick));
    const half = scale(cushion.along, thick * 0.8);
    return straight(sub(at, half), add(at, half), cushion.diameter + thick * 2);
  });
}

/** Two wires twisted round each other, the stick that twists them, and the cushion on the bark. */
function partsOf(tie: DrawnTie, thick: number): { lines: ReturnType<typeof tube>[]; solid: ReturnType<typeof tube>[] } {
  const { from, to, cushion } = tie;
  if (tie.look === 'strain') return { lines: [], solid: [] };
  const cushions = cushion
    ? [straight(sub(from, scale(cushion.along, cushion.width / 2)), add(from, scale(cushion.along, cushion.width / 2)), cushion.diameter + thick * 2)]
    : [];
  if (tie.look === 'rod') return { lines: [], solid: [straight(from, to, thick * 2.6), ...cushions] };
  if (tie.look !== 'tie') return { lines: tie.look === 'pad' ? [] : [straight(from, to, thick * THICKNESS[tie.look])], solid: cushions };
  const along = unit(sub(to, from));
  const side = anySquare(along);
  const middle = lerp(from, to, 0.5);
  const stick = scale(side, thick * 4);
  return {
    lines: [
      ...[1, -1].map((hand) => {
        const off = scale(side, thick * 0.8 * hand);
        return tube(limb([add(from, off), middle, add(to, scale(off, -1))], [thick, thick, thick]));
      }),
      straight(sub(middle, stick), add(middle, stick), thick * 1.4),
    ],
    solid: cushions,
  };
}

/** Ties as taut lines to their anchors, with their cushions; those that there could be as thin lines. */
export function Ties({ ties, room, thick }: { ties: readonly DrawnTie[]; room: Room; thick: number }) {
  const [lines, thin, solid] = useMemo(() => {
    const parts = ties.map((tie) => ({ ...partsOf(tie, thick), look: tie.look }));
    const mesh = (of: ReturnType<typeof tube>[]) => woodMesh(of, null).geometry;
    return [
      mesh(parts.filter((p) => p.look !== 'candidate').flatMap((p) => p.lines)),
      mesh(parts.filter((p) => p.look === 'candidate').flatMap((p) => p.lines)),
      mesh(parts.flatMap((p) => p.solid)),
    ] as const;
  }, [ties, thick]);
  const strained = useMemo(
    () => ties.filter((t) => t.look === 'strain').map((t) => ({ band: t.band!, geometry: woodMesh(ringsOf(t, thick), null).geometry })),
    [ties, thick],
  );
  useEffect(() => () => strained.forEach((ring) => ring.geometry.dispose()), [strained]);
  useEffect(() => () => [lines, thin, solid].forEach((g) => g.dispose()), [lines, thin, solid]);
  return (
    <>
      <mesh geometry={lines} castShadow frustumCulled={false}>
        <meshBasicMaterial color={room.pose} />
      </mesh>
      <mesh geometry={thin} frustumCulled={false}>
        <meshBasicMaterial color={room.pose} transparent opacity={0.45} />
      </mesh>
      <mesh geometry={solid} castShadow frustumCulled={false}>
        <meshPhongMaterial color={room.ink} />
      </mesh>
      {strained.map(({ band, geometry }, i) => (
        <mesh key={i} geometry={geometry} frustumCulled={false}>
          <meshBasicMaterial color={BAND_COLOURS[band]} />
        </mesh>
      ))}
    </>
  );
}
