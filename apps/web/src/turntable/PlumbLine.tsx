import { useMemo } from 'react';
import { BufferAttribute, BufferGeometry } from 'three';
import { toRad } from '@ustle/core';

const CM = 10;

/** A plumb line over the foot, and a grid in cm through it, square to the viewer's bearing. */
export function PlumbLine({ bearing, height, reach, colour }: { bearing: number; height: number; reach: number; colour: string }) {
  const { fine, coarse } = useMemo(() => {
    const wide = Math.ceil(reach / (5 * CM)) * 5;
    const tall = Math.ceil((height * 1.06) / (5 * CM)) * 5;
    const [thin, thick]: [number[], number[]] = [[], []];
    for (let c = -wide; c <= wide; c++) (c % 5 ? thin : thick).push(c * CM, 0, 0, c * CM, 0, tall * CM);
    for (let r = 0; r <= tall; r++) (r % 5 ? thin : thick).push(-wide * CM, 0, r * CM, wide * CM, 0, r * CM);
    const made = (points: number[]): BufferGeometry => {
      const geometry = new BufferGeometry();
      geometry.setAttribute('position', new BufferAttribute(new Float32Array(points), 3));
      return geometry;
    };
    return { fine: made(thin), coarse: made([...thick, 0, 0, 0, 0, 0, tall * CM]) };
  }, [height, reach]);
  return (
    <group rotation-z={-toRad(bearing)}>
      <lineSegments geometry={fine}>
        <lineBasicMaterial color={colour} transparent opacity={0.12} depthWrite={false} />
      </lineSegments>
      <lineSegments geometry={coarse}>
        <lineBasicMaterial color={colour} transparent opacity={0.4} depthWrite={false} />
      </lineSegments>
    </group>
  );
}
