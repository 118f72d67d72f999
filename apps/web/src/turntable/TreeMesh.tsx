import { useFrame, useThree } from '@react-three/fiber';
import { memo, useEffect, useMemo, useRef } from 'react';
import { BackSide, BufferAttribute, BufferGeometry, ShaderMaterial, Vector3, type PointsMaterial } from 'three';
import { mergeGeometries } from 'three/addons/utils/BufferGeometryUtils.js';
import { groupedBy, lengthOf, pointAt, speciesOf, stretch, type Limb, type Pad, type PlacedBranch, type PlacedTree } from '@ustle/core';
import { coilMesh, type DrawnCoil } from './coil-geometry';
import { barkLook, leafLook, METAL_COLOURS, PLANNED_COLOURS, STATE_COLOURS, type Room } from './colours';
import { pickable, type PartOf } from './picking';
import { showTufts, sortTufts, TUFT_FRAGMENT, TUFT_VERTEX, tuftGeometry, tuftsOf, tuftTexture } from './foliage';
import { dot } from './sprites';
import { branchPart, partOfFace, rootParts, SMALL_PICTURE, trunkPart, withoutParts, woodMesh, type WoodMesh, type WoodPart } from './wood-geometry';

/** Frees a geometry when it is no longer drawn. */
function useFreed(geometry: BufferGeometry): void {
  useEffect(() => () => geometry.dispose(), [geometry]);
}

/** How a tree is to be drawn after cuts: what is gone whole, and what is left of branches cut to a length. */
interface Cuts {
  hidden: ReadonlySet<string>;
  trimmed: readonly PlacedBranch[];
}

function cutsBetween(placed: PlacedTree, after: PlacedTree): Cuts {
  if (placed === after) return { hidden: new Set(), trimmed: [] };
  const hidden = new Set<string>();
  const trimmed: PlacedBranch[] = [];
  for (const b of placed.branches) {
    const left = after.byId.get(b.branch.id);
    if (left && lengthOf(left.line) > lengthOf(b.line) - 0.5) continue;
    hidden.add(b.branch.id);
    if (left) trimmed.push(left);
  }
  return { hidden, trimmed };
}

type OnSelect = (branch: string | null) => void;

/** How wood is drawn: as it is; not at all, though it covers what is behind it; or pale, over a photo that shows it elsewhere. */
export type WoodLook = 'drawn' | 'unseen' | 'pale';

function BarkMesh({ mesh, look, onSelect }: { mesh: WoodMesh; look: WoodLook; onSelect: OnSelect }) {
  const picked = useMemo(
    () => ({
      ...pickable((hit) => {
        const part = partOfFace(mesh.ranges, hit.faceIndex ?? 0);
        onSelect(part === 'trunk' ? null : part);
      }),
      partOf: ((hit) => partOfFace(mesh.ranges, hit.faceIndex ?? 0)) satisfies PartOf,
    }),
    [mesh, onSelect],
  );
  return (
    <mesh geometry={mesh.geometry} castShadow={look === 'drawn'} receiveShadow={look === 'drawn'} userData={picked}>
      <meshLambertMaterial key={look} vertexColors colorWrite={look !== 'unseen'} transparent={look === 'pale'} opacity={look === 'pale' ? 0.8 : 1} />
    </mesh>
  );
}

