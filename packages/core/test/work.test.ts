import {
  applyAct,
  asItStands,
  coilsOn,
  dayOf,
  dueOn,
  EMPTY_LOG,
  generateTree,
  isRefused,
  labourOf,
  largeTree,
  layOut,
  openSession,
  paceFor,
  paceOf,
  perform,
  placeTree,
  PlanMemory,
  planTree,
  running,
  slopeOfLine,
  standingOf,
  step,
  touchedWork,
  turnBetween,
  type Intent,
  type Laid,
  type PlanDocument,
  type Tree,
  type WorkStep,
} from '../src/index.js';
import { actFrom, after } from './trees.js';

const ON = dayOf('2026-10-10');
const memory = new PlanMemory();
const planOf = (t: Tree, on = ON): PlanDocument => planTree(t, on, { fronts: false, memory });
const FORMS = ['upright', 'clump', 'cascade'] as const;

/** A made-up tree with some of its branches decided to go, one to be a jin, and one tied by its artist. */
function decidedTree(i: number): Tree {
  const made = generateTree({
    seed: 700 + i,
    name: 'Any',
    species: i % 2 ? 'larch' : 'hornbeam-korean',
    form: FORMS[i % 3]!,
    height: 500,
    base: 46,
    primaries: 5,
    secondaries: 2,
    faults: [],
  });
  const primaries = made.branches.filter((b) => b.parent === 'trunk' && b.state !== 'dead').map((b) => b.id);
  const anchor = { kind: 'pot-rim', bearing: 90 };
  const tied = made.branches.find((b) => b.id === primaries[3])!;
  return after(
    { ...made, vigour: i % 4 ? 'strong' : 'free' },
    { kind: 'decide', branch: primaries[0]!, act: 'remove' },
    { kind: 'decide', branch: primaries[1]!, act: 'stub', stub: 'jin', length: 30 },
    ...(i % 3 ? [{ kind: 'guy', branch: tied.id, at: tied.length * 0.5, anchor, wire: 1 } as Intent] : []),
  );
}

const SESSIONS = Array.from({ length: 18 }, (_, i) => {
  const tree = decidedTree(i);
  const plan = planOf(tree);
  return { tree, plan, laid: layOut(tree, plan, ON, { hours: [1, 2, 3, 5, 8, 20][i % 6]!, beyond: i % 2 === 0 }), hours: [1, 2, 3, 5, 8, 20][i % 6]! };
});
const at = ({ steps }: Laid, ...kinds: string[]): number[] => steps.flatMap((s, i) => (kinds.includes(s.kind) ? [i] : []));
const leftSteps = ({ left }: Laid): WorkStep[] => left.flatMap((l) => l.steps);

test('a session keeps the order of the job and of the plan, on any tree', () => {
  for (const { tree, plan, laid } of SESSIONS) {
    const ids = laid.steps.filter((s) => s.kind === 'wire' || s.kind === 'guy').map((s) => plan.order.indexOf(s.of!));
    expect(ids).toEqual([...ids].sort((a, b) => a - b));
    expect(ids).not.toContain(-1);
    // No wire before a cut, no tie before a coil, no bend before its wire, nothing after the aftercare.
    expect(Math.max(-1, ...at(laid, 'cut', 'jin'))).toBeLessThan(Math.min(Infinity, ...at(laid, 'wire')));
    expect(Math.max(-1, ...at(laid, 'wire'))).toBeLessThan(Math.min(Infinity, ...at(laid, 'bend', 'guy', 'device')));
    // A tie goes on after the coils that it would block: on its branch, on what that grows on or carries, and beside it.
    const left = leftSteps(laid)
      .filter((s) => s.kind === 'wire')
      .flatMap((s) => s.branches);
    for (const tie of laid.steps.filter((s) => s.kind === 'guy' || s.kind === 'device')) {
      const [own] = tree.branches.filter((b) => b.id === tie.branches[0]);
      const blocks = tree.branches.filter((b) => b.id === own!.id || b.parent === own!.id || b.id === own!.parent || (b.parent === own!.parent && Math.abs(b.at - own!.at) < 2 * own!.d)); // prettier-ignore
      expect(blocks.map((b) => b.id).filter((b) => left.includes(b))).toEqual([]);
    }
    expect(laid.steps[laid.steps.length - 1]!.kind).toBe('aftercare');
  }
  expect(SESSIONS.some(({ laid }) => at(laid, 'guy').length > 0)).toBe(true);
  // A tie costs the wire elsewhere nothing, and with time enough no wire is left for it.
  const tieBesideLeft = ({ tree, plan }: (typeof SESSIONS)[number], hours: number): boolean => {
    const laid = layOut(tree, plan, ON, { hours });
    return at(laid, 'guy').length > 0 && leftSteps(laid).some((s) => s.kind === 'wire');
  };
  const some = [0.75, 1, 1.25, 1.5, 1.75, 2, 2.25, 2.5, 3, 3.5, 4, 5];
  expect(SESSIONS.some((s) => some.some((hours) => tieBesideLeft(s, hours)))).toBe(true);
  for (const { tree, plan } of SESSIONS.slice(0, 6))
    expect(leftSteps(layOut(tree, plan, ON, { hours: 24, beyond: true })).map((s) => s.kind)).not.toContain('wire');
  expect(SESSIONS.some(({ laid }) => leftSteps(laid).some((s) => s.kind === 'wire'))).toBe(true);
});

