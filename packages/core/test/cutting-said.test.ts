import { consequencesOf, dayOf, findingsOf, placeTree, proposeSessions, readTree, type Intent, type Tree } from '../src/index.js';
import { maple } from './maple.js';
import { after, branch, listed, tree } from './trees.js';

test('what a session costs and when it is better is said part by part', () => {
  const read = (t: Tree, day: string): string[] => {
    const r = readTree(t, dayOf(day), { heavyBends: 2, wiredShare: 0.5 }, { heavyBends: 3, wiredShare: 1 });
    return [
      `${r.verdict} ${r.capacity.toFixed(2)}, used ${r.used.toFixed(2)}, if all ${r.ifAll.toFixed(2)}`,
      ...r.because,
      ...r.uses.map((u) => `${u.work} ${u.points.toFixed(2)}: ${JSON.stringify(u)}`),
    ];
  };
  const cut = after(maple({ styledOn: '2025-03-01', repottedOn: '2026-03-01' }), { kind: 'decide', branch: 'low', act: 'remove' });
  expect(
    listed({
      'in spring, repotted lately': read(cut, '2026-05-20'),
      'in late winter': read(maple(), '2027-02-10'),
      'collected last year': read(maple({ collectedOn: '2025-10-01', vigour: 'weak' }), '2026-10-10'),
      'worked last week': read(after(maple(), { kind: 'styled', on: '2026-10-03' } as Intent), '2026-10-10'),
      'very strong, in the south': read(maple({ vigour: 'strong', site: { hemisphere: 'south' } }), '2026-10-10'),
    }),
  ).toMatchInlineSnapshot(`
   [
     "in spring, repotted lately: leave 0.22, used 1.25, if all 1.65",
     "in spring, repotted lately: Normal growth.",
     "in spring, repotted lately: Repotted on 1 March 2026: its roots are still taking hold.",
     "in spring, repotted lately: May is not the best month for structural work on trident maple.",
     "in spring, repotted lately: The plan asks for more than this: leave part of it for the next session.",
     "in spring, repotted lately: green 0.60: {"work":"green","points":0.6,"text":"30% of the green now, of 50%"}",
     "in spring, repotted lately: heavy bends 0.50: {"work":"heavy bends","points":0.5,"text":"2 heavy bends"}",
     "in spring, repotted lately: wiring 0.15: {"work":"wiring","points":0.15,"text":"50% of the branches wired"}",
     "in late winter: go 0.63, used 0.65, if all 1.05",
     "in late winter: Normal growth.",
     "in late winter: Trident maple bleeds when cut before it is in leaf: cut after leafing, or late in summer.",
     "in late winter: The plan asks for more than this: leave part of it for the next session.",
     "in late winter: heavy bends 0.50: {"work":"heavy bends","points":0.5,"text":"2 heavy bends"}",
     "in late winter: wiring 0.15: {"work":"wiring","points":0.15,"text":"50% of the branches wired"}",
     "collected last year: leave 0.04, used 0.65, if all 1.05",
     "collected last year: Weak growth.",
     "collected last year: Collected on 1 October 2025: leave it to root.",
     "collected last year: October is not the best month for structural work on trident maple.",
     "collected last year: The plan asks for more than this: leave part of it for the next session.",
     "collected last year: heavy bends 0.50: {"work":"heavy bends","points":0.5,"text":"2 heavy bends"}",
     "collected last year: wiring 0.15: {"work":"wiring","points":0.15,"text":"50% of the branches wired"}",
     "worked last week: light 0.43, used 0.65, if all 1.05",
     "worked last week: Normal growth.",
     "worked last week: Styled on 3 October 2026: let it answer first.",
     "worked last week: October is not the best month for structural work on trident maple.",
     "worked last week: The plan asks for more than this: leave part of it for the next session.",
     "worked last week: heavy bends 0.50: {"work":"heavy bends","points":0.5,"text":"2 heavy bends"}",
     "worked last week: wiring 0.15: {"work":"wiring","points":0.15,"text":"50% of the branches wired"}",
     "very strong, in the south: go 0.77, used 0.65, if all 1.05",
     "very strong, in the south: Strong growth.",
     "very strong, in the south: Trident maple bleeds when cut before it is in leaf: cut after leafing, or late in summer.",
     "very strong, in the south: heavy bends 0.50: {"work":"heavy bends","points":0.5,"text":"2 heavy bends"}",
     "very strong, in the south: wiring 0.15: {"work":"wiring","points":0.15,"text":"50% of the branches wired"}",
   ]
  `);
});