/** Bark and roots of a tree. Bark is grown once for the measured tree; a cut only leaves triangles out. */
function Wood({ placed, cuts, wood, onSelect }: { placed: PlacedTree; cuts: Cuts; wood: WoodLook; onSelect: OnSelect }) {
  const look = barkLook(speciesOf(placed.tree.species));
  const small = useThree(({ size, viewport }) => size.height * viewport.dpr < SMALL_PICTURE);
  const whole = useMemo(
    () => woodMesh([trunkPart(placed), ...rootParts(placed), ...placed.branches.map(branchPart)], barkLook(speciesOf(placed.tree.species)), small),
    [placed, small],
  );
  useFreed(whole.geometry);
  const shown = useMemo(() => withoutParts(whole, cuts.hidden), [whole, cuts]);
  const ends = useMemo(() => woodMesh(cuts.trimmed.map(branchPart), look, small), [cuts, look, small]);
  useFreed(ends.geometry);
  return (
    <>
      <BarkMesh mesh={shown} look={wood} onSelect={onSelect} />
      {cuts.trimmed.length > 0 && <BarkMesh mesh={ends} look={wood} onSelect={onSelect} />}
    </>
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
function takenParts(placed: PlacedTree, after: PlacedTree, cuts: Cuts): WoodPart[] {
  return [...cuts.hidden].map((id): WoodPart => {
    const b = placed.byId.get(id)!;
    const left = after.byId.get(id);
    return left ? { ...branchPart(b), line: stretch(b.line, lengthOf(left.line), lengthOf(b.line)), flare: 0, within: 0 } : branchPart(b);
  });
}

/** Outlines of whole branches are kept: a branch that goes is drawn once, however often decisions change. */
const outlined = new WeakMap<Limb, { inside: BufferGeometry; outline: BufferGeometry }>();

function outlineOf(part: WoodPart, by: number): { inside: BufferGeometry; outline: BufferGeometry } {
  const before = outlined.get(part.line);
  if (before) return before;
  const made = { inside: woodMesh([part], null).geometry, outline: hull([part], by) };
  outlined.set(part.line, made);
  return made;
}

/** Wood that the plan takes off, as pale outlines. There even when nothing goes: its shaders are made with the first picture, not with the first decision. */
function Outlines({ placed, after, cuts, room, onSelect }: { placed: PlacedTree; after: PlacedTree; cuts: Cuts; room: Room; onSelect: OnSelect }) {
  const { inside, outline, ranges } = useMemo(() => {
    const parts = takenParts(placed, after, cuts);
    const drawn = parts.map((part) => outlineOf(part, placed.height * 0.0022));
    let from = 0;
    const starts = drawn.map((d, i) => {
      const range = { from, id: parts[i]!.id };
      from += d.inside.getIndex()!.count / 3;
      return range;
    });
    const merged = (all: BufferGeometry[]): BufferGeometry => (all.length ? mergeGeometries(all) : new BufferGeometry());
    return { inside: merged(drawn.map((d) => d.inside)), outline: merged(drawn.map((d) => d.outline)), ranges: starts };
  }, [placed, after, cuts]);
  useFreed(inside);
  useFreed(outline);
  return (
    <group>
      <mesh geometry={outline} frustumCulled={false}>
        <meshBasicMaterial color={room.outline} side={BackSide} />
      </mesh>
      <mesh geometry={inside} frustumCulled={false} userData={pickable((hit) => onSelect(partOfFace(ranges, hit.faceIndex ?? 0)))}>
        <meshBasicMaterial color={room.gone} />
      </mesh>
    </group>
  );
}

/** Soft tufts in pads. Those of hidden branches are there but not drawn. */
function Foliage({ placed, pads, hidden, dim }: { placed: PlacedTree; pads: readonly Pad[]; hidden: ReadonlySet<string>; dim: number }) {
  const species = speciesOf(placed.tree.species);
  const tufts = useMemo(() => tuftsOf(pads, leafLook(species), placed.height), [pads, species, placed.height]);
  const geometry = useMemo(() => tuftGeometry(tufts), [tufts]);
  useFreed(geometry);
  useMemo(() => showTufts(geometry, tufts, (pad) => !hidden.has(pad)), [geometry, tufts, hidden]);
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
    const lineOf = (limb: string): Limb | undefined => (limb === 'trunk' ? after.trunk : (after.byId.get(limb) ?? placed.byId.get(limb))?.line);
    const byColour = groupedBy(coils, (coil) => `${STATE_COLOURS[coil.state] ?? (coil.planned ? PLANNED_COLOURS : METAL_COLOURS)[coil.metal]}|${coil.planned}`);
    return [...byColour].map(([key, items]) => ({
      key,
      colour: key.split('|')[0]!,
      planned: items[0]!.planned,
      geometry: coilMesh(items, lineOf),
    }));
  }, [placed, after, coils]);
  useEffect(() => () => groups.forEach((g) => g.geometry.dispose()), [groups]);
  return groups.map((g) => (
    <mesh key={g.key} geometry={g.geometry} castShadow={!g.planned}>
      <meshPhongMaterial color={g.colour} specular="#fff2e0" shininess={46} transparent={g.planned} opacity={g.planned ? 0.85 : 1} />
    </mesh>
  ));
}

