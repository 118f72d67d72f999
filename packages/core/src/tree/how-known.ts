import { calipersOf } from './calipers.js';
import { branchOf } from './geometry.js';
import type { Branch, KnownAs, KnownBy } from './measures.js';
import type { Tree } from './types.js';

/** How well a branch is known: standard deviations of its thickness (mm), slope and bearing (degrees) and length (mm). */
export interface HowKnown {
  how: KnownBy;
  d: number;
  deg: number;
  length: number;
}

/** What is usual: shares of thickness and length, degrees; and no better than so many mm. Own estimates. docs: How well it is known. */
const USUAL: Record<KnownBy, { d: number; deg: number; length: number }> = {
  ruler: { d: 0.02, deg: 2, length: 0.02 },
  photographs: { d: 0.06, deg: 1.5, length: 0.02 },
  drawn: { d: 0.15, deg: 10, length: 0.1 },
  guessed: { d: 0.2, deg: 25, length: 0.35 },
};

const usualOf = (how: KnownBy, d: number, length: number): HowKnown => ({ how, d: USUAL[how].d * d, deg: USUAL[how].deg, length: USUAL[how].length * length });

/** How well a branch is known; what a caliper told of it is known as by ruler, however its line was found. */
export function howKnown(tree: Tree, id: string): HowKnown {
  const branch = branchOf(tree, id);
  if (!branch) return usualOf('ruler', 0, 0);
  const known: KnownAs = branch.known ?? { how: 'ruler' };
  const usual = usualOf(known.how, branch.d, branch.length);
  const measured = calipersOf(tree, id).length > 1;
  return { how: known.how, d: measured ? USUAL.ruler.d * branch.d : (known.d ?? usual.d), deg: known.deg ?? usual.deg, length: known.length ?? usual.length };
}

/** Which figures of a branch rest on which part of what is known of it. */
const PART_OF: Partial<Record<keyof Branch, 'd' | 'deg' | 'length'>> = { d: 'd', elevation: 'deg', bearing: 'deg', length: 'length' };

/** A branch with figures that were measured now: those are known as by ruler, the others as before; all of them, and nothing is left to be said. */
export function knownAnew(was: Branch, now: Branch): Branch {
  if (!now.known || JSON.stringify(now.known) !== JSON.stringify(was.known)) return now;
  const parts = new Set((Object.keys(PART_OF) as (keyof Branch)[]).flatMap((field) => (now[field] === was[field] ? [] : PART_OF[field]!)));
  if (JSON.stringify(now.path) !== JSON.stringify(was.path)) ['deg', 'length'].forEach((part) => parts.add(part as 'deg'));
  if (!parts.size) return now;
  const before = usualOf(now.known.how, now.d, now.length);
  const byRuler = usualOf('ruler', now.d, now.length);
  const tenth = (x: number): number => Math.round(x * 10) / 10;
  const of = (part: 'd' | 'deg' | 'length'): number => tenth(parts.has(part) ? byRuler[part] : (now.known![part] ?? before[part]));
  const next: KnownAs = { how: now.known.how, d: of('d'), deg: of('deg'), length: of('length') };
  if (next.d! > 1.05 * byRuler.d + 0.05 || next.deg! > byRuler.deg || next.length! > 1.05 * byRuler.length + 0.05) return { ...now, known: next };
  const { known: _known, ...rest } = now;
  return rest;
}
