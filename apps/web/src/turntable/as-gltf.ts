import { Color, Group, Matrix4, Mesh, MeshStandardMaterial, Scene, SphereGeometry, CylinderGeometry } from 'three';
import { GLTFExporter } from 'three/addons/exporters/GLTFExporter.js';
import { speciesOf, type Limb, type Pad, type PlacedTree } from '@ustle/core';
import { coilMesh, type DrawnCoil } from './coil-geometry';
import { barkLook, leafLook, METAL_COLOURS } from './colours';
import { branchPart, rootParts, trunkPart, woodMesh } from './wood-geometry';

const MM = 0.001;
const PAD_SIDES = 16;

function padMesh(pad: Pad, material: MeshStandardMaterial, name: string): Mesh {
  const mesh = new Mesh(new SphereGeometry(1, PAD_SIDES, PAD_SIDES / 2), material);
  const [a, b, c] = pad.axes;
  const [x, y, z] = pad.half;
  mesh.applyMatrix4(
    new Matrix4().set(
      a[0] * x,
      b[0] * y,
      c[0] * z,
      pad.center[0],
      a[1] * x,
      b[1] * y,
      c[1] * z,
      pad.center[1],
      a[2] * x,
      b[2] * y,
      c[2] * z,
      pad.center[2],
      0,
      0,
      0,
      1,
    ),
  );
  mesh.name = name;
  return mesh;
}

/** A tree as a scene for other programs, in metres with y up: wood, pads, wire and pot, each named. */
export function treeScene(placed: PlacedTree, coils: readonly DrawnCoil[]): Scene {
  const { tree } = placed;
  const species = speciesOf(tree.species);
  const lineOf = (limb: string): Limb | undefined => (limb === 'trunk' ? placed.trunk : placed.byId.get(limb)?.line);
  const group = new Group();
  group.name = tree.name;
  const wood = new Mesh(
    woodMesh([trunkPart(placed), ...rootParts(placed), ...placed.branches.map(branchPart)], barkLook(species)).geometry,
    new MeshStandardMaterial({ vertexColors: true, roughness: 0.95, metalness: 0 }),
  );
  wood.name = 'wood';
  group.add(wood);
  const green = new MeshStandardMaterial({ color: new Color(leafLook(species).light), roughness: 1, metalness: 0 });
  for (const b of placed.branches) if (b.pad) group.add(padMesh(b.pad, green, `pad ${b.branch.id}`));
  if (placed.apexPad) group.add(padMesh(placed.apexPad, green, 'pad crown'));
  for (const metal of ['copper', 'aluminium'] as const) {
    const own = coils.filter((c) => c.metal === metal && !c.planned);
    const geometry = coilMesh(own, lineOf);
    if (!geometry.getAttribute('position')) continue;
    const mesh = new Mesh(geometry, new MeshStandardMaterial({ color: new Color(METAL_COLOURS[metal]), roughness: 0.35, metalness: 0.8 }));
    mesh.name = `wire ${metal}`;
    group.add(mesh);
  }
  const { width, depth, height } = tree.pot;
  const pot = new Mesh(new CylinderGeometry(1, 0.84, height, 40), new MeshStandardMaterial({ color: new Color('#8a5a44'), roughness: 0.8, metalness: 0 }));
  pot.name = 'pot';
  pot.rotation.x = Math.PI / 2;
  pot.position.z = -height / 2;
  pot.scale.set(width / 2, 1, depth / 2);
  group.add(pot);
  // The tree is measured in mm with z up.
  group.rotation.x = -Math.PI / 2;
  group.scale.setScalar(MM);
  const scene = new Scene();
  scene.add(group);
  scene.updateMatrixWorld(true);
  return scene;
}

/** A scene as a binary glTF file. */
export const asGltf = async (scene: Scene): Promise<ArrayBuffer> => (await new GLTFExporter().parseAsync(scene, { binary: true })) as ArrayBuffer;
