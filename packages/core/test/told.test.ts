import {
  dayOf,
  frontEvidence,
  gapMap,
  generateTree,
  isoOf,
  judgeFront,
  outcomeOf,
  PARTS,
  placeTree,
  plantingAngle,
  planTree,
  searchFronts,
  watch,
  WEIGHT_PROFILES,
  type Intent,
  type Tree,
  type Vec,
  type View,
} from '../src/index.js';
import { after, branch, listed, tree } from './trees.js';

const at = (p: Vec): string => p.map((x) => Math.round(x)).join(' ');

/** A bent trunk with roots, a scar and a shari, and branches of which one comes at the eye from 90°. */
const pine = (): Tree =>
  tree(
    [
      branch('low', { at: 110, bearing: 200, elevation: -5, length: 260, d: 14, tipD: 4, green: 0.2, bareTo: 0.3 }),
      branch('twig', { parent: 'low', at: 150, bearing: 150, elevation: 20, length: 110, d: 5, tipD: 2, green: 0.1 }),
      branch('spear', { at: 230, bearing: 92, elevation: 4, length: 240, d: 12, tipD: 4, green: 0.15 }),
      branch('back', { at: 330, bearing: 300, elevation: 15, length: 180, d: 9, tipD: 3, green: 0.15 }),
      branch('dead', { at: 380, bearing: 30, elevation: 10, length: 120, d: 7, tipD: 2, state: 'dead', green: 0 }),
      branch('top', { at: 520, bearing: 150, elevation: 35, length: 110, d: 6, tipD: 2, green: 0.15 }),
    ],
    {
      species: 'pine-two-needle',
      trunk: [[0, 0, 0, 52], [18, 30, 120, 40], [-14, 52, 240, 33], [10, 30, 360, 25], [2, -6, 470, 17], [12, -14, 580, 8]].map(([x, y, z, d]) => ({ x: x!, y: y!, z: z!, d: d! })), // prettier-ignore
      roots: [
        { bearing: 0, length: 70, d: 16 },
        { bearing: 95, length: 50, d: 18 },
        { bearing: 190, length: 90, d: 14 },
      ],
      features: [
        { kind: 'shari', bearing: 100, z: [40, 160], good: true, weight: 2 },
        { kind: 'saw scar', bearing: 250, z: [200, 220], good: false, weight: 1 },
      ],
    },
  );

