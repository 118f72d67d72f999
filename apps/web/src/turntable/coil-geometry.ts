import { BufferGeometry, CatmullRomCurve3, TubeGeometry, Vector3 } from 'three';
import { mergeGeometries } from 'three/addons/utils/BufferGeometryUtils.js';
import { helix, lengthOf, smooth, WOUND_SHARE, type Hand, type Limb, type Start } from '@ustle/core';

export interface DrawnCoil {
  branch: string;
  metal: 'copper' | 'aluminium';
  size: number;
  strands: number;
  angle: number;
  hand: Hand;
  start: Start;
  /** Drawn in the metal's colour, or in the colour of its state on the day shown. */
  state: 'clear' | 'touching' | 'marking' | 'deep' | 'swallowed';
  planned: boolean;
}

/** The wire of a coil as a tube: a true helix at the coil's own pitch and hand. */
function coilGeometry(line: Limb, coil: DrawnCoil): BufferGeometry {
  const fine = smooth(line, 8);
  const wound = {
    size: coil.size,
    angleDeg: coil.angle,
    hand: coil.hand,
    start: coil.start,
    strands: coil.strands,
    from: line.diameters[0]! * 0.75,
    to: lengthOf(fine) * WOUND_SHARE,
  };
  const tubes = helix(fine, wound)
    .filter((points) => points.length > 3)
    .map((points) => {
      const curve = new CatmullRomCurve3(
        points.map((p) => new Vector3(...p)),
        false,
        'centripetal',
      );
      return new TubeGeometry(curve, points.length * 2, coil.size / 2, 7, false);
    });
  return mergeGeometries(tubes) ?? new BufferGeometry();
}

/** All coils of one look as one mesh. */
export function coilMesh(coils: readonly { coil: DrawnCoil; line: Limb }[]): BufferGeometry {
  const parts = coils.map(({ coil, line }) => coilGeometry(line, coil)).filter((g) => g.getAttribute('position'));
  return parts.length ? mergeGeometries(parts) : new BufferGeometry();
}
