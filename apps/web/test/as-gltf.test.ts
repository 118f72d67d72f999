import { coilAlone, FlatBark, generateTree, placeTree, planSvg, planTree, dayOf, shortNamesOf } from '@ustle/core';
import { validateBytes } from 'gltf-validator';
import { Box3, Vector3 } from 'three';
import { asGltf, treeScene } from '../src/turntable/as-gltf';
import type { DrawnCoil } from '../src/turntable/coil-geometry';

/** What the browser has and Node has not: the exporter reads its own parts with it. */
class FileReader {
  result: ArrayBuffer | null = null;
  onloadend: () => void = () => undefined;
  readAsArrayBuffer(blob: Blob): void {
    void blob.arrayBuffer().then((bytes) => ((this.result = bytes), this.onloadend()));
  }
}
beforeAll(() => Object.assign(globalThis, { FileReader }));

const tree = generateTree({ seed: 4, name: 'Any', species: 'larch', height: 500, base: 45, primaries: 4, secondaries: 2 });
const placed = placeTree(tree);
const coils = placed.branches.slice(0, 2).map(({ branch, line }, i): DrawnCoil => ({
  branch: branch.id,
  metal: i ? 'copper' : 'aluminium',
  size: 2,
  strands: 1,
  places: coilAlone(branch.id, new FlatBark(line), { hand: 'cw', start: 'over', angle: 45, size: 2 }),
  state: 'clear',
  planned: false,
}));

test('a tree as glTF is sound for an independent reader, in metres, upright, with its wire and pads by name', async () => {
  const scene = treeScene(placed, coils);
  const { issues, info } = await validateBytes(new Uint8Array(await asGltf(scene)));
  expect(issues.messages.filter((m: { severity: number }) => m.severity < 2)).toEqual([]);
  expect(info.totalTriangleCount).toBeGreaterThan(5000);
  const size = new Box3().setFromObject(scene).getSize(new Vector3());
  expect(size.y).toBeGreaterThan(0.45);
  expect(size.y).toBeLessThan(1);
  const names: string[] = [];
  scene.traverse((o) => names.push(o.name));
  const pads = placed.branches.filter((b) => b.pad).map((b) => `pad ${b.branch.id}`);
  expect(names).toEqual(expect.arrayContaining(['wood', 'pot', 'wire copper', 'wire aluminium', 'pad crown', ...pads]));
  // Wire that is only planned is not on the tree.
  const bare = treeScene(
    placed,
    coils.map((c) => ({ ...c, planned: true })),
  );
  bare.traverse((o) => expect(o.name).not.toMatch(/wire/));
});

test('the plan drawn as SVG shows what goes dashed, names the primary branches, and can say no markup', () => {
  const [first] = tree.branches.filter((b) => b.parent === 'trunk');
  const named = { ...tree, name: 'A <b>&"', plan: { ...tree.plan, decisions: [{ branch: first!.id, act: 'remove' as const }] } };
  const svg = planSvg(named, planTree(named, dayOf('2026-03-01'), { fronts: false }));
  const dashed = /<g fill="#faf7ef"[^>]*dasharray[^>]*>(.*?)<\/g>/.exec(svg)![1]!;
  expect(dashed.match(/<path/g)).toHaveLength(1 + tree.branches.filter((b) => b.parent === first!.id).length);
  expect(svg).toContain('<title>A &#60;b&#62;&#38;&#34;');
  const kept = tree.branches.filter((b) => b.parent === 'trunk' && b !== first).map((b) => shortNamesOf(named)(b.id));
  expect([...svg.matchAll(/<text[^>]*>([^<]*)</g)].map((m) => m[1])).toEqual(kept);
  expect(svg).not.toMatch(/NaN|Infinity/);
});
