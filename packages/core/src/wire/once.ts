/** A question about two things that do not change, asked once of each two. */
export function oncePerPair<A extends object, B extends object>(ask: (a: A, b: B) => boolean): (a: A, b: B) => boolean {
  const answers = new WeakMap<A, WeakMap<B, boolean>>();
  return (a, b) => {
    let ofA = answers.get(a);
    if (!ofA) answers.set(a, (ofA = new WeakMap()));
    const before = ofA.get(b);
    if (before !== undefined) return before;
    const answer = ask(a, b);
    ofA.set(b, answer);
    return answer;
  };
}