test('two sessions never hold one branch, nothing is in both or in neither, and hours are kept', () => {
  for (const { tree, plan, laid, hours } of SESSIONS) {
    const held = new Set(laid.steps.flatMap((s) => s.branches));
    for (const s of leftSteps(laid)) for (const b of s.branches) expect(held.has(b) ? `${b} by ${s.key}` : '').toBe('');
    const all = layOut(tree, plan, ON, { hours: 1000, beyond: true });
    const keys = [...laid.steps, ...leftSteps(laid)].filter((s) => s.branches.length).map((s) => s.key);
    expect(new Set(keys).size).toBe(keys.length);
    expect([...keys].sort()).toEqual(
      all.steps
        .filter((s) => s.branches.length)
        .map((s) => s.key)
        .sort(),
    );
    const general = laid.steps.filter((s) => !s.branches.length).reduce((sum, s) => sum + s.minutes, 0);
    if (laid.holds.length) expect(laid.minutes).toBeLessThanOrEqual(Math.max(hours * 60, general));
    // What a session settles as it begins can be settled.
    const begin = actFrom({ kind: 'session', session: 's1', done: 'begun', holds: laid.holds, leaves: laid.leaves, did: laid.settles } as Intent);
    expect(applyAct(tree, begin, ON)).not.toHaveProperty('refused');
    // A second session, begun on what the first leaves, takes none of its branches.
    const begun = after(tree, { kind: 'session', session: 's1', done: 'begun', holds: laid.holds, leaves: laid.leaves, did: laid.settles });
    const open = running(begun, plan, ON)!.open;
    expect(open.map((s) => s.key).filter((k) => leftSteps(laid).some((s) => s.key === k))).toEqual([]);
    expect(new Set(open.map((s) => s.key))).toEqual(new Set([...open.filter((s) => !s.branches.length), ...laid.steps].map((s) => s.key)));
  }
});

/** Answers the open steps of a tree's session one after the other, as planned, until none is left. */
function workThrough(start: Tree, on = ON): { tree: Tree; keys: string[] } {
  let tree = start;
  const keys: string[] = [];
  for (;;) {
    const now = running(tree, planOf(tree, on), on)!;
    const [next] = now.open;
    if (!next) return { tree, keys };
    tree = after(tree, {
      kind: 'worked',
      session: now.session.id,
      step: next.key,
      as: next.as,
      answer: 'done',
      minutes: next.minutes + 3,
      reckoned: next.minutes,
      ...(next.branches[0] && next.kind !== 'cut' ? { branch: next.branches[0] } : {}),
      did: next.did,
    });
    keys.push(next.key);
    if (keys.length > 200) throw new Error(`No end: ${keys.slice(-5).join(' ')}`);
  }
}