test('cuts that are too many for one session are spread over days that the tree bears', () => {
  const greens = [0, 0.1, 0.12, 0.18, 0.2, 0.34];
  const many = after(
    tree(
      greens.map((green, i) => branch(`c${i}`, { at: 100 + i * 80, bearing: i * 70, green, ...(green ? {} : { state: 'dead' }) })),
      { species: 'spruce' },
    ),
    ...greens.map((_, i): Intent => ({ kind: 'decide', branch: `c${i}`, act: 'remove' })),
  );
  const spread = (t: Tree, on: string, room = 1, bears: (t: Tree, day: number) => boolean = () => true): string[] =>
    proposeSessions(t, dayOf(on), room, (id) => (id === 'c4' ? 3 : 0), bears)?.map(
      (x) => `${x.session} on ${x.on}: ${x.branches.join()}, ${x.green.toFixed(3)}. ${x.because}`,
    ) ?? ['at once'];
  expect(
    listed({
      'a strong one': spread(many, '2026-03-10'),
      'little room today': spread(many, '2026-03-10', 0.3),
      'nothing today': spread(many, '2026-03-10', 0),
      'cut before': spread(after(many, { kind: 'take-off', on: '2026-01-10', branches: ['c3'] }), '2026-03-10'),
      'strong from a day on': spread(many, '2026-03-10', 1, (_, day) => day >= dayOf('2027-09-15')),
      'never strong': spread(many, '2026-03-10', 1, () => false),
      'in the south': spread({ ...many, site: { hemisphere: 'south' } }, '2026-03-10'),
      'few enough': spread(after(many, ...['c3', 'c4', 'c5'].map((b): Intent => ({ kind: 'decide', branch: b, act: 'keep' }))), '2026-03-10'),
    }),
  ).toMatchInlineSnapshot(`
   [
     "a strong one: 1 on 2026-03-10: c0,c4,c1, 0.300. What the tree bears now: dead wood, what matters most, what costs least green.",
     "a strong one: 2 on 2027-03-13: c2,c3, 0.300. Rested by then, the twelve months have room for it, and March does not speak against cutting spruce.",
     "a strong one: 3 on 2028-03-15: c5, 0.340. Rested by then, the twelve months have room for it, and March does not speak against cutting spruce.",
     "little room today: 1 on 2026-03-10: c0, 0.000. What the tree bears now: dead wood, what matters most, what costs least green.",
     "little room today: 2 on 2026-06-06: c4,c1, 0.300. Rested by then, the twelve months have room for it, and June does not speak against cutting spruce.",
     "little room today: 3 on 2027-06-09: c2,c3, 0.300. Rested by then, the twelve months have room for it, and June does not speak against cutting spruce.",
     "little room today: 4 on 2028-06-11: c5, 0.340. Rested by then, the twelve months have room for it, and June does not speak against cutting spruce.",
     "nothing today: 1 on 2026-03-10: c0, 0.000. What the tree bears now: dead wood, what matters most, what costs least green.",
     "nothing today: 2 on 2026-06-06: c4,c1, 0.300. Rested by then, the twelve months have room for it, and June does not speak against cutting spruce.",
     "nothing today: 3 on 2027-06-09: c2,c3, 0.300. Rested by then, the twelve months have room for it, and June does not speak against cutting spruce.",
     "nothing today: 4 on 2028-06-11: c5, 0.340. Rested by then, the twelve months have room for it, and June does not speak against cutting spruce.",
     "cut before: 1 on 2026-03-10: c0, 0.000. What the tree bears now: dead wood, what matters most, what costs least green.",
     "cut before: 2 on 2027-01-16: c4, 0.244. Rested by then, the twelve months have room for it, and January does not speak against cutting spruce.",
     "cut before: 3 on 2028-01-19: c1,c2, 0.268. Rested by then, the twelve months have room for it, and January does not speak against cutting spruce.",
     "cut before: 4 on 2029-01-21: c5, 0.415. Rested by then, the twelve months have room for it, and January does not speak against cutting spruce.",
     "strong from a day on: 1 on 2026-03-10: c0,c4,c1, 0.300. What the tree bears now: dead wood, what matters most, what costs least green.",
     "strong from a day on: 2 on 2027-09-18: c2,c3, 0.300. Rested by then, the twelve months have room for it, and September does not speak against cutting spruce.",
     "strong from a day on: 3 on 2028-09-20: c5, 0.340. Rested by then, the twelve months have room for it, and September does not speak against cutting spruce.",
     "never strong: 1 on 2026-03-10: c0,c4,c1, 0.300. What the tree bears now: dead wood, what matters most, what costs least green.",
     "never strong: 2 on null: c2,c3,c5, 0.300. No day within three years on which this tree would bear it: think again about some of it.",
     "in the south: 1 on 2026-03-10: c0,c4,c1, 0.300. What the tree bears now: dead wood, what matters most, what costs least green.",
     "in the south: 2 on 2027-03-13: c2,c3, 0.300. Rested by then, the twelve months have room for it, and March does not speak against cutting spruce.",
     "in the south: 3 on 2028-03-15: c5, 0.340. Rested by then, the twelve months have room for it, and March does not speak against cutting spruce.",
     "few enough: at once",
   ]
  `);
});