test('a tree is judged so from four sides: each part, its reason, what hides and what is drawn', () => {
  const placed = placeTree(pine());
  const judged = (view: View): string[] => {
    const f = judgeFront(placed, view);
    return [
      `score ${f.score.toFixed(4)}, wedge ${f.wedge.toFixed(1)}, leading ${f.leading.join()}, at the eye ${f.atEye.join()}`,
      ...PARTS.map((p) => `${p} ${f.parts[p].toFixed(3)}: ${f.because[p]}`),
      `hiding ${f.hiding.map((h) => `${h.branch} ${h.share.toFixed(3)} from ${h.from.toFixed(2)} to ${h.to.toFixed(2)}`).join(', ')}`,
      ...PARTS.map((p) => {
        const { lines, words } = frontEvidence(placed, f, p);
        return `draws ${p}: ${lines.map((l) => `${l.length} from ${at(l[0]!)} to ${at(l[l.length - 1]!)}`).join('; ')} | ${words.map((w) => `${w.text} at ${at(w.at)}`).join('; ')}`;
      }),
    ];
  };
  expect(
    listed({
      'from 90°': judged({ bearing: 90, pitch: 0, roll: 0 }),
      'from 200°, leaning to the viewer': judged({ bearing: 200, pitch: 10, roll: -5 }),
      'from 300°': judged({ bearing: 300, pitch: -5, roll: 5 }),
    }),
  ).toMatchInlineSnapshot(`
   [
     "from 90°: score 0.6790, wedge 0.0, leading low,back, at the eye spear",
     "from 90°: base 0.745: 210 mm wide of at most 211; a root points at you",
     "from 90°: movement 0.240: an S: left, right, turning 39° in all; coming and going 67°; 51% of its height is one straight run",
     "from 90°: trunkInSight 0.909: 91% of the lower two thirds",
     "from 90°: apex 1.000: leans 1° to you",
     "from 90°: eye 0.472: first left (12 mm) points at you",
     "from 90°: firstBranch 0.621: first back goes left, 20° back; first right behind",
     "from 90°: features 0.985: shari shown, saw scar hidden",
     "from 90°: greenKept 0.850: 15% of the green must move or go",
     "from 90°: hiding spear 0.091 from 0.57 to 0.69, dead 0.001 from 0.95 to 0.95",
     "from 90°: draws base: 2 from 0 -114 0 to 0 96 0; 2 from 0 -114 -8 to 0 -114 16; 2 from 0 96 -8 to 0 96 16 | 210 mm at 0 96 0",
     "from 90°: draws movement: 31 from 0 0 0 to 12 -14 580 | ",
     "from 90°: draws trunkInSight: 5 from 0 0 0 to 8 22 385; 2 from 2 48 221 to 241 40 237 | 1 L hides 9% at 145 43 231",
     "from 90°: draws apex: 2 from 8 21 387 to 12 -14 580; 2 from 8 21 387 to 8 21 580 | apex at 12 -14 580",
     "from 90°: draws eye: 2 from 2 48 221 to 241 40 237 | 1 L at you at 145 43 231",
     "from 90°: draws firstBranch: 2 from 12 15 105 to -77 -229 82; 2 from -6 42 318 to -156 129 365 | 1 back at -42 -131 91; 1 R at -96 94 346",
     "from 90°: draws features: 2 from 30 6 40 to 26 34 160; 2 from -20 39 200 to -25 42 220 | shari at 36 21 100; saw scar at -22 41 210",
     "from 90°: draws greenKept: 2 from 2 48 221 to 241 40 237 | 1 L at you at 145 43 231",
     "from 200°, leaning to the viewer: score 0.4588, wedge 56.2, leading low, at the eye low",
     "from 200°, leaning to the viewer: base 0.279: 106 mm wide of at most 211; a root points at you",
     "from 200°, leaning to the viewer: movement 0.294: 3 bends: left, right, left, turning 62° in all; coming and going 44°; 41% of its height is one straight run",
     "from 200°, leaning to the viewer: trunkInSight 0.817: 82% of the lower two thirds",
     "from 200°, leaning to the viewer: apex 0.878: leans 19° to you",
     "from 200°, leaning to the viewer: eye 0.605: first back (14 mm) points at you",
     "from 200°, leaning to the viewer: firstBranch 0.000: first back comes at you; no back branch",
     "from 200°, leaning to the viewer: features 0.335: shari hidden, saw scar shown",
     "from 200°, leaning to the viewer: greenKept 0.700: 30% of the green must move or go",
     "from 200°, leaning to the viewer: hiding low 0.183 from 0.10 to 0.27",
     "from 200°, leaning to the viewer: draws base: 2 from -31 11 0 to 69 -25 0; 2 from -31 11 -8 to -31 11 16; 2 from 69 -25 -8 to 69 -25 16 | 106 mm at 69 -25 0",
     "from 200°, leaning to the viewer: draws movement: 31 from 0 0 0 to 12 -14 580 | ",
     "from 200°, leaning to the viewer: draws trunkInSight: 5 from 0 0 0 to 8 22 385; 2 from 12 15 105 to -77 -229 82 | 1 back hides 18% at -42 -131 91",
     "from 200°, leaning to the viewer: draws apex: 2 from 8 21 387 to 12 -14 580; 2 from 8 21 387 to 8 21 580 | apex at 12 -14 580",
     "from 200°, leaning to the viewer: draws eye: 2 from 12 15 105 to -77 -229 82 | 1 back at you at -42 -131 91",
     "from 200°, leaning to the viewer: draws firstBranch: 2 from 12 15 105 to -77 -229 82 | 1 back at -42 -131 91",
     "from 200°, leaning to the viewer: draws features: 2 from 30 6 40 to 26 34 160; 2 from -20 39 200 to -25 42 220 | shari at 36 21 100; saw scar at -22 41 210",
     "from 200°, leaning to the viewer: draws greenKept: 2 from 12 15 105 to -77 -229 82 | 1 back at you at -42 -131 91",
     "from 300°: score 0.6188, wedge 30.5, leading low,spear, at the eye back",
     "from 300°: base 0.910: 192 mm wide of at most 211",
     "from 300°: movement 0.298: an S: right, left, turning 46° in all; coming and going 60°; 33% of its height is one straight run",
     "from 300°: trunkInSight 0.930: 93% of the lower two thirds",
     "from 300°: apex 0.544: leans 11° away",
     "from 300°: eye 0.886: first right (9 mm) points at you",
     "from 300°: firstBranch 0.729: first back goes right, 10° back; first left behind",
     "from 300°: features 0.080: shari hidden, saw scar shown",
     "from 300°: greenKept 0.850: 15% of the green must move or go",
     "from 300°: hiding back 0.070 from 0.83 to 1.00",
     "from 300°: draws base: 2 from 42 72 0 to -55 -94 0; 2 from 42 72 -8 to 42 72 16; 2 from -55 -94 -8 to -55 -94 16 | 192 mm at -55 -94 0",
     "from 300°: draws movement: 31 from 0 0 0 to 12 -14 580 | ",
     "from 300°: draws trunkInSight: 5 from 0 0 0 to 8 22 385; 2 from -6 42 318 to -156 129 365 | 1 R hides 7% at -96 94 346",
     "from 300°: draws apex: 2 from 8 21 387 to 12 -14 580; 2 from 8 21 387 to 8 21 580 | apex at 12 -14 580",
     "from 300°: draws eye: 2 from -6 42 318 to -156 129 365 | 1 R at you at -96 94 346",
     "from 300°: draws firstBranch: 2 from 12 15 105 to -77 -229 82; 2 from 2 48 221 to 241 40 237 | 1 back at -42 -131 91; 1 L at 145 43 231",
     "from 300°: draws features: 2 from 30 6 40 to 26 34 160; 2 from -20 39 200 to -25 42 220 | shari at 36 21 100; saw scar at -22 41 210",
     "from 300°: draws greenKept: 2 from -6 42 318 to -156 129 365 | 1 R at you at -96 94 346",
   ]
  `);
});

