import { BufferAttribute, BufferGeometry, CanvasTexture, Color, LinearFilter } from 'three';
import { add, scale, seeded, type Leaf, type Pad, type Vec } from '@ustle/core';
import type { LeafLook } from './colours';

/** One soft tuft of leaves, painted: white where lit, grey in its depth, so that a tuft takes its colour from its place. */
export function tuftTexture(leaf: Leaf): CanvasTexture {
  const size = 128;
  const canvas = document.createElement('canvas');
  canvas.width = canvas.height = size;
  const paint = canvas.getContext('2d')!;
  const random = seeded(leaf.length * 97);
  paint.translate(size / 2, size / 2);
  const stroke = (x: number, y: number, angle: number, length: number, width: number, shade: number): void => {
    paint.strokeStyle = `rgba(${shade},${shade},${shade},0.85)`;
    paint.lineWidth = width;
    paint.lineCap = 'round';
    paint.beginPath();
    paint.moveTo(x, y);
    paint.lineTo(x + Math.cos(angle) * length, y + Math.sin(angle) * length);
    paint.stroke();
  };
  const blade = (x: number, y: number, angle: number, length: number, width: number, shade: number): void => {
    paint.save();
    paint.translate(x, y);
    paint.rotate(angle);
    paint.fillStyle = `rgba(${shade},${shade},${shade},0.9)`;
    paint.beginPath();
    paint.ellipse(length / 2, 0, length / 2, width / 2, 0, 0, 7);
    paint.fill();
    paint.restore();
  };
  const counts: Record<Leaf, number> = { tuft: 46, needle: 60, scale: 90, 'small leaf': 34, 'broad leaf': 15 };
  for (let i = 0; i < counts[leaf]; i++) {
    const angle = random() * 6.283;
    const reach = Math.sqrt(random()) * 34;
    const x = Math.cos(angle) * reach;
    const y = Math.sin(angle) * reach * 0.72;
    const shade = Math.round(150 + 105 * (i / counts[leaf]));
    if (leaf === 'tuft') stroke(x * 0.35, y * 0.35, angle, 22 + random() * 24, 2.2, shade);
    else if (leaf === 'needle') stroke(x, y, angle + random() - 0.5, 12 + random() * 12, 2.6, shade);
    else if (leaf === 'scale') blade(x, y, angle, 9 + random() * 9, 4.5, shade);
    else if (leaf === 'small leaf') blade(x, y, angle, 15 + random() * 7, 8.5, shade);
    else for (const lobe of [-0.7, 0, 0.7]) blade(x * 0.8, y * 0.8, angle + lobe, 24 + random() * 6, 8, shade);
  }
  const texture = new CanvasTexture(canvas);
  texture.minFilter = LinearFilter;
  texture.generateMipmaps = false;
  return texture;
}

export interface Tufts {
  positions: Float32Array;
  colours: Float32Array;
  sizes: Float32Array;
  turns: Float32Array;
  /** Which branch's pad each tuft belongs to. */
  owners: string[];
}

/** A number from the pad's place, so that a pad looks the same whenever it is drawn. */
const padSeed = (pad: Pad): number => Math.round(Math.abs(pad.center[0] * 13 + pad.center[1] * 7 + pad.center[2] * 3));

/** Tufts filling the pads: dense at the upper face, thin below, darker inside and beneath. `scaleTo` is the tree's height, mm. */
export function tuftsOf(pads: readonly Pad[], look: LeafLook, scaleTo: number): Tufts {
  const size = look.size * Math.min(1.3, Math.max(0.45, scaleTo / 600));
  const points: { at: Vec; colour: Color; size: number; turn: number; owner: string }[] = [];
  const shade = new Color(look.shade);
  const light = new Color(look.light);
  const tip = new Color(look.tip);
  const least = Math.max(2, Math.min(14, Math.round(4000 / pads.length)));
  for (const pad of pads) {
    const random = seeded(padSeed(pad) + 1);
    const area = pad.half[0] * pad.half[1];
    const count = Math.min(420, Math.max(least, Math.round((area / (size * size)) * 34)));
    for (let i = 0; i < count; i++) {
      const turn = random() * 6.283;
      const out = Math.sqrt(random());
      // Height within the pad: a domed top, a flat underside.
      const dome = Math.sqrt(Math.max(0, 1 - out * out));
      const high = random() ** 0.7;
      const rise = -0.35 + 1.35 * high * dome;
      const offset = add(
        add(scale(pad.axes[0], Math.cos(turn) * out * pad.half[0]), scale(pad.axes[1], Math.sin(turn) * out * pad.half[1])),
        scale(pad.axes[2], rise * pad.half[2]),
      );
      const lit = Math.max(0, Math.min(1, (rise + 0.35) / 1.25 + 0.18 * (random() - 0.5)));
      const colour = lit < 0.6 ? shade.clone().lerp(light, lit / 0.6) : light.clone().lerp(tip, ((lit - 0.6) / 0.4) * 0.75);
      points.push({ at: add(pad.center, offset), colour, size: size * (0.75 + 0.5 * random()), turn: random() * 6.283, owner: pad.branch });
    }
  }
  return {
    positions: new Float32Array(points.flatMap((p) => [...p.at])),
    colours: new Float32Array(points.flatMap((p) => [p.colour.r, p.colour.g, p.colour.b])),
    sizes: new Float32Array(points.map((p) => p.size)),
    turns: new Float32Array(points.map((p) => p.turn)),
    owners: points.map((p) => p.owner),
  };
}

