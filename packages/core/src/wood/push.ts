import { normalCdf } from '../units/index.js';
import { METAL_DATA, type MetalName } from './metals.js';
import { modulus, type Wood } from './section.js';

/** How far a hand misjudges which of two gave way: spread of the logarithm of the ratio. */
export const HAND_ERROR = 0.25;
/** Strain of the outer fibre at which a branch is felt to move. */
const FELT_STRAIN = 0.003;

/** Spread of a branch's stiffness round its tree's, and of the tree's round its species': logarithms. */
export const STIFFNESS_SD = { branch: 0.35, tree: 0.25 } as const;
/** Nothing was tested yet. */
export const UNTESTED = { meanLog: 0, sd: Math.hypot(STIFFNESS_SD.branch, STIFFNESS_SD.tree) } as const;

/** Moment at which pressed wire itself gives way, N·mm. */
const wireMoment = (metal: MetalName, wireDiameter: number, strands: number): number => (strands * METAL_DATA[metal].strength * wireDiameter ** 3) / 6;
/** Moment at which a branch is felt to move, N·mm; its stiffness factor 1. */
const branchMoment = (diameter: number, wood: Wood): number => (modulus(wood) * FELT_STRAIN * Math.PI * diameter ** 3) / 32;

/** What a pressed wire bears over what moves a branch of ordinary stiffness. */
export const pushRatio = (of: { diameter: number; wood: Wood; metal: MetalName; wireDiameter: number; strands: number }): number =>
  wireMoment(of.metal, of.wireDiameter, of.strands) / branchMoment(of.diameter, of.wood);

/** Chance that the branch moves when a wire is pressed against it, its stiffness known as a log-normal factor. docs: Push test. */
export function pushChance(of: { diameter: number; wood: Wood; metal: MetalName; wireDiameter: number; strands: number; meanLog: number; sd: number }): number {
  return normalCdf((Math.log(pushRatio(of)) - of.meanLog) / Math.hypot(HAND_ERROR, of.sd));
}