test('and the best fronts are these, by each set of weights', () => {
  const found = Object.entries(WEIGHT_PROFILES).map(([name, weights]) => {
    const { candidates } = searchFronts(placeTree(pine()), { step: 10, pitches: [-10, 0, 10], rolls: [0, 10], weights });
    return `${name}: ${candidates.map((c) => `${c.bearing}° ${c.pitch}/${c.roll} ${c.score.toFixed(3)}`).join(', ')}`;
  });
  expect(found).toMatchInlineSnapshot(`
   [
     "slender tree: 120° 0/0 0.830, 70° 0/0 0.750, 280° 0/0 0.711, 170° 0/0 0.699, 320° 10/0 0.644",
     "heavy trunk: 120° 0/0 0.874, 70° 0/0 0.803, 280° 0/0 0.748, 320° 10/0 0.666",
     "cascade: 120° 0/0 0.761, 70° 0/0 0.715, 170° 0/0 0.694, 280° 0/0 0.650, 0° 0/0 0.646",
     "clump: 120° 0/0 0.892, 70° 0/0 0.818, 270° 0/0 0.778, 320° 10/0 0.703",
     "twin trunks: 120° 0/0 0.877, 70° 0/0 0.809, 280° 0/0 0.777, 320° 10/0 0.715",
   ]
  `);
});

test('a planting angle turns each branch so, and leads these astray', () => {
  const { branches, ...pot } = plantingAngle(placeTree(pine()), { bearing: 90, pitch: 15, roll: 10 });
  expect([
    `${pot.tiltDeg.toFixed(2)}° wedge ${pot.wedge.toFixed(1)} rise ${pot.rootBallRise.toFixed(2)}`,
    ...branches.map(
      (b) =>
        `${b.branch}: ${b.before.bearing.toFixed(0)}/${b.before.elevation.toFixed(1)}° to ${b.after.bearing.toFixed(0)}/${b.after.elevation.toFixed(1)}°, meant ${b.meant.toFixed(1)}° ${b.astray ?? ''}`,
    ),
  ]).toMatchInlineSnapshot(`
   [
     "17.96° wedge 96.8 rise 41.44",
     "low: 200/-5.0° to 201/9.6°, meant -20.5° rises",
     "spear: 92/4.0° to 94/-10.5°, meant -10.5° ",
     "back: 300/15.0° to 307/22.1°, meant -2.1° rises",
     "top: 150/35.0° to 139/34.4°, meant 13.7° ",
   ]
  `);
});

test('what a cut opens is found where it is, with who could fill it', () => {
  const before = after(
    pine(),
    { kind: 'front', front: { bearing: 110, pitch: 0, roll: 0 } },
    { kind: 'decide', branch: 'back', act: 'remove' },
    { kind: 'decide', branch: 'low', act: 'remove' },
  );
  const gaps = gapMap(placeTree(before), placeTree(outcomeOf(before).tree), before.plan.front!);
  expect(
    gaps.map((g) => [
      `${g.seen}${g.opened ? ', opened' : ''}: ${g.radius.toFixed(1)} mm round ${at(g.center)}`,
      ...g.fills.map((f) => `${f.branch} ${f.reaches} ${f.shortBy.toFixed(1)} ${f.turnDeg.toFixed(1)}: ${f.because}`),
    ]),
  ).toMatchInlineSnapshot(`
   [
     [
       "front, opened: 133.5 mm round -6 -17 370",
       "spear false 39.7 42.3: 40 mm short",
       "top false 38.4 100.3: 38 mm short",
     ],
     [
       "front, opened: 101.9 mm round -40 -111 193",
       "spear false 41.6 54.5: 42 mm short",
       "top false 223.9 103.1: 224 mm short",
     ],
     [
       "above, opened: 78.6 mm round -42 -153 290",
       "top false 52.6 44.0: 53 mm short",
       "spear false 0.0 99.9: long enough, but would have to turn by 100°, which is too far",
     ],
     [
       "above, opened: 68.7 mm round -95 76 290",
       "top false 37.4 116.9: 37 mm short",
       "spear false 0.0 160.6: long enough, but would have to turn by 161°, which is too far",
     ],
     [
       "above: 44.0 mm round 116 -56 290",
       "spear true 0.0 40.2: reaches it, turned by 40°",
       "top false 24.5 32.7: 24 mm short",
     ],
   ]
  `);
});

const coil = (branchId: string, on: string, own: object = {}): Intent =>
  ({
    kind: 'wired',
    on,
    branch: branchId,
    metal: 'copper',
    size: 3,
    strands: 1,
    angle: 50,
    hand: 'cw',
    start: 'over',
    gap: 0,
    wrap: 'none',
    bentDeg: 45,
    targetDeg: 40,
    over: 90,
    ...own,
  }) as Intent;

