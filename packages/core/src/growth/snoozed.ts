import { dayOf } from '../units/index.js';
import { standing, type Coil, type Tree } from '../tree/index.js';

/** The day to which the next look at a coil was put off, and why; null where it was not, or was looked at since. */
export function snoozedUntil(tree: Tree, { branch, run, since, seen }: Coil, onDay: number): { until: number; why: string } | null {
  const last = standing(tree.record).flatMap((line) =>
    line.kind === 'snoozed' && line.branch === branch && (line.run ?? run) === run && dayOf(line.on) >= since && dayOf(line.on) <= onDay ? [line] : [],
  );
  const line = last[last.length - 1];
  if (!line || seen.some((s) => s.day > dayOf(line.on))) return null;
  const until = dayOf(line.until);
  return until > onDay ? { until, why: line.text ?? '' } : null;
}
