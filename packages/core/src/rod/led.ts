import { greatestOf } from '../units/index.js';
import { add, distance, dot, lengthOf, norm, scale, sub, unit, type Limb, type Vec } from '../space/index.js';
import { yieldMoment, type Wood } from '../wood/index.js';
import { equilibrium } from './equilibrium.js';
import { lineOf, rodOf, shapeOf, tieAt, type Tie } from './rod.js';
import { STIFF, strainsOf } from './tied.js';

/** Wood that is moved at one place by a push or a pull. */
export interface LedAsked {
  line: Limb;
  wood: Wood;
  /** Wet weight, N for each mm³. */
  heft: number;
  /** Where it is moved, mm along it, and which way. */
  at: number;
  way: Vec;
  segments?: number;
}

export interface Led {
  /** How far it was moved, mm. */
  by: number;
  /** N that hold it there. */
  force: number;
  line: Limb;
  /** Greatest strain, and where, mm from its foot. */
  strain: number;
  strainAt: number;
}

/** It is drawn from so far off that the pull keeps its direction: so many lengths of it. */
const FAR = 50;
const CORRECTIONS = 2;
/** Pieces in which a device's wood is reckoned. */
export const LED_SEGMENTS = 24;

/** How wood lies when a place of it was moved by some mm along a direction, and what holds it there; across that it goes where it likes. docs: Devices. */
export function leadWood({ line, wood, heft, at, way, segments = LED_SEGMENTS }: LedAsked, by: number): Led {
  const rod = rodOf(line, wood, { segments, heft });
  const total = lengthOf(line);
  const joint = Math.min(segments, Math.max(1, Math.round((at / total) * segments)));
  const rest = equilibrium(rod, {}).bends;
  const before = shapeOf(rod, rest).points[joint]!;
  const along = unit(way);
  const anchor = add(before, scale(along, FAR * total));
  const stiffness = (STIFF * yieldMoment(rod.diameters[0]!, wood.strength)) / distance(before, rod.root) ** 2;
  let [bends, drawn] = [rest, by];
  let tie: Tie = { joint, anchor, length: FAR * total - drawn, stiffness };
  let point = before;
  for (let i = 0; i <= CORRECTIONS; i++) {
    tie = { joint, anchor, length: FAR * total - drawn, stiffness };
    bends = equilibrium(rod, { ties: [tie] }, bends).bends;
    point = shapeOf(rod, bends).points[joint]!;
    // What leads it gives a little: that is drawn as well.
    drawn += by - dot(sub(point, before), along);
  }
  const strains = strainsOf(rod, bends);
  const worst = strains.indexOf(greatestOf(strains));
  return { by, force: tieAt(tie, norm(sub(point, anchor))).tension, line: lineOf(rod, bends), strain: strains[worst]!, strainAt: worst * rod.segment };
}

const ROUNDS = 24;
const CLOSE = 0.01;

/** Two pieces of wood moved by one device: together so far, each so that both take the same force (false position). */
export function leadBoth(a: LedAsked, b: LedAsked, by: number): [Led, Led] {
  const both = (x: number): [Led, Led] => [leadWood(a, x), leadWood(b, by - x)];
  const over = ([one, other]: [Led, Led]): number => one.force - other.force;
  let [low, high] = [0, by];
  let [least, most] = [over(both(low)), over(both(high))];
  let found = both(by / 2);
  for (let i = 0; i < ROUNDS; i++) {
    const x = i % 3 ? low - (least * (high - low)) / (most - least) : (low + high) / 2;
    found = both(x);
    const now = over(found);
    if (Math.abs(now) < CLOSE * Math.max(found[0].force, 1e-6) || high - low < 1e-4) break;
    if (now < 0) [low, least] = [x, now];
    else [high, most] = [x, now];
  }
  return found;
}