test('coils run these races: what is expected of the wood, when it touches, marks, holds, what to do', () => {
  const worn = after(
    pine(),
    coil('low', '2026-03-01', { size: 4, targetDeg: 30 }),
    coil('twig', '2026-03-01', { size: 1.6, wrap: 'raffia', bentDeg: 60, targetDeg: 40 }),
    coil('spear', '2026-04-01', { strands: 2, metal: 'aluminium', size: 4, targetDeg: 25 }),
    coil('back', '2025-09-01', { gap: 1.5, over: undefined, targetDeg: 30 }),
    coil('top', '2026-05-01', { bentDeg: undefined, targetDeg: undefined, over: undefined, size: 2 }),
    { kind: 'inspected', on: '2026-06-01', branch: 'low', stage: 'clear' },
    { kind: 'inspected', on: '2026-07-15', branch: 'twig', stage: 'marking' },
    { kind: 'inspected', on: '2026-07-15', branch: 'back', stage: 'touching' },
  );
  const day = (d: number | null): string => (d === null ? 'never' : isoOf(d));
  const races = (t: Tree): string[] =>
    watch(placeTree(t), dayOf('2026-07-20')).map(({ coil: c, state: s, race: r, lastSeen, nextInspection }) => {
      const { touching, marking, deep, set, setSure, deepRisk, firstTouch } = r.forecast;
      const bend = s.bend && `${s.bend.wired.toFixed(5)} of ${s.bend.target.toFixed(5)}, stored ${s.bend.stored.toFixed(5)}`;
      const dates = [touching, marking, deep, set].map((x) => [x.p10, x.p50, x.p90].map(day).join(' ')).join(' | ');
      return `${c.branch}: factor ${s.factor.toFixed(3)}, holds ${bend}; ${dates} | sure ${day(setSure)} deep ${day(deepRisk)} touch ${day(firstTouch)}; seen ${lastSeen?.stage}, look ${day(nextInspection)}; ${r.advice} by ${day(r.limit)} ${r.window ? `${day(r.window.from)} to ${day(r.window.to)}` : ''}: ${r.because.join(' ')}`;
    });
  expect(races(worn)).toMatchInlineSnapshot(`
   [
     "spear: factor 1.235, holds 0.00873 of 0.00485, stored 0.00630; 2026-04-21 2026-04-26 2026-05-04 | 2026-05-12 2026-05-30 2026-08-28 | 2026-08-18 2027-05-17 2028-05-07 | 2026-04-17 2026-05-07 2026-05-29 | sure 2026-05-19 deep 2026-06-22 touch 2026-04-23; seen undefined, look 2026-04-23; remove-now by 2026-06-22 2026-05-19 to 2026-06-22: Set, and since 22 June 2026 it may mark deeply.",
     "top: factor 1.200, holds null; 2026-05-08 2026-05-12 2026-05-19 | 2026-05-29 2026-06-30 2027-04-27 | 2026-06-07 2026-08-30 2027-05-15 | never never never | sure never deep 2026-06-01 touch 2026-05-09; seen undefined, look 2026-05-15; rewire by 2026-06-01 : It may mark deeply from 1 June 2026: cut it off before that, and wire again if it does not hold. No bend is noted for this coil, so only marking is forecast. Note the angle to know when it holds.",
     "low: factor 1.288, holds 0.00703 of 0.00582, stored 0.00414; 2026-06-02 2026-06-02 2026-06-02 | 2026-06-02 2026-06-15 2027-04-29 | 2027-04-19 2027-06-29 2028-08-28 | 2026-05-27 2026-08-05 2027-04-29 | sure 2026-09-29 deep 2026-08-29 touch 2026-06-02; seen clear, look 2026-07-13; rewire by 2026-08-29 : It may mark deeply from 29 August 2026 and holds by 29 September 2026: cut it off before it does and wire again, 2 coils in all.",
     "twig: factor 0.761, holds 0.01164 of 0.00776, stored 0.01092; 2026-04-26 2026-05-01 2026-05-07 | 2026-05-28 2026-06-25 2026-07-15 | 2026-07-16 2026-09-05 2027-05-13 | 2026-05-05 2026-05-16 2026-05-30 | sure 2026-05-25 deep 2026-07-16 touch 2026-04-27; seen marking, look 2026-07-18; remove-now by 2026-07-16 2026-05-25 to 2026-07-16: Set, and since 16 July 2026 it may mark deeply. It marks; on this bark a shallow mark grows out in about 2 years.",
     "back: factor 1.275, holds 0.00798 of 0.00989, stored 0.00265; 2026-05-24 2026-06-18 2026-07-15 | 2026-07-16 2027-04-09 2027-05-19 | 2026-08-30 2027-05-11 2027-08-23 | never never never | sure never deep 2026-08-14 touch 2026-05-30; seen touching, look 2026-08-12; guy by 2026-08-14 : It may mark deeply from 14 August 2026 but would not hold within fifteen years: once the shape is in, let a guy hold it. The length of its bend was not noted: 53 mm are taken.",
   ]
  `);
  expect(races({ ...worn, vigour: 'weak', species: 'maple-trident', site: { hemisphere: 'south' } })).toMatchInlineSnapshot(`
   [
     "spear: factor 0.705, holds 0.00718 of 0.00485, stored 0.00424; 2026-10-19 2026-10-21 2026-10-25 | 2026-10-28 2026-11-04 2026-11-14 | 2027-02-21 2027-11-19 2028-11-12 | 2026-10-19 2026-11-05 2026-11-23 | sure 2026-11-14 deep 2027-02-08 touch 2026-10-19; seen undefined, look 2026-06-14; rewire by 2026-10-28 : It may mark from 28 October 2026 and holds by 14 November 2026: cut it off before it does and wire again, 2 coils in all.",
     "back: factor 0.642, holds 0.00340 of 0.00582, stored 0.00143; 2026-02-02 2026-03-10 2026-07-15 | 2026-07-16 2026-10-25 2026-12-01 | 2026-11-11 2027-02-17 2027-12-02 | never never never | sure never deep 2026-11-02 touch 2026-02-11; seen touching, look 2026-07-18; guy by 2026-07-16 : It may mark from 16 July 2026 but would not hold within fifteen years: once the shape is in, let a guy hold it. The length of its bend was not noted: 90 mm are taken.",
     "twig: factor 0.403, holds 0.00918 of 0.00776, stored 0.00797; 2026-03-12 2026-03-28 2026-07-15 | 2026-07-15 2026-07-15 2026-07-15 | 2026-11-25 2027-02-21 2027-11-30 | 2026-11-06 2026-11-24 2027-01-26 | sure 2026-12-18 deep 2026-11-18 touch 2026-03-14; seen marking, look 2026-07-18; remove-now by 2026-07-15 : It was seen marking. Cut off the turns that mark, across the wire, without unwinding; the rest may stay.",
     "top: factor 0.600, holds null; 2026-10-19 2026-10-22 2026-10-26 | 2026-10-30 2026-11-07 2026-11-20 | 2026-11-29 2027-02-18 2027-11-16 | never never never | sure never deep 2026-11-22 touch 2026-10-20; seen undefined, look 2026-07-24; wait by 2026-10-30 : No bend is noted for this coil, so only marking is forecast. Note the angle to know when it holds.",
     "low: factor 0.750, holds 0.00608 of 0.00582, stored 0.00266; 2026-06-02 2026-06-02 2026-06-02 | 2026-10-21 2026-10-29 2026-11-08 | 2027-02-22 2027-11-19 2028-11-11 | 2026-11-19 2027-01-16 2027-03-06 | sure 2027-02-15 deep 2027-02-08 touch 2026-06-02; seen clear, look 2026-08-24; rewire by 2026-10-21 : It may mark from 21 October 2026 and holds by 15 February 2027: cut it off before it does and wire again, 2 coils in all.",
   ]
  `);
});

