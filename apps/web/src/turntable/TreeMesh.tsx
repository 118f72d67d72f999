import { useFrame } from '@react-three/fiber';
import { memo, useEffect, useMemo, useRef } from 'react';
import { BackSide, BufferAttribute, BufferGeometry, ShaderMaterial, Vector3 } from 'three';
import { lengthOf, pointAt, posed, smooth, speciesOf, stretch, type PlacedTree } from '@ustle/core';
import { coilMesh, type DrawnCoil } from './coil-geometry';
import { FOV_DEG } from './framing';
import { barkLook, leafLook, METAL_COLOURS, STATE_COLOURS, type Room } from './colours';
import { pickable } from './picking';
import { sortTufts, TUFT_FRAGMENT, TUFT_VERTEX, tuftGeometry, tuftsOf, tuftTexture } from './foliage';
import { dot } from './sprites';
import { branchPart, partOfFace, rootParts, trunkPart, woodMesh, type WoodPart } from './wood-geometry';

/** Frees a geometry when it is no longer drawn. */
function useFreed(geometry: BufferGeometry): void {
  useEffect(() => () => geometry.dispose(), [geometry]);
}

/** Bark and roots of a tree. */
function Wood({ placed, onSelect }: { placed: PlacedTree; onSelect: (branch: string | null) => void }) {
  const { geometry, ranges } = useMemo(
    () => woodMesh([trunkPart(placed), ...rootParts(placed), ...placed.branches.map(branchPart)], barkLook(speciesOf(placed.tree.species))),
    [placed],
  );
  useFreed(geometry);
  const picked = useMemo(
    () =>
      pickable((hit) => {
        const part = partOfFace(ranges, hit.faceIndex ?? 0);
        onSelect(part === 'trunk' ? null : part);
      }),
    [ranges, onSelect],
  );
  return (
    <mesh geometry={geometry} castShadow receiveShadow userData={picked}>
      <meshStandardMaterial vertexColors roughness={0.95} metalness={0} />
    </mesh>
  );
}

/** The same wood, a little fatter and turned inside out: what shows past the edge is an outline. */
function hull(parts: readonly WoodPart[], by: number): BufferGeometry {
  const { geometry } = woodMesh(parts, null);
  const positions = geometry.getAttribute('position') as BufferAttribute;
  const normals = geometry.getAttribute('normal');
  for (let i = 0; i < positions.count; i++) {
    positions.setXYZ(i, positions.getX(i) + normals.getX(i) * by, positions.getY(i) + normals.getY(i) * by, positions.getZ(i) + normals.getZ(i) * by);
  }
  return geometry;
}

/** What is on the tree and not on the one after it: whole branches, and the ends of those cut to a length. */
function takenParts(placed: PlacedTree, after: PlacedTree): WoodPart[] {
  return placed.branches.flatMap((b): WoodPart[] => {
    const left = after.byId.get(b.branch.id);
    if (!left) return [branchPart(b)];
    const kept = lengthOf(left.line);
    return kept < lengthOf(b.line) - 0.5 ? [{ ...branchPart(b), line: stretch(b.line, kept, lengthOf(b.line)), flare: 0 }] : [];
  });
}

/** Wood that the plan takes off, as pale outlines. */
function Outlines({ placed, after, room, onSelect }: { placed: PlacedTree; after: PlacedTree; room: Room; onSelect: (branch: string | null) => void }) {
  const { inside, outline } = useMemo(() => {
    const parts = placed === after ? [] : takenParts(placed, after);
    return { inside: woodMesh(parts, null), outline: hull(parts, placed.height * 0.0022) };
  }, [placed, after]);
  useFreed(inside.geometry);
  useFreed(outline);
  if (!inside.ranges.length) return null;
  return (
    <group>
      <mesh geometry={outline}>
        <meshBasicMaterial color={room.outline} side={BackSide} />
      </mesh>
      <mesh geometry={inside.geometry} userData={pickable((hit) => onSelect(partOfFace(inside.ranges, hit.faceIndex ?? 0)))}>
        <meshBasicMaterial color={room.gone} />
      </mesh>
    </group>
  );
}

function Foliage({ placed, dim }: { placed: PlacedTree; dim: number }) {
  const species = speciesOf(placed.tree.species);
  const pads = useMemo(() => [...placed.branches.flatMap((b) => (b.pad ? [b.pad] : [])), ...(placed.apexPad ? [placed.apexPad] : [])], [placed]);
  const geometry = useMemo(() => tuftGeometry(tuftsOf(pads, leafLook(species), placed.height)), [pads, species, placed.height]);
  useFreed(geometry);
  const material = useMemo(
    () =>
      new ShaderMaterial({
        vertexShader: TUFT_VERTEX,
        fragmentShader: TUFT_FRAGMENT,
        transparent: true,
        depthWrite: false,
        uniforms: { tuft: { value: tuftTexture(species.leaf) }, opacity: { value: dim }, scale: { value: 1 } },
      }),
    [species.leaf, dim],
  );
  useEffect(() => () => material.dispose(), [material]);
  const sortedFor = useRef<{ geometry: BufferGeometry; toward: Vector3 } | null>(null);
  useFrame(({ camera, gl }) => {
    const toward = camera.getWorldDirection(new Vector3()).negate();
    const before = sortedFor.current;
    if (before?.geometry !== geometry || before.toward.angleTo(toward) > 0.06) {
      sortTufts(geometry, [toward.x, toward.y, toward.z]);
      sortedFor.current = { geometry, toward };
    }
    // Pixels per mm at a distance of 1 mm.
    material.uniforms.scale!.value = (camera.projectionMatrix.elements[5]! * gl.domElement.height) / 2;
  });
  return <points geometry={geometry} material={material} />;
}

