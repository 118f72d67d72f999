/** A look that is due at a thing on a tree: not before its first day is it worth the walk, and never later than its last; day numbers. */
export interface LookDue {
  first: number;
  last: number;
}

/** One walk through the yard, with all that is looked at in it. */
export interface Round<L extends LookDue> {
  day: number;
  looks: L[];
}

/**
 * Looks gathered into as few walks as their days allow, none later than its last day: each walk is on the last day of what waits longest and
 * takes along all whose first day has come. What is walked by anyway is looked at a little early; nothing is ever looked at late. docs: Rounds.
 */
export function gatherRounds<L extends LookDue>(looks: readonly L[], today: number): Round<L>[] {
  const rounds: Round<L>[] = [];
  let rest = [...looks].sort((a, b) => a.last - b.last);
  while (rest.length) {
    const day = Math.max(today, rest[0]!.last);
    const taken = rest.filter((l) => l.first <= day || l.last <= day);
    rounds.push({ day, looks: taken });
    rest = rest.filter((l) => !taken.includes(l));
  }
  return rounds;
}
