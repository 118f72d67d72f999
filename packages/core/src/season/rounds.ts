/** A look that is due at a thing on a tree; day numbers. */
export interface LookDue {
  /** From when it is taken along where somebody walks by. */
  first: number;
  /** Never later. */
  last: number;
  /** From when it is taken along where that saves a walk of its own. */
  early: number;
}

/** One walk through the yard, with all that is looked at in it. */
export interface Round<L extends LookDue> {
  day: number;
  looks: L[];
}

/** All that the walk on a day would find waiting. */
const waiting = <L extends LookDue>(looks: readonly L[], day: number): L[] => looks.filter((l) => l.first <= day || l.last <= day);

/**
 * Looks gathered into as few walks as their days allow, none later than its last day: each walk is on the last day of what waits longest and
 * takes along all whose first day has come; and all of the next walk, where its looks may be early and it is saved. docs: Rounds.
 */
export function gatherRounds<L extends LookDue>(looks: readonly L[], today: number): Round<L>[] {
  const rounds: Round<L>[] = [];
  let rest = [...looks].sort((a, b) => a.last - b.last);
  const without = (taken: readonly L[]): L[] => {
    const gone = new Set(taken);
    return rest.filter((l) => !gone.has(l));
  };
  while (rest.length) {
    const day = Math.max(today, rest[0]!.last);
    const taken = waiting(rest, day);
    rest = without(taken);
    while (rest.length) {
      const next = waiting(rest, rest[0]!.last);
      if (next.some((l) => l.early > day)) break;
      taken.push(...next);
      rest = without(next);
    }
    rounds.push({ day, looks: taken });
  }
  return rounds;
}
