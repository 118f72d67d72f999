import fc from 'fast-check';
import { consequencesOf, dayOf, greenTally, proposeSessions, type Intent, type Tree } from '../src/index.js';
import { maple } from './maple.js';
import { after, branch, tree } from './trees.js';

const THIS_DAY = '2026-03-10';
/** A spruce with a branch of each share of the green, all of them to go; no green is dead wood. */
const toCut = (greens: readonly number[], own: Partial<Tree> = {}): Tree =>
  after(
    tree(
      greens.map((green, i) => branch(`c${i}`, { at: 100 + i * 40, bearing: i * 70, green, ...(green ? {} : { state: 'dead' }) })),
      { species: 'spruce', ...own },
    ),
    ...greens.map((_, i): Intent => ({ kind: 'decide', branch: `c${i}`, act: 'remove' })),
  );

test('cuts that are too many for one session are spread over days that the tree bears: each once, in its order, rested, within the twelve months', () => {
  const greens = fc
    .array(fc.constantFrom<number[]>(0, 0.05, 0.1, 0.12, 0.18, 0.34), { minLength: 1, maxLength: 6 })
    .filter((all) => all.reduce((a, b) => a + b, 0) < 1);
  fc.assert(
    fc.property(greens, fc.constantFrom(0, 0.3, 1), fc.nat(6), fc.constantFrom('north', 'south'), fc.nat(900), (all, room, heavy, hemisphere, strong) => {
      const t = toCut(all, { site: { hemisphere } });
      const start = dayOf(THIS_DAY);
      const { cap } = greenTally(t);
      const green = (ids: readonly string[]): number => ids.reduce((sum, id) => sum + all[Number(id.slice(1))]!, 0);
      const sessions = proposeSessions(
        t,
        start,
        room,
        (id) => (id === `c${heavy}` ? 3 : 0),
        (_, day) => day >= start + strong,
      );
      const ids = all.map((_, i) => `c${i}`);
      if (!sessions) return void expect(green(ids)).toBeLessThanOrEqual(room * cap + 1e-6);

      expect(sessions.flatMap((s) => s.branches).sort()).toEqual(ids);
      expect(sessions.map((s) => s.session)).toEqual(sessions.map((_, i) => i + 1));
      expect(sessions[0]!.on).toBe(THIS_DAY);
      expect(sessions[0]!.branches).toEqual(expect.arrayContaining(ids.filter((_, i) => !all[i])));
      expect(green(sessions[0]!.branches)).toBeLessThanOrEqual(room * cap + 1e-6);
      sessions.slice(1).forEach((s, i) => {
        if (s.on === null) return expect(s.because).toContain('think again');
        const [day, last] = [dayOf(s.on), dayOf(sessions[i]!.on!)];
        expect(day).toBeGreaterThanOrEqual(Math.max(last + 60, start + strong));
        const inYear = sessions.filter((o) => o.on && dayOf(o.on) > day - 365 && dayOf(o.on) <= day).reduce((sum, o) => sum + green(o.branches), 0);
        expect(inYear <= cap + 1e-6 || (s.branches.length === 1 && inYear === green(s.branches))).toBe(true);
        expect(s.green).toBeCloseTo(green(s.branches), 9);
      });
      // What matters most comes before all else that is alive, as soon as a session has room for it.
      const roomy = sessions.find((s) => s.session > 1 || green([`c${heavy}`]) <= room * cap);
      if (heavy < all.length && all[heavy] && roomy?.on) expect(roomy.branches.find((id) => all[Number(id.slice(1))])).toBe(`c${heavy}`);
    }),
  );
});

test('what was cut in the last twelve months is counted with what goes now', () => {
  const all = [0, 0.1, 0.12, 0.18, 0.2, 0.34];
  const spread = (t: Tree) =>
    proposeSessions(
      t,
      dayOf(THIS_DAY),
      1,
      () => 0,
      () => true,
    )!;
  const before = after(toCut(all), { kind: 'take-off', on: '2026-01-10', branches: ['c3'] });
  expect(spread(toCut(all))[0]!.branches.length).toBeGreaterThan(1);
  expect(spread(before)[0]!.branches).toEqual(['c0']);
  expect(spread(before)[1]!.on! > '2027-01-10').toBe(true);
});

test('what follows from the cuts is said: before and after, losses, sessions, care', () => {
  const t = after(
    maple({ features: [{ kind: 'live vein', bearing: 80, z: [20, 100], good: true, weight: 1 }] }),
    { kind: 'decide', branch: 'low', act: 'remove' },
    { kind: 'decide', branch: 'right', act: 'shorten', length: 90 },
    { kind: 'decide', branch: 'back', act: 'stub', length: 25, stub: 'jin' },
  );
  const { losses, care, cuts, before, after: then, green } = consequencesOf(t, dayOf(THIS_DAY));
  expect(losses.map((l) => `${l.branch} ${l.kind}`)).toEqual(['low green', 'low gap', 'low vein', 'back back', 'back gap']);
  expect(losses.find((l) => l.kind === 'green')!.text).toContain('30%');
  expect(losses.find((l) => l.kind === 'vein')!.text).toContain('80°');
  expect([before.backBranch, then.backBranch]).toEqual([true, false]);
  expect(then.trunkInSight).toBeGreaterThanOrEqual(before.trunkInSight!);

  // From below, each where it is and what is done there; of a length of 200 mm bare to 80, what is cut at 90 takes 110 of 120 mm of green.
  expect(cuts.map((c) => [c.tag, c.branch, c.along.join()])).toEqual([
    [1, 'low', 'twig'],
    [2, 'right', ''],
    [3, 'back', ''],
  ]);
  expect(cuts.map((c) => c.where)).toEqual(
    ['120', '260', '380'].map((mm) => expect.stringMatching(new RegExp(`^${mm} mm up the trunk, towards \\d+ o'clock`))),
  );
  expect(cuts.map((c) => c.what)).toEqual([
    expect.stringMatching(/^Cut off/),
    expect.stringMatching(/^Shorten to 90 mm/),
    expect.stringMatching(/^Cut to 25 mm.*jin/),
  ]);
  const expected = [0.3, (0.2 * 110) / 120, 0.15];
  cuts.forEach((c, i) => expect(c.green).toBeCloseTo(expected[i]!, 3));
  cuts.forEach((c, i) => expect(c.widthMm).toBeCloseTo([12, 10 - (7 * 90) / 200, 8 - (5 * 25) / 200][i]!, 0));
  expect(green.sessions.map((s) => s.session)).toEqual([1]);
  expect(green.sessions[0]!.removed).toBeCloseTo(
    expected.reduce((a, b) => a + b),
    3,
  );

  expect(care.people.join(' ')).toMatch(/eye protection/);
  // A maple bleeds in March; the widest of these wounds is 12 mm.
  expect(care.wounds.join(' ')).toMatch(/bleeds.*after leafing.*Cut flush.*paste; look at its label/s);
});
