import { type Firmness, type RunBranchPlan } from '@ustle/core';

/** What the push test is likely to say of a wire. */
export function sayPush(chance: number): string {
  if (chance >= 0.95) return 'moves the branch, almost surely';
  if (chance >= 0.65) return `moves the branch, ${Math.round(chance * 10)} times in 10`;
  return 'as likely moves the branch as gives way: press it first';
}

/** How far a wire misses the outsides of its bends, where that matters. */
export function sayMiss(part: RunBranchPlan): string {
  const off = part.bends.flatMap((b, i) => (b && b.missDeg > 25 ? [{ ...b, i }] : []));
  if (!part.bends.length || !off.length) return 'on the outside of every bend';
  return off.map((b) => `${b.missDeg.toFixed(0)}° beside the outside of bend ${b.i + 1}`).join(', ');
}

export const FIRMNESS: { value: Firmness; name: string }[] = [
  { value: 'firm', name: 'Firm: bent hardly past where it stays' },
  { value: 'usual', name: 'Usual: bent up to two fifths past' },
  { value: 'light', name: 'Light: thinner wire, bent further past' },
];
