import { direction } from '../space/index.js';
import { clamp } from '../units/index.js';
import type { Station } from '../tree/index.js';
import type { Growing } from './generate.js';

type Between = (low: number, high: number) => number;

const round = (x: number): number => Math.round(x * 10) / 10;

/** Bends to the sides that shrink upward. */
function uprightOf({ height, base, swing = 0.13, lean = 0, leanBearing = 90 }: Growing, between: Between): Station[] {
  const phase = between(0, 6.28);
  const side = between(0, 6.28);
  const toward = direction({ bearingDeg: leanBearing, elevationDeg: 0 });
  const count = 11;
  const raw = Array.from({ length: count }, (_, i): Station => {
    const t = i / (count - 1);
    // Bends that shrink upward: the phase runs faster and the swing grows smaller with height.
    const wave = phase + 2 * Math.PI * (1.15 * t + 0.55 * t * t);
    const reach = height * swing * (1 - 0.72 * t) * Math.sin(Math.PI * Math.min(1, 0.12 + t * 0.9)) ** 0.6;
    return {
      x: Math.cos(side) * Math.sin(wave) * reach + Math.sin(side) * Math.cos(wave * 0.9) * reach * 0.55 + toward[0] * lean * height * t,
      y: Math.sin(side) * Math.sin(wave) * reach - Math.cos(side) * Math.cos(wave * 0.9) * reach * 0.55 + toward[1] * lean * height * t,
      z: height * t,
      d: base * (i === 0 ? 1.35 : i === 1 ? 1.02 : 1) * (1 - 0.88 * t) ** 0.95,
    };
  });
  const { x, y } = raw[0]!;
  return raw.map((s) => ({ x: round(s.x - x), y: round(s.y - y), z: round(s.z), d: round(Math.max(3, s.d)) }));
}

const CASCADE_STEPS = 12;

/** A line that rises from the soil, goes over the rim and falls: the slope turns from steeply up to steeply down, the bearing sways. */
function cascadeOf({ height, base, swing = 0.13, leanBearing = 90 }: Growing, between: Between): Station[] {
  const phase = between(0, 6.28);
  const step = height / CASCADE_STEPS;
  const stations: Station[] = [{ x: 0, y: 0, z: 0, d: round(base * 1.3) }];
  for (let i = 1; i <= CASCADE_STEPS; i++) {
    const t = i / CASCADE_STEPS;
    const over = clamp((t - 0.08) / 0.5, 0, 1);
    const elevationDeg = 72 - 134 * over * over * (3 - 2 * over) + 14 * Math.sin(phase + 9 * t);
    const [x, y, z] = direction({ bearingDeg: leanBearing + swing * 380 * Math.sin(phase + 7.5 * t), elevationDeg });
    const before = stations[i - 1]!;
    stations.push({
      x: round(before.x + x * step),
      y: round(before.y + y * step),
      z: round(before.z + z * step),
      d: round(Math.max(3, base * (1 - 0.86 * t) ** 0.95)),
    });
  }
  return stations;
}

/** The trunk of a made-up tree, base to apex. */
export const trunkOf = (growing: Growing, between: Between): Station[] => (growing.form === 'cascade' ? cascadeOf : uprightOf)(growing, between);