test('the plan of a made-up tree says this of its poses and its wire', () => {
  const made = generateTree({ seed: 3, name: 'Told', species: 'juniper-scale', height: 420, base: 40, primaries: 4, secondaries: 1 });
  const plan = planTree(
    after(made, { kind: 'front', front: { bearing: 10, pitch: 0, roll: 0 } }, { kind: 'decide', branch: 'b3', act: 'remove' }),
    dayOf('2026-03-10'),
    { fronts: false },
  );
  expect(
    listed({
      poses: plan.poses.map((p) => JSON.stringify(p)),
      runs: plan.runs.map((r) => JSON.stringify(r)),
      unwired: plan.unwired.map((u) => JSON.stringify(u)),
      order: [plan.order.join(' ')],
      notes: plan.notes,
    }),
  ).toMatchInlineSnapshot(`
   [
     "poses: {"branch":"b1","bearing":65.2,"elevation":-17.5,"from":"first","reach":208,"now":{"bearing":65.2,"elevation":8.2},"because":["The first branch; it comes to the side and a little forward as it grows.","On juniper, scale leaf, branches at 24% of the height lie near -18°.","It grows at 8°."],"bends":[{"kind":"drop","at":7,"length":41,"angle":37,"toward":{"bearing":88,"elevation":-24.7},"start":{"bearing":82.9,"elevation":11.9},"diameter":11.5,"radius":63,"strain":0.091,"risk":0.6,"band":"careful","stages":2,"protection":"none","nearest":null,"rest":"10 minutes","restMinutes":10,"dates":[],"handDeg":46.9,"settlesDeg":40.7,"spreadDeg":6.5},{"kind":"movement","at":54,"length":30,"angle":7,"toward":{"bearing":63.9,"elevation":-25.6},"start":{"bearing":70.9,"elevation":-28.7},"diameter":9.6,"radius":246,"strain":0.019,"risk":0.12,"band":"calm","stages":1,"protection":"none","nearest":null,"rest":"","restMinutes":0,"dates":[],"handDeg":7.7,"settlesDeg":7.7,"spreadDeg":0},{"kind":"movement","at":96,"length":30,"angle":11.6,"toward":{"bearing":78.3,"elevation":-36.8},"start":{"bearing":65.1,"elevation":-32.6},"diameter":8.1,"radius":148,"strain":0.027,"risk":0.16,"band":"calm","stages":1,"protection":"none","nearest":null,"rest":"","restMinutes":0,"dates":[],"handDeg":12.8,"settlesDeg":12.8,"spreadDeg":0},{"kind":"movement","at":138,"length":30,"angle":11.6,"toward":{"bearing":46.6,"elevation":-22.3},"start":{"bearing":57.9,"elevation":-27.6},"diameter":6.6,"radius":148,"strain":0.022,"risk":0.13,"band":"calm","stages":1,"protection":"none","nearest":null,"rest":"","restMinutes":0,"dates":[],"handDeg":12.8,"settlesDeg":12.8,"spreadDeg":0},{"kind":"tip","at":174,"length":37,"angle":33,"toward":{"bearing":48.7,"elevation":18},"start":{"bearing":48.7,"elevation":-15},"diameter":5.3,"radius":64,"strain":0.041,"risk":0.25,"band":"calm","stages":1,"protection":"none","nearest":null,"rest":"","restMinutes":0,"dates":[],"handDeg":36.3,"settlesDeg":36.3,"spreadDeg":0}],"woodAsked":false,"bending":null}",
     "poses: {"branch":"b5","bearing":13.2,"elevation":5,"from":"habit","reach":104,"now":{"bearing":13.2,"elevation":42.7},"because":["On juniper, scale leaf, branches at 69% of the height lie near 5°.","It grows at 43°."],"bends":[{"kind":"drop","at":3,"length":25,"angle":49.3,"toward":{"bearing":17,"elevation":-16.8},"start":{"bearing":14.6,"elevation":32.5},"diameter":5.8,"radius":29,"strain":0.1,"risk":0.6,"band":"calm","stages":2,"protection":"none","nearest":null,"rest":"5 minutes","restMinutes":5,"dates":[],"handDeg":68.3,"settlesDeg":59.2,"spreadDeg":9.2},{"kind":"movement","at":31,"length":13,"angle":7.5,"toward":{"bearing":0.3,"elevation":-0.1},"start":{"bearing":7.1,"elevation":-3.3},"diameter":4.7,"radius":99,"strain":0.024,"risk":0.14,"band":"calm","stages":1,"protection":"none","nearest":null,"rest":"","restMinutes":0,"dates":[],"handDeg":9,"settlesDeg":9,"spreadDeg":0},{"kind":"movement","at":50,"length":14,"angle":12.5,"toward":{"bearing":16.9,"elevation":1.1},"start":{"bearing":5.6,"elevation":6.5},"diameter":4,"radius":64,"strain":0.031,"risk":0.19,"band":"calm","stages":1,"protection":"none","nearest":null,"rest":"","restMinutes":0,"dates":[],"handDeg":15,"settlesDeg":15,"spreadDeg":0},{"kind":"movement","at":69,"length":14,"angle":12.5,"toward":{"bearing":12.9,"elevation":-2.7},"start":{"bearing":24.2,"elevation":-8.1},"diameter":3.3,"radius":64,"strain":0.026,"risk":0.15,"band":"calm","stages":1,"protection":"none","nearest":null,"rest":"","restMinutes":0,"dates":[],"handDeg":15,"settlesDeg":15,"spreadDeg":0},{"kind":"tip","at":86,"length":18,"angle":30.6,"toward":{"bearing":9.8,"elevation":21},"start":{"bearing":9.8,"elevation":-9.7},"diameter":2.7,"radius":34,"strain":0.04,"risk":0.24,"band":"calm","stages":1,"protection":"none","nearest":null,"rest":"","restMinutes":0,"dates":[],"handDeg":36.7,"settlesDeg":36.7,"spreadDeg":0}],"woodAsked":false,"bending":null}",
     "poses: {"branch":"b7","bearing":159.5,"elevation":15,"from":"habit","reach":61,"now":{"bearing":159.5,"elevation":25.4},"because":["On juniper, scale leaf, branches at 89% of the height lie near 15°.","It grows at 25°."],"bends":[{"kind":"drop","at":2,"length":6,"angle":15.8,"toward":{"bearing":161.8,"elevation":15.1},"start":{"bearing":158.3,"elevation":30.5},"diameter":3.8,"radius":22,"strain":0.087,"risk":0.52,"band":"calm","stages":2,"protection":"none","nearest":null,"rest":"5 minutes","restMinutes":5,"dates":[],"handDeg":22.8,"settlesDeg":19,"spreadDeg":3.1},{"kind":"movement","at":10,"length":10,"angle":8.9,"toward":{"bearing":153.2,"elevation":18.7},"start":{"bearing":161.8,"elevation":15},"diameter":3.4,"radius":64,"strain":0.026,"risk":0.16,"band":"calm","stages":1,"protection":"none","nearest":null,"rest":"","restMinutes":0,"dates":[],"handDeg":10.7,"settlesDeg":10.7,"spreadDeg":1.3},{"kind":"movement","at":24,"length":9,"angle":14.9,"toward":{"bearing":173.8,"elevation":1.7},"start":{"bearing":160.5,"elevation":8.2},"diameter":2.8,"radius":35,"strain":0.04,"risk":0.24,"band":"calm","stages":1,"protection":"none","nearest":null,"rest":"","restMinutes":0,"dates":[],"handDeg":17.9,"settlesDeg":17.9,"spreadDeg":0},{"kind":"movement","at":38,"length":9,"angle":14.9,"toward":{"bearing":151.1,"elevation":18.1},"start":{"bearing":165.3,"elevation":12.2},"diameter":2.2,"radius":35,"strain":0.032,"risk":0.19,"band":"calm","stages":1,"protection":"none","nearest":null,"rest":"","restMinutes":0,"dates":[],"handDeg":17.9,"settlesDeg":17.9,"spreadDeg":0},{"kind":"tip","at":49,"length":11,"angle":22.3,"toward":{"bearing":152.7,"elevation":31.1},"start":{"bearing":152.8,"elevation":8.7},"diameter":1.7,"radius":28,"strain":0.031,"risk":0.18,"band":"calm","stages":1,"protection":"none","nearest":null,"rest":"","restMinutes":0,"dates":[],"handDeg":26.8,"settlesDeg":26.8,"spreadDeg":0}],"woodAsked":false,"bending":null}",
     "poses: {"branch":"b2","bearing":114.8,"elevation":-2.7,"from":"fan","reach":86,"now":{"bearing":133.7,"elevation":-18.2},"because":["Fanned flat to the right of its branch, 50° from it."],"bends":[{"kind":"drop","at":3,"length":10,"angle":26.4,"toward":{"bearing":107.5,"elevation":-16.1},"start":{"bearing":130.1,"elevation":-32.9},"diameter":4.5,"radius":22,"strain":0.104,"risk":0.62,"band":"careful","stages":2,"protection":"none","nearest":null,"rest":"5 minutes","restMinutes":5,"dates":[],"handDeg":34.4,"settlesDeg":30.4,"spreadDeg":4.4},{"kind":"movement","at":17,"length":20,"angle":7.7,"toward":{"bearing":100.3,"elevation":-12.8},"start":{"bearing":107.5,"elevation":-16.1},"diameter":3.9,"radius":149,"strain":0.013,"risk":0.08,"band":"calm","stages":1,"protection":"none","nearest":null,"rest":"","restMinutes":0,"dates":[],"handDeg":8.9,"settlesDeg":8.9,"spreadDeg":0},{"kind":"movement","at":46,"length":20,"angle":12.8,"toward":{"bearing":123.2,"elevation":3.4},"start":{"bearing":111.6,"elevation":9},"diameter":2.9,"radius":90,"strain":0.016,"risk":0.1,"band":"calm","stages":1,"protection":"none","nearest":null,"rest":"","restMinutes":0,"dates":[],"handDeg":14.7,"settlesDeg":14.7,"spreadDeg":0},{"kind":"tip","at":71,"length":15,"angle":7,"toward":{"bearing":108.9,"elevation":8},"start":{"bearing":108.8,"elevation":0.9},"diameter":2,"radius":123,"strain":0.008,"risk":0.05,"band":"calm","stages":1,"protection":"none","nearest":null,"rest":"","restMinutes":0,"dates":[],"handDeg":8.1,"settlesDeg":8,"spreadDeg":0}],"woodAsked":false,"bending":null}",
     "poses: {"branch":"b6","bearing":62.8,"elevation":8.6,"from":"fan","reach":42,"now":{"bearing":24.4,"elevation":34.3},"because":["Fanned flat to the right of its branch, 50° from it."],"bends":[{"kind":"drop","at":1,"length":10,"angle":51.6,"toward":{"bearing":74.4,"elevation":-5.7},"start":{"bearing":32.9,"elevation":26.7},"diameter":2.3,"radius":11,"strain":0.104,"risk":0.62,"band":"careful","stages":2,"protection":"none","nearest":null,"rest":"5 minutes","restMinutes":5,"dates":[],"handDeg":65.8,"settlesDeg":56.8,"spreadDeg":9.1},{"kind":"movement","at":13,"length":8,"angle":11.6,"toward":{"bearing":57.9,"elevation":11.1},"start":{"bearing":68.6,"elevation":6.4},"diameter":1.9,"radius":40,"strain":0.024,"risk":0.14,"band":"calm","stages":1,"protection":"none","nearest":null,"rest":"","restMinutes":0,"dates":[],"handDeg":12.8,"settlesDeg":12.8,"spreadDeg":0},{"kind":"movement","at":24,"length":8,"angle":19.3,"toward":{"bearing":73.8,"elevation":2.4},"start":{"bearing":56.3,"elevation":10.9},"diameter":1.6,"radius":24,"strain":0.033,"risk":0.2,"band":"calm","stages":1,"protection":"none","nearest":null,"rest":"","restMinutes":0,"dates":[],"handDeg":21.2,"settlesDeg":21.2,"spreadDeg":0},{"kind":"tip","at":34,"length":7,"angle":6.4,"toward":{"bearing":71.2,"elevation":8},"start":{"bearing":71.2,"elevation":1.7},"diameter":1.3,"radius":63,"strain":0.01,"risk":0.06,"band":"calm","stages":1,"protection":"none","nearest":null,"rest":"","restMinutes":0,"dates":[],"handDeg":7,"settlesDeg":7,"spreadDeg":0}],"woodAsked":false,"bending":null}",
     "runs: {"id":"w1","kind":"single","metal":"copper","size":3.26,"gauge":8,"strands":1,"angle":45,"length":561,"mass":42,"order":1,"route":{"side":"front","length":237,"turnDeg":720,"hidden":false},"anchor":{"run":null,"turns":2},"branches":[{"branch":"b1","onFrom":null,"hand":"cw","start":"over","gap":0,"from":0,"to":205.5,"turns":4.4,"hold":3687,"springBack":0.132,"firmness":{"pushChance":0.88,"overbend":1.15},"phaseMissDeg":57,"rule":{"aluminium":3.8,"copper":2.9},"bendTo":46.9,"settles":40.7,"target":37,"bendLength":41,"bends":[{"bendTo":46.9,"settles":40.7,"spread":6.5,"missDeg":2},{"bendTo":7.7,"settles":7.7,"spread":0,"missDeg":57},{"bendTo":12.8,"settles":12.8,"spread":0,"missDeg":2},{"bendTo":12.8,"settles":12.8,"spread":0,"missDeg":2},{"bendTo":36.3,"settles":36.3,"spread":0,"missDeg":1}],"tied":false,"because":["Bend to 47°; under the wire it settles at 41°, and it stays near 37° when that comes off in its time.","By the rules of thumb: aluminium 3.8 mm (a third), copper 2.9 mm (a quarter)."]}],"because":[]}",
     "runs: {"id":"w2","kind":"single","metal":"copper","size":1.63,"gauge":14,"strands":1,"angle":45,"length":301,"mass":5.6,"order":1,"route":{"side":"front","length":127,"turnDeg":720,"hidden":false},"anchor":{"run":null,"turns":2},"branches":[{"branch":"b5","onFrom":null,"hand":"cw","start":"over","gap":0,"from":0,"to":112,"turns":5,"hold":461,"springBack":0.134,"firmness":{"pushChance":0.87,"overbend":1.15},"phaseMissDeg":69,"rule":{"aluminium":1.9,"copper":1.5},"bendTo":68.3,"settles":59.2,"target":49.3,"bendLength":25,"bends":[{"bendTo":68.3,"settles":59.2,"spread":9.2,"missDeg":30},{"bendTo":9,"settles":9,"spread":0,"missDeg":1},{"bendTo":15,"settles":15,"spread":0,"missDeg":69},{"bendTo":15,"settles":15,"spread":0,"missDeg":24},{"bendTo":36.7,"settles":36.7,"spread":0,"missDeg":54}],"tied":false,"because":["Bend to 68°; under the wire it settles at 59°, and it stays near 49° when that comes off in its time.","By the rules of thumb: aluminium 1.9 mm (a third), copper 1.5 mm (a quarter)."]}],"because":[]}",
     "runs: {"id":"w3","kind":"single","metal":"copper","size":1.02,"gauge":18,"strands":1,"angle":45,"length":175,"mass":1.3,"order":1,"route":{"side":"behind","length":73,"turnDeg":720,"hidden":true},"anchor":{"run":null,"turns":2},"branches":[{"branch":"b7","onFrom":null,"hand":"ccw","start":"over","gap":0,"from":88.3,"to":146.4,"turns":3.9,"hold":118,"springBack":0.169,"firmness":{"pushChance":0.81,"overbend":1.2},"phaseMissDeg":11,"rule":{"aluminium":1.3,"copper":1},"bendTo":22.8,"settles":19,"target":15.8,"bendLength":6,"bends":[{"bendTo":22.8,"settles":19,"spread":3.1,"missDeg":3},{"bendTo":10.7,"settles":10.7,"spread":1.3,"missDeg":11},{"bendTo":17.9,"settles":17.9,"spread":0,"missDeg":3},{"bendTo":17.9,"settles":17.9,"spread":0,"missDeg":2},{"bendTo":26.8,"settles":26.8,"spread":0,"missDeg":0}],"tied":false,"because":["Bend to 23°; under the wire it settles at 19°, and it stays near 16° when that comes off in its time.","By the rules of thumb: aluminium 1.3 mm (a third), copper 1.0 mm (a quarter)."]}],"because":[]}",
     "runs: {"id":"w4","kind":"anchored","metal":"copper","size":1.29,"gauge":16,"strands":1,"angle":45,"length":229,"mass":2.7,"order":2,"route":{"side":"behind","length":87,"turnDeg":720,"hidden":true},"anchor":{"run":"w1","turns":2,"beside":"b1"},"branches":[{"branch":"b2","onFrom":null,"hand":"ccw","start":"under","gap":0,"from":0,"to":95.6,"turns":5.4,"hold":227,"springBack":0.117,"firmness":{"pushChance":0.9,"overbend":1.13},"phaseMissDeg":63,"rule":{"aluminium":1.5,"copper":1.1},"bendTo":34.4,"settles":30.4,"target":26.4,"bendLength":10,"bends":[{"bendTo":34.4,"settles":30.4,"spread":4.4,"missDeg":63},{"bendTo":8.9,"settles":8.9,"spread":0,"missDeg":0},{"bendTo":14.7,"settles":14.7,"spread":0,"missDeg":2},{"bendTo":8.1,"settles":8,"spread":0,"missDeg":2}],"tied":false,"because":["Bend to 34°; under the wire it settles at 30°, and it stays near 26° when that comes off in its time.","By the rules of thumb: aluminium 1.5 mm (a third), copper 1.1 mm (a quarter)."]}],"because":[]}",
     "runs: {"id":"w5","kind":"anchored","metal":"copper","size":0.64,"gauge":22,"strands":1,"angle":45,"length":125,"mass":0.4,"order":2,"route":{"side":"behind","length":54,"turnDeg":720,"hidden":true},"anchor":{"run":"w2","turns":2,"beside":"b5"},"branches":[{"branch":"b6","onFrom":null,"hand":"cw","start":"under","gap":0,"from":64.7,"to":106.1,"turns":4.3,"hold":29,"springBack":0.137,"firmness":{"pushChance":0.87,"overbend":1.16},"phaseMissDeg":2,"rule":{"aluminium":0.8,"copper":0.6},"bendTo":65.8,"settles":56.8,"target":51.6,"bendLength":10,"bends":[{"bendTo":65.8,"settles":56.8,"spread":9.1,"missDeg":2},{"bendTo":12.8,"settles":12.8,"spread":0,"missDeg":2},{"bendTo":21.2,"settles":21.2,"spread":0,"missDeg":2},{"bendTo":7,"settles":7,"spread":0,"missDeg":1}],"tied":false,"because":["Bend to 66°; under the wire it settles at 57°, and it stays near 52° when that comes off in its time.","By the rules of thumb: aluminium 0.8 mm (a third), copper 0.6 mm (a quarter).","Over the shoulder would suit its bend better: no way leads up to it there."]}],"because":[]}",
     "unwired: {"branch":"b8","because":["Too short to bend: cut into shape as it grows."]}",
     "order: w1 w2 w3 w4 w5",
     "notes: Figures for Juniper, scale leaf are estimates for branch wood in pots; the tree's own record corrects them.",
   ]
  `);
});