/** Coils on what will be left of their branches, or on the branch that goes. */
function Coils({ placed, after, coils }: { placed: PlacedTree; after: PlacedTree; coils: readonly DrawnCoil[] }) {
  const groups = useMemo(() => {
    const byColour = new Map<string, { coil: DrawnCoil; line: PlacedTree['branches'][number]['line'] }[]>();
    for (const coil of coils) {
      const branch = after.byId.get(coil.branch) ?? placed.byId.get(coil.branch);
      if (!branch) continue;
      const colour = STATE_COLOURS[coil.state] ?? METAL_COLOURS[coil.metal];
      const key = `${colour}|${coil.planned}`;
      byColour.set(key, [...(byColour.get(key) ?? []), { coil, line: branch.line }]);
    }
    return [...byColour].map(([key, items]) => ({ key, colour: key.split('|')[0]!, planned: items[0]!.coil.planned, geometry: coilMesh(items) }));
  }, [placed, after, coils]);
  useEffect(() => () => groups.forEach((g) => g.geometry.dispose()), [groups]);
  return groups.map((g) => (
    <mesh key={g.key} geometry={g.geometry} castShadow={!g.planned}>
      <meshPhongMaterial color={g.colour} specular="#fff2e0" shininess={46} transparent={g.planned} opacity={g.planned ? 0.5 : 1} />
    </mesh>
  ));
}

/** Where planned branches shall lie: the branch again, in dots. */
function Poses({ placed, poses, room }: { placed: PlacedTree; poses: readonly { branch: string; bearing: number; elevation: number }[]; room: Room }) {
  const geometry = useMemo(() => {
    const points = poses.flatMap((pose) => {
      const branch = placed.byId.get(pose.branch);
      if (!branch) return [];
      const line = smooth(posed(branch.line, pose), 6);
      const count = Math.max(4, Math.round(lengthOf(line) / (placed.height * 0.016)));
      return Array.from({ length: count + 1 }, (_, i) => pointAt(line, (lengthOf(line) * i) / count).point);
    });
    const made = new BufferGeometry();
    made.setAttribute('position', new BufferAttribute(new Float32Array(points.flat()), 3));
    return made;
  }, [placed, poses]);
  useFreed(geometry);
  if (!poses.length) return null;
  return (
    <points geometry={geometry}>
      <pointsMaterial map={dot()} color={room.pose} size={placed.height * 0.0085 * POINT_SCALE} transparent alphaTest={0.4} depthTest={false} opacity={0.9} />
    </points>
  );
}

/** three sizes points as if the picture spanned a right angle; ours is narrower. */
const POINT_SCALE = 1 / Math.tan((FOV_DEG * Math.PI) / 360);

function Chosen({ placed, branch }: { placed: PlacedTree; branch: string }) {
  const geometry = useMemo(() => {
    const part = placed.byId.get(branch);
    return part ? hull([branchPart(part)], placed.height * 0.003) : new BufferGeometry();
  }, [placed, branch]);
  useFreed(geometry);
  return (
    <mesh geometry={geometry}>
      <meshBasicMaterial color="#c2622f" side={BackSide} />
    </mesh>
  );
}

export interface TreeMeshProps {
  placed: PlacedTree;
  /** The tree as it will be; what is missing from it is drawn as outlines. The same where nothing goes. */
  after: PlacedTree;
  onSelect: (branch: string | null) => void;
  coils: readonly DrawnCoil[];
  poses: readonly { branch: string; bearing: number; elevation: number }[];
  room: Room;
  selected: string | null;
  /** How dense the foliage is drawn, 0..1: thinner where the wood is the matter. */
  foliage: number;
}

/** Not drawn anew while the table turns: only the camera moves then. */
export const TreeMesh = memo(function TreeMesh({ placed, after, onSelect, coils, poses, room, selected, foliage }: TreeMeshProps) {
  return (
    <group>
      <Wood placed={after} onSelect={onSelect} />
      <Outlines placed={placed} after={after} room={room} onSelect={onSelect} />
      <Coils placed={placed} after={after} coils={coils} />
      {selected && placed.byId.has(selected) && <Chosen placed={placed} branch={selected} />}
      <Foliage placed={after} dim={foliage} />
      <Poses placed={after} poses={poses} room={room} />
    </group>
  );
});