test('worked through as planned, every step is asked once, the tree carries its wire and ties, and nothing is open', () => {
  for (const i of [1, 3, 4]) {
    const { tree, laid } = SESSIONS[i]!;
    const begun = after(tree, {
      kind: 'session',
      session: 's1',
      done: 'begun',
      by: 'Robin',
      hours: 5,
      holds: laid.holds,
      leaves: laid.leaves,
      did: laid.settles,
    });
    expect(dueOn(begun, ON).due.some((d) => d.kind === 'session' && d.leadsTo === 'work')).toBe(true);
    const { tree: done, keys } = workThrough(begun);
    expect(new Set(keys).size).toBe(keys.length);
    expect(new Set(keys)).toEqual(new Set(laid.steps.map((s) => s.key)));
    const wired = laid.steps.filter((s) => s.kind === 'wire').flatMap((s) => s.branches);
    expect(new Set(coilsOn(done, ON).map((c) => c.branch))).toEqual(new Set(wired));
    const lengthOf = (t: Tree, id: string): number => t.branches.find((b) => b.id === id)?.length ?? 0;
    for (const { branches } of laid.steps.filter((s) => s.kind === 'cut')) expect(lengthOf(done, branches[0]!)).toBeLessThan(lengthOf(tree, branches[0]!));
    // What was bent or placed says so on its coil.
    const bent = new Set(laid.steps.filter((s) => s.did.some((d) => d.kind === 'bent' || (d.kind === 'placed' && d.bends.length))).flatMap((s) => s.branches));
    for (const c of coilsOn(done, ON)) expect(`${c.branch} ${c.bentDeg === null}`).toBe(`${c.branch} ${!bent.has(c.branch)}`);
    // Done as planned and looked at again, it asks for nothing more, and stands as it was posed, a little past.
    const again = planOf(done);
    const stands = placeTree(asItStands(done, ON));
    const tied = new Set(laid.steps.filter((s) => s.kind === 'guy').flatMap((s) => s.branches));
    const overDays = new Set(
      laid.steps
        .filter((s) => s.kind === 'bend')
        .flatMap((s) => (laid.steps.some((p) => p.kind === 'place' && p.branches[0] === s.branches[0]) ? [] : s.branches)),
    );
    for (const b of [...bent].filter((x) => !tied.has(x) && !overDays.has(x))) {
      expect(again.poses.map((p) => p.branch)).not.toContain(b);
      expect(again.asGrown.find((p) => p.branch === b)!.because.join()).toMatch(/bent and placed/);
      const pose = done.plan.poses.find((p) => p.branch === b)!;
      const now = slopeOfLine(standingOf(stands).lineOf.get(b)!);
      expect(turnBetween(now, pose)).toBeLessThan(14);
    }
    const [year] = labourOf(done);
    expect(year!.hours * 60).toBeCloseTo(
      laid.steps.reduce((sum, s) => sum + s.minutes + 3, 0),
      6,
    );
    const closed = after(done, { kind: 'session', session: 's1', done: 'closed' });
    expect(openSession(closed)).toBeNull();
  }
});

test('a step is done once, whoever answers; undone it is open again with all that it did taken back', () => {
  const { tree, laid } = SESSIONS[4]!;
  const begun = after(tree, { kind: 'session', session: 's1', done: 'begun', holds: laid.holds, leaves: laid.leaves, did: laid.settles });
  const wire = laid.steps.find((s) => s.kind === 'cut')!;
  const act = actFrom({ kind: 'worked', session: 's1', step: wire.key, as: wire.as, answer: 'done', by: 'Robin', did: wire.did } as Intent);
  const first = perform(begun, EMPTY_LOG, act, ON);
  if (isRefused(first as never)) throw new Error('refused');
  const done = first as Extract<typeof first, { log: unknown }>;
  expect(applyAct(done.tree, { ...act, id: 'other' }, ON)).toMatchObject({ refused: [{ field: 'step', code: 'answered' }] });
  expect(applyAct(begun, actFrom({ kind: 'session', session: 's2', done: 'begun' } as Intent), ON)).toMatchObject({ refused: [{ code: 'open' }] });
  const back = step(done.tree, done.log, { id: 'back', kind: 'undo' }, ON) as typeof done;
  expect(back.tree.branches).toEqual(begun.branches);
  expect(running(back.tree, planOf(back.tree), ON)!.open.map((s) => s.key)).toContain(wire.key);
  // What cannot be is refused whole.
  const wrong = actFrom({
    kind: 'worked',
    session: 's1',
    step: 'x',
    answer: 'done',
    did: [
      { kind: 'note', on: '2026-10-10', text: 'a' },
      { kind: 'take-off', on: '2026-10-10', branches: ['nobody'] },
    ],
  } as never);
  expect(applyAct(begun, wrong, ON)).toMatchObject({ refused: [{ field: 'did.1.branches', code: 'not-found' }] });
});

