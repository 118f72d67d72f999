import { useEffect, useMemo } from 'react';
import { limb, type Evidence } from '@ustle/core';
import { woodMesh } from './wood-geometry';

/** Lines over everything: what a judgement saw. There even when nothing is, so that its shader waits for it. */
export function EvidenceLines({ evidence, colour, thick }: { evidence: Evidence; colour: string; thick: number }) {
  const geometry = useMemo(
    () =>
      woodMesh(
        evidence.lines
          .filter((points) => points.length > 1)
          .map((points) => ({
            id: '',
            line: limb(
              points,
              points.map(() => thick),
            ),
            flare: 0,
            sides: 6,
          })),
        null,
      ).geometry,
    [evidence, thick],
  );
  useEffect(() => () => geometry.dispose(), [geometry]);
  return (
    <mesh geometry={geometry} renderOrder={5} frustumCulled={false}>
      <meshBasicMaterial color={colour} depthTest={false} transparent opacity={0.85} />
    </mesh>
  );
}
