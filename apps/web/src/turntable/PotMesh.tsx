import { useMemo } from 'react';
import { BufferAttribute, CircleGeometry, Color, ExtrudeGeometry, LatheGeometry, Shape, Vector2, type BufferGeometry } from 'three';
import { mergeGeometries } from 'three/addons/utils/BufferGeometryUtils.js';
import type { Pot } from '@ustle/core';
import { noise2 } from './noise';

/** Profile of an unglazed pot from the foot to the rim, as shares of half width and height. */
const PROFILE: [number, number][] = [
  [0, 0],
  [0.8, 0],
  [0.82, 0.03],
  [0.86, 0.3],
  [0.92, 0.78],
  [0.935, 0.82],
  [1, 0.84],
  [1, 0.985],
  [0.985, 1],
  [0.91, 1],
  [0.895, 0.97],
  [0.89, 0.6],
];

function roundPot({ width, depth, height }: Pot): BufferGeometry {
  const lathe = new LatheGeometry(
    PROFILE.map(([r, h]) => new Vector2((r * width) / 2, h * height)),
    72,
  );
  lathe.rotateX(Math.PI / 2);
  lathe.scale(1, depth / width, 1);
  lathe.translate(0, 0, -height);
  lathe.computeVertexNormals();
  return lathe;
}

function roundedRectangle(width: number, depth: number, corner: number): Shape {
  const [w, d] = [width / 2, depth / 2];
  const shape = new Shape();
  shape
    .moveTo(-w + corner, -d)
    .lineTo(w - corner, -d)
    .quadraticCurveTo(w, -d, w, -d + corner)
    .lineTo(w, d - corner)
    .quadraticCurveTo(w, d, w - corner, d);
  shape
    .lineTo(-w + corner, d)
    .quadraticCurveTo(-w, d, -w, d - corner)
    .lineTo(-w, -d + corner)
    .quadraticCurveTo(-w, -d, -w + corner, -d);
  return shape;
}

/** Walls standing a little outward, a lip round the top, hollow for the soil. */
function rectangularPot({ width, depth, height }: Pot): BufferGeometry {
  const ring = (outer: number, inner: number, thick: number, z: number): BufferGeometry => {
    const shape = roundedRectangle(width * outer, depth * outer, width * 0.05);
    shape.holes.push(roundedRectangle(width * inner, depth * inner, width * 0.04));
    return new ExtrudeGeometry(shape, { depth: thick, bevelEnabled: true, bevelSize: 1.5, bevelThickness: 1.5, bevelSegments: 2 }).translate(0, 0, z);
  };
  const walls = ring(0.95, 0.88, height * 0.86, -height);
  // The walls lean: narrower at the foot.
  const positions = walls.getAttribute('position');
  for (let i = 0; i < positions.count; i++) {
    const share = 0.9 + 0.1 * ((positions.getZ(i) + height) / height);
    positions.setXY(i, positions.getX(i) * share, positions.getY(i) * share);
  }
  walls.computeVertexNormals();
  return mergeGeometries([walls, ring(1, 0.9, height * 0.13, -height * 0.13)])!;
}

/** The soil's surface, a little domed to the trunk, mossy in patches. */
function soilGeometry({ shape, width, depth }: Pot): BufferGeometry {
  const rings = 22;
  const sides = 72;
  const soil = new CircleGeometry(1, sides);
  const positions: number[] = [];
  const colours: number[] = [];
  const indices: number[] = [];
  const earth = new Color('#4a4136');
  const moss = new Color('#6f7d48');
  const colour = new Color();
  for (let ring = 0; ring <= rings; ring++) {
    for (let k = 0; k <= sides; k++) {
      const turn = (k / sides) * 2 * Math.PI;
      const r = ring / rings;
      // A rectangle with round corners between circle and square.
      const square = shape === 'rectangle' ? 1 / Math.max(Math.abs(Math.cos(turn)), Math.abs(Math.sin(turn))) : 1;
      const x = Math.cos(turn) * r * Math.min(square, 1.32) * width * 0.452;
      const y = Math.sin(turn) * r * Math.min(square, 1.32) * depth * 0.452;
      const bump = noise2(x / 9, y / 9, 4);
      positions.push(x, y, -2 - 7 * r * r + bump * 2.4);
      colour.copy(earth).lerp(moss, Math.min(1, Math.max(0, (noise2(x / 34, y / 34, 9) - 0.34) * 2.6)));
      colour.multiplyScalar(0.8 + 0.4 * bump);
      colours.push(colour.r, colour.g, colour.b);
    }
  }
  for (let ring = 0; ring < rings; ring++) {
    for (let k = 0; k < sides; k++) {
      const a = ring * (sides + 1) + k;
      indices.push(a, a + sides + 1, a + 1, a + 1, a + sides + 1, a + sides + 2);
    }
  }
  soil.setAttribute('position', new BufferAttribute(new Float32Array(positions), 3));
  soil.setAttribute('color', new BufferAttribute(new Float32Array(colours), 3));
  soil.deleteAttribute('uv');
  soil.setIndex(indices);
  soil.computeVertexNormals();
  return soil;
}

export function PotMesh({ pot }: { pot: Pot }) {
  const body = useMemo(() => (pot.shape === 'rectangle' ? rectangularPot(pot) : roundPot(pot)), [pot]);
  const soil = useMemo(() => soilGeometry(pot), [pot]);
  return (
    <group>
      <mesh geometry={body} castShadow receiveShadow>
        <meshLambertMaterial color="#7d5f52" side={2} />
      </mesh>
      <mesh geometry={soil} receiveShadow>
        <meshLambertMaterial vertexColors />
      </mesh>
    </group>
  );
}