/** A line to be drawn in dots. */
export interface DottedLine {
  line: Limb;
  /** A line beside the one that is meant: fainter, with wider gaps. */
  beside?: boolean;
}

/** Where planned branches shall lie: the branch again, in dots. */
function Poses({ placed, poses, room }: { placed: PlacedTree; poses: readonly DottedLine[]; room: Room }) {
  const geometry = useMemo(() => {
    const points = poses.flatMap(({ line, beside }) => {
      const count = Math.max(4, Math.round(lengthOf(line) / (placed.height * (beside ? 0.034 : 0.016))));
      return Array.from({ length: count + 1 }, (_, i) => pointAt(line, (lengthOf(line) * i) / count).point);
    });
    const made = new BufferGeometry();
    made.setAttribute('position', new BufferAttribute(new Float32Array(points.flat()), 3));
    return made;
  }, [placed.height, poses]);
  useFreed(geometry);
  const material = useRef<PointsMaterial>(null);
  // Points are sized as if the picture spanned a right angle; ours is narrower.
  useFrame(({ camera }) => {
    if (material.current) material.current.size = placed.height * 0.0085 * camera.projectionMatrix.elements[5]!;
  });
  return (
    <points geometry={geometry} frustumCulled={false}>
      <pointsMaterial ref={material} map={dot()} color={room.pose} transparent alphaTest={0.4} depthTest={false} opacity={0.9} />
    </points>
  );
}

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
  outlines?: boolean;
  onSelect: (branch: string | null) => void;
  coils: readonly DrawnCoil[];
  poses: readonly DottedLine[];
  room: Room;
  selected: string | null;
  /** How dense the foliage is drawn, 0..1: thinner where the wood is the matter; nothing: not at all. */
  foliage: number;
  wood?: WoodLook;
}

const NOTHING_HIDDEN: ReadonlySet<string> = new Set();

/** Not drawn anew while the table turns: only the camera moves then. */
export const TreeMesh = memo(function TreeMesh({
  placed,
  after,
  outlines = true,
  onSelect,
  coils,
  poses,
  room,
  selected,
  foliage,
  wood = 'drawn',
}: TreeMeshProps) {
  const cuts = useMemo(() => cutsBetween(placed, after), [placed, after]);
  const pads = useMemo(() => [...placed.branches.flatMap((b) => (b.pad ? [b.pad] : [])), ...(placed.apexPad ? [placed.apexPad] : [])], [placed]);
  const left = useMemo(() => cuts.trimmed.flatMap((b) => (b.pad ? [b.pad] : [])), [cuts]);
  return (
    <group>
      <Wood placed={placed} cuts={cuts} wood={wood} onSelect={onSelect} />
      {outlines && <Outlines placed={placed} after={after} cuts={cuts} room={room} onSelect={onSelect} />}
      <Coils placed={placed} after={after} coils={coils} />
      {selected && placed.byId.has(selected) && <Chosen placed={placed} branch={selected} />}
      {foliage > 0 && <Foliage placed={placed} pads={pads} hidden={cuts.hidden} dim={foliage} />}
      {foliage > 0 && left.length > 0 && <Foliage placed={placed} pads={left} hidden={NOTHING_HIDDEN} dim={foliage} />}
      <Poses placed={after} poses={poses} room={room} />
    </group>
  );
});