test('a crack ends the bending of its branch; a changed pose opens its placing again and is told; a cut takes its wire along', () => {
  const { tree, laid } = SESSIONS[4]!;
  const begun = after(tree, { kind: 'session', session: 's1', done: 'begun', holds: laid.holds, leaves: laid.leaves, did: laid.settles });
  const { open } = running(begun, planOf(begun), ON)!;
  const bend = open.find((s) => s.kind === 'bend')!;
  const branch = bend.branches[0]!;
  const wired = laid.steps
    .filter((s) => s.kind === 'cut' || s.kind === 'wire')
    .reduce((t, s) => after(t, { kind: 'worked', session: 's1', step: s.key, as: s.as, answer: 'done', did: s.did } as Intent), begun);
  const cracked = after(wired, {
    kind: 'worked',
    session: 's1',
    step: bend.key,
    as: bend.as,
    answer: 'cracked',
    branch,
    did: [{ ...bend.did[0]!, crack: 'across' }],
  } as Intent);
  const rest = running(cracked, planOf(cracked), ON)!.open.filter((s) => s.branches.includes(branch));
  expect(rest.filter((s) => s.kind === 'bend' || s.kind === 'place')).toEqual([]);

  const place = open.find((s) => s.kind === 'place' && !s.branches.includes(branch))!;
  const [on] = place.branches as [string];
  const placed = after(wired, { kind: 'worked', session: 's1', step: place.key, as: place.as, answer: 'done', branch: on, did: place.did } as Intent);
  expect(running(placed, planOf(placed), ON)!.open.map((s) => s.key)).not.toContain(place.key);
  const own = placed.plan.poses.find((p) => p.branch === on)!;
  const changed = after(placed, { kind: 'pose', branch: on, bearing: own.bearing, elevation: own.elevation + 4 });
  expect(running(changed, planOf(changed), ON)!.open.map((s) => s.key)).toContain(place.key);
  expect(touchedWork(changed, planOf(changed), ON, openSession(changed)!).join()).toMatch(/wanted otherwise/);
  const gone = after(placed, { kind: 'decide', branch: on, act: 'remove' });
  expect(touchedWork(gone, planOf(gone), ON, openSession(gone)!).join()).toMatch(/Take it off before you cut/);
  expect(running(gone, planOf(gone), ON)!.open.map((s) => s.key)).toContain(`cut:${on}`);
});

test('a client’s tree is cut only as agreed; wire elsewhere goes on', () => {
  const own: Tree = { ...SESSIONS[4]!.tree, client: 'the harbour office' };
  const laid = layOut(own, planOf(own), ON, { hours: 8, beyond: true });
  expect(laid.steps.filter((s) => s.kind === 'cut')).toEqual([]);
  expect(laid.left.filter((l) => /has not agreed/.test(l.why)).flatMap((l) => l.steps)).not.toEqual([]);
  expect(laid.steps.filter((s) => s.kind === 'wire').length).toBeGreaterThan(0);
});

test('own past hours count the more, the more there are; what was left lying does not', () => {
  const timed = (n: number, minutes: number) => Array.from({ length: n }, () => ({ step: 'wire:b1+b2', reckoned: 10, minutes }));
  expect(paceFor(paceOf([]), 'wire')).toBe(1);
  expect(paceFor(paceOf(timed(1, 20)), 'wire')).toBeCloseTo(50 / 40);
  expect(paceFor(paceOf(timed(60, 20)), 'wire')).toBeGreaterThan(1.9);
  expect(paceFor(paceOf(timed(3, 300)), 'wire')).toBe(1);
});

test('a tree of 150 branches: a session of any length is filled with what fits it, clearing no more than it works on, and can be begun', () => {
  const large: Tree = { ...largeTree(150, 3), record: [] };
  const plan = planOf(large);
  let before = 0;
  for (const hours of [2, 4]) {
    const laid = layOut(large, plan, ON, { hours, beyond: true });
    expect(laid.minutes).toBeLessThanOrEqual(hours * 60);
    const wires = laid.steps.filter((s) => s.kind === 'wire');
    expect(wires.length).toBeGreaterThan(before);
    expect(wires.length).toBeLessThan(plan.runs.length);
    before = wires.length;
    expect(laid.steps.find((s) => s.kind === 'clear')!.minutes).toBe(Math.round(5 + 0.5 * laid.holds.length));
    // Not much of its time is left empty: the next piece would not fit.
    expect(laid.minutes).toBeGreaterThan(0.6 * hours * 60);
    const begun = after(large, { kind: 'session', session: 's1', done: 'begun', holds: laid.holds, leaves: laid.leaves, hours, did: laid.settles });
    const now = running(begun, planOf(begun), ON)!;
    expect(now.open.map((s) => s.key)).toEqual(laid.steps.map((s) => s.key));
    // Bends that have met their wire are settled: on them it may lie a little better.
    expect(Math.abs(now.minutes - laid.minutes)).toBeLessThanOrEqual(2);
  }
});