test('what follows from the cuts is said: before and after, losses, sessions, care', () => {
  const t = after(
    maple({ features: [{ kind: 'live vein', bearing: 80, z: [20, 100], good: true, weight: 1 }] }),
    { kind: 'decide', branch: 'low', act: 'remove' },
    { kind: 'decide', branch: 'right', act: 'shorten', length: 90 },
    { kind: 'decide', branch: 'back', act: 'stub', length: 25, stub: 'jin' },
  );
  const { losses, care, cuts, before, after: then, green } = consequencesOf(t, dayOf('2026-03-10'));
  expect(
    listed({
      losses: losses.map((l) => `${l.branch} ${l.kind}: ${l.text}`),
      people: care.people,
      wounds: care.wounds,
      cuts: cuts.map(
        ({ tag, branch: b, where, what, along, widthMm, green: g }) =>
          `${tag} ${b}: ${where}; ${what} ${along.join()} ${widthMm.toFixed(1)} mm, ${g.toFixed(3)}`,
      ),
      before: Object.entries(before).map(([k, v]) => `${k} ${typeof v === 'number' ? v.toFixed(3) : JSON.stringify(v)}`),
      after: Object.entries(then).map(([k, v]) => `${k} ${typeof v === 'number' ? v.toFixed(3) : JSON.stringify(v)}`),
      green: green.sessions.map((s) => `${s.session}: ${s.removed.toFixed(3)} of ${green.cap}`),
      found: findingsOf(placeTree(t), null).map((f) => `${f.branch} ${f.rule}: ${f.against.join(' | ')}`),
    }),
  ).toMatchInlineSnapshot(`
   [
     "losses: low green: it carries 30% of the green.",
     "losses: low gap: nothing else stands to this side at its height.",
     "losses: low vein: it is the last living branch on the live vein at 80°.",
     "losses: back back: it is the only back branch.",
     "losses: back gap: nothing else stands to this side at its height.",
     "people: Cutters and saws: keep the other hand behind the blade, and wear eye protection. Hold the branch that comes off.",
     "wounds: Trident maple bleeds when cut before it is in leaf. Wait until after leafing, or late summer: June, July, August, September.",
     "wounds: Cut flush and a little hollow with a sharp blade, so that the bark rolls over without a swelling.",
     "wounds: Close cuts over 8 mm with wound paste; look at its label.",
     "cuts: 1 low: 120 mm up the trunk, towards 9 o'clock (80°); Cut off at the trunk. twig 12.0 mm, 0.300",
     "cuts: 2 right: 260 mm up the trunk, towards 3 o'clock (280°); Shorten to 90 mm.  6.8 mm, 0.183",
     "cuts: 3 back: 380 mm up the trunk, towards 12 o'clock (180°); Cut to 25 mm and leave the stub for a jin.  7.4 mm, 0.150",
     "before: score 0.739",
     "before: trunkInSight 0.998",
     "before: backBranch true",
     "after: score 0.702",
     "after: trunkInSight 1.000",
     "after: backBranch false",
     "green: 1: 0.633 of 0.5",
   ]
  `);
});
