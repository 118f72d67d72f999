// What hides the trunk, found the plain way: a ray for every cell against every limb and pad. The yardstick for the depth buffer.
import { seenTrunk, seenTwin, viewer } from '@ustle/core';

/**
 * Nearest depth at which a ray along the line of sight meets a tapered limb: the spheres along it, in fine steps.
 * @param {import('@ustle/core').Limb} line
 * @param {(p: import('@ustle/core').Vec) => import('@ustle/core').Vec} see
 * @param {number} x
 * @param {number} y
 */
function limbDepth(line, see, x, y) {
  let nearest = -Infinity;
  for (let i = 0; i + 1 < line.points.length; i++) {
    const a = see(line.points[i]);
    const b = see(line.points[i + 1]);
    for (let k = 0; k <= 60; k++) {
      const t = k / 60;
      const r = (line.diameters[i] + (line.diameters[i + 1] - line.diameters[i]) * t) / 2;
      const square = r * r - (x - a[0] - (b[0] - a[0]) * t) ** 2 - (y - a[1] - (b[1] - a[1]) * t) ** 2;
      if (square >= 0) nearest = Math.max(nearest, a[2] + (b[2] - a[2]) * t + Math.sqrt(square));
    }
  }
  return nearest;
}

/**
 * The same for a pad: the quadratic of a ray and an ellipsoid, in the ellipsoid's own axes.
 * @param {import('@ustle/core').Pad} pad
 * @param {(p: import('@ustle/core').Vec) => import('@ustle/core').Vec} see
 * @param {number} x
 * @param {number} y
 */
function padDepth(pad, see, x, y) {
  const center = see(pad.center);
  let [a, b, c] = [0, 0, -1];
  pad.axes.forEach((axis, k) => {
    const tip = see([pad.center[0] + axis[0], pad.center[1] + axis[1], pad.center[2] + axis[2]]);
    const along = ((tip[0] - center[0]) * (x - center[0]) + (tip[1] - center[1]) * (y - center[1])) / pad.half[k];
    const deep = (tip[2] - center[2]) / pad.half[k];
    a += deep * deep;
    b += 2 * along * deep;
    c += along * along;
  });
  const inside = b * b - 4 * a * c;
  return inside < 0 ? -Infinity : center[2] + (-b + Math.sqrt(inside)) / (2 * a);
}

/**
 * The pot as an upright cylinder, by steps along the ray. Axes of the view: right, up and toward the viewer.
 * @param {import('@ustle/core').Pot} pot
 * @param {number[][]} axes
 * @param {number} x
 * @param {number} y
 */
function potDepth({ width, depth, height }, axes, x, y) {
  for (let d = 700; d > -700; d -= 3) {
    const [px, py, pz] = [0, 1, 2].map((k) => x * axes[0][k] + y * axes[1][k] + d * axes[2][k]);
    if (pz <= 0 && pz >= -height && (px / (width / 2)) ** 2 + (py / (depth / 2)) ** 2 <= 1) return d;
  }
  return -Infinity;
}

/**
 * Hidden share of the lower trunk from a bearing and pitch, by columns × rows rays.
 * @param {import('@ustle/core').PlacedTree} placed
 * @param {number} bearing
 * @param {number} pitch
 */
export function rayCast(placed, bearing, pitch, columns = 70, rows = 150) {
  const see = viewer({ bearing, pitch, roll: 0 });
  const low = seenTrunk(placed);
  const twin = seenTwin(placed);
  const stems = twin ? [low, twin] : [low];
  const seen = stems.flatMap((s) => s.points.map(see));
  const reach = Math.max(...stems.flatMap((s) => s.diameters)) / 2;
  const [x0, x1] = [Math.min(...seen.map((p) => p[0])) - reach, Math.max(...seen.map((p) => p[0])) + reach];
  const [y0, y1] = [Math.min(...seen.map((p) => p[1])) - reach, Math.max(...seen.map((p) => p[1])) + reach];
  const pads = [...placed.branches.map((b) => b.pad), placed.apexPad].filter((p) => p !== null);
  const unit = [see([1, 0, 0]), see([0, 1, 0]), see([0, 0, 1])];
  const axes = [0, 1, 2].map((k) => unit.map((u) => u[k]));
  const pot = low.points.some((p) => p[2] < 0) ? placed.tree.pot : null;
  let [trunk, hidden] = [0, 0];
  for (let i = 0; i < columns; i++) {
    for (let k = 0; k < rows; k++) {
      const x = x0 + ((i + 0.37) * (x1 - x0)) / columns;
      const y = y0 + ((k + 0.41) * (y1 - y0)) / rows;
      for (const stem of stems) {
        const depth = limbDepth(stem, see, x, y);
        if (depth === -Infinity) continue;
        trunk++;
        if (
          (twin && limbDepth(placed.trunk, see, x, y) > depth + 0.5) ||
          placed.branches.some((b) => limbDepth(b.line, see, x, y) > depth + 0.5) ||
          pads.some((p) => padDepth(p, see, x, y) > depth) ||
          (pot && potDepth(pot, axes, x, y) > depth)
        )
          hidden++;
      }
    }
  }
  return hidden / trunk;
}