export function tuftGeometry(tufts: Tufts): BufferGeometry {
  const geometry = new BufferGeometry();
  geometry.setAttribute('position', new BufferAttribute(tufts.positions, 3));
  geometry.setAttribute('colour', new BufferAttribute(tufts.colours, 3));
  geometry.setAttribute('size', new BufferAttribute(tufts.sizes.slice(), 1));
  geometry.setAttribute('turn', new BufferAttribute(tufts.turns, 1));
  geometry.setIndex(
    new BufferAttribute(
      new Uint32Array(tufts.sizes.length).map((_, i) => i),
      1,
    ),
  );
  return geometry;
}

/** Shows the tufts of some branches' pads; the others get no size. */
export function showTufts(geometry: BufferGeometry, { sizes, owners }: Tufts, shown: (branch: string) => boolean): void {
  const size = geometry.getAttribute('size');
  owners.forEach((owner, i) => size.setX(i, shown(owner) ? sizes[i]! : 0));
  size.needsUpdate = true;
}

const BUCKETS = 2048;

/** Sorts the tufts from far to near along a direction towards the viewer, so that soft edges lie over each other rightly: one pass into buckets of depth. */
export function sortTufts(geometry: BufferGeometry, toward: Vec): void {
  const positions = geometry.getAttribute('position').array;
  const index = geometry.getIndex()!;
  const order = index.array as Uint32Array;
  const depth = new Float32Array(order.length);
  let [low, high] = [Infinity, -Infinity];
  for (let i = 0; i < depth.length; i++) {
    const d = positions[i * 3]! * toward[0] + positions[i * 3 + 1]! * toward[1] + positions[i * 3 + 2]! * toward[2];
    depth[i] = d;
    if (d < low) low = d;
    if (d > high) high = d;
  }
  const scaleTo = (BUCKETS - 1) / Math.max(1e-6, high - low);
  const starts = new Uint32Array(BUCKETS + 1);
  for (let i = 0; i < depth.length; i++) starts[((depth[i]! - low) * scaleTo) | 0]!++;
  let before = 0;
  for (let b = 0; b <= BUCKETS; b++) {
    const count = starts[b]!;
    starts[b] = before;
    before += count;
  }
  for (let i = 0; i < depth.length; i++) order[starts[((depth[i]! - low) * scaleTo) | 0]!++] = i;
  index.needsUpdate = true;
}

export const TUFT_VERTEX = /* glsl */ `
  attribute vec3 colour;
  attribute float size;
  attribute float turn;
  uniform float scale;
  varying vec3 vColour;
  varying vec2 vTurn;
  void main() {
    vColour = colour;
    vTurn = vec2(cos(turn), sin(turn));
    vec4 seen = modelViewMatrix * vec4(position, 1.0);
    // A tuft of no size would still be a speck: it is put outside the picture.
    gl_Position = size > 0.0 ? projectionMatrix * seen : vec4(2.0, 2.0, 2.0, 1.0);
    gl_PointSize = size * scale / -seen.z;
  }
`;

export const TUFT_FRAGMENT = /* glsl */ `
  uniform sampler2D tuft;
  uniform float opacity;
  varying vec3 vColour;
  varying vec2 vTurn;
  void main() {
    vec2 at = gl_PointCoord - 0.5;
    vec4 texel = texture2D(tuft, mat2(vTurn.x, vTurn.y, -vTurn.y, vTurn.x) * at + 0.5);
    if (texel.a < 0.05) discard;
    gl_FragColor = vec4(vColour * (0.55 + 0.5 * texel.r), texel.a * opacity);
    #include <colorspace_fragment>
  }
`;
