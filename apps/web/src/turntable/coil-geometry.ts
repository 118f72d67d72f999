import { BufferGeometry, CatmullRomCurve3, TubeGeometry, Vector3 } from 'three';
import { mergeGeometries } from 'three/addons/utils/BufferGeometryUtils.js';
import { FlatBark, lengthOf, smooth, type Limb, type Vec, type WirePlace } from '@ustle/core';

export interface DrawnCoil {
  branch: string;
  metal: 'copper' | 'aluminium';
  size: number;
  strands: number;
  /** Where it lies: on its branch, and on the limb that it comes round. */
  places: readonly WirePlace[];
  /** Drawn in the metal's colour, or in the colour of its state on the day shown. */
  state: 'clear' | 'touching' | 'marking' | 'deep' | 'swallowed';
  planned: boolean;
}

/** Barks of limbs as they are drawn, each laid out once. */
const drawn = new WeakMap<Limb, { bark: FlatBark; stretch: number }>();

function barkAsDrawn(line: Limb): { bark: FlatBark; stretch: number } {
  const before = drawn.get(line);
  if (before) return before;
  const fine = smooth(line, 8);
  const made = { bark: new FlatBark(fine), stretch: lengthOf(fine) / lengthOf(line) };
  drawn.set(line, made);
  return made;
}

/** The centre lines of a coil's strands, side by side, on limbs however they are bent. */
export function strandsOf(coil: DrawnCoil, lineOf: (limb: string) => Limb | undefined): Vec[][] {
  return Array.from({ length: coil.strands }, (_, k) => {
    const beside = (k - (coil.strands - 1) / 2) * coil.size;
    return coil.places.flatMap((place, i): Vec[] => {
      const line = lineOf(place.limb);
      if (!line) return [];
      const { bark, stretch } = barkAsDrawn(line);
      const s = place.s * stretch;
      const round = bark.radius(s) + coil.size / 2;
      // Parallel strands lie square to the wire's own way on the bark.
      const near = [coil.places[i - 1], coil.places[i + 1]].filter((p): p is WirePlace => p?.limb === place.limb);
      const [from, to] = [near[0] ?? place, near[near.length - 1] ?? place];
      const [along, across] = [to.s - from.s, (to.turn - from.turn) * round];
      const way = Math.hypot(along, across) || 1;
      return [bark.point({ s: s - (beside * across) / way, turn: place.turn + (beside * along) / way / round, lift: place.lift })];
    });
  });
}

function coilGeometry(coil: DrawnCoil, lineOf: (limb: string) => Limb | undefined): BufferGeometry {
  const tubes = strandsOf(coil, lineOf)
    .filter((points) => points.length > 3)
    .map((points) => {
      const curve = new CatmullRomCurve3(
        points.map((p) => new Vector3(...p)),
        false,
        'centripetal',
      );
      return new TubeGeometry(curve, Math.round(points.length * 1.5), coil.size / 2, 7, false);
    });
  return tubes.length ? mergeGeometries(tubes) : new BufferGeometry();
}

/** All coils of one look as one mesh. */
export function coilMesh(coils: readonly DrawnCoil[], lineOf: (limb: string) => Limb | undefined): BufferGeometry {
  const parts = coils.map((coil) => coilGeometry(coil, lineOf)).filter((g) => g.getAttribute('position'));
  return parts.length ? mergeGeometries(parts) : new BufferGeometry();
}
