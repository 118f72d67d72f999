// The made-up studio "Tidewall Yard": its trees, with plans and records dated from the day they are loaded.
import { readFileSync } from 'node:fs';
import { dayOf, decided, distance, isoOf, placeTree, planTree, searchFronts, stemsOf, watch } from '@ustle/core';
import { readTreeFile } from '@ustle/files';

const read = (name) => {
  const result = readTreeFile(readFileSync(new URL(`./trees/${name}.ustle.json`, import.meta.url), 'utf8'));
  if ('faults' in result) throw new Error(`${name}: ${JSON.stringify(result.faults)}`);
  return result.tree;
};

const withFront = (tree) => {
  const { bearing, pitch, roll } = searchFronts(placeTree(tree)).candidates[0];
  return { ...tree, plan: { ...tree.plan, front: { bearing, pitch, roll } } };
};

/** Decides the findings of the given rules, each by its own act. */
const withDecisions = (tree, onDay, acts) => {
  const { findings } = planTree(tree, onDay, { fronts: false });
  return findings.reduce((t, f) => (acts[f.rule] ? decided(t, f.branch, acts[f.rule], { why: f.because[0] }) : t), tree);
};

/** The pieces that the plan proposes first, for `count` branches or one more. */
const firstPieces = (tree, onDay, count) => {
  const pieces = [];
  for (const run of planTree(tree, onDay, { fronts: false }).runs.filter((r) => r.order === 1)) {
    if (pieces.flatMap((r) => r.branches).length >= count) break;
    pieces.push(run);
  }
  return pieces;
};

/** The studio's rack: rolls by size with the grams that they came with, how long ago, and their price. */
const ROLLS = [
  ['copper', 2.59, 500, 400, 19],
  ['copper', 2.05, 500, 400, 19],
  ['copper', 1.63, 500, 210, 18.5],
  ['copper', 1.29, 250, 210, 9.8],
  ['copper', 1.02, 250, 400, 10.2],
  ['copper', 0.81, 100, 400, 5.4],
  ['aluminium', 4, 500, 300, 14],
  ['aluminium', 3, 500, 300, 14],
  ['aluminium', 2.5, 500, 300, 14],
  ['aluminium', 2, 500, 120, 13.5],
  ['aluminium', 1.5, 100, 120, 4.2],
  ['aluminium', 1, 100, 120, 4.2],
];
const rollOf = (metal, size) => `${metal}-${size.toFixed(2)}`;

/** The lines of the rack's history up to a day. */
export function rack(todayIso) {
  const today = dayOf(todayIso);
  const line = (id, ago, of) => ({ id, on: isoOf(today - ago), ...of });
  const loose = (roll, of) => line(`in-${roll}`, 9, { kind: 'in', roll, form: 'offcut', soft: true, ...of });
  return [
    ...ROLLS.map(([metal, size, grams, ago, price]) =>
      line(`in-${rollOf(metal, size)}`, ago, {
        kind: 'in',
        roll: rollOf(metal, size),
        form: 'roll',
        origin: 'bought',
        metal,
        size,
        grams: grams + 35,
        reel: 35,
        soft: true,
        price,
      }),
    ),
    // Weighed after a winter's work.
    ...[
      ['copper', 2.59, 212.4],
      ['copper', 2.05, 61.3],
      ['copper', 1.02, 118.6],
      ['aluminium', 3, 188.2],
      ['aluminium', 2.5, 402.7],
    ].map(([metal, size, grams]) => line(`weighed-${rollOf(metal, size)}`, 90, { kind: 'weighed', roll: rollOf(metal, size), grams })),
    loose('offcut-1', { origin: 'left-over', metal: 'copper', size: 2.05, length: 640 }),
    loose('offcut-2', { origin: 'left-over', metal: 'copper', size: 1.29, length: 410 }),
    loose('offcut-3', { origin: 'straightened', metal: 'aluminium', size: 2.5, length: 560, soft: false }),
    loose('offcut-4', { origin: 'straightened', metal: 'copper', size: 2.59, length: 720, soft: false }),
  ];
}

/** Puts pieces of wire on, on a day. */
const withWire = (tree, runs, onDay, details = {}) => {
  const entries = runs.flatMap((run) =>
    run.branches.map((part, half) => ({
      on: isoOf(onDay),
      kind: 'wired',
      run: run.id,
      branch: part.branch,
      metal: run.metal,
      size: run.size,
      strands: run.strands,
      angle: run.angle,
      hand: part.hand,
      start: part.start,
      gap: 0,
      wrap: 'none',
      bentDeg: part.bendTo,
      targetDeg: part.target,
      over: part.bendLength,
      ...(half === 0 ? { length: run.length * run.strands, roll: rollOf(run.metal, run.size) } : {}),
      ...details,
    })),
  );
  const planned = runs.map(({ id, metal, size, strands, angle, branches }) => ({
    id,
    metal,
    size,
    strands,
    angle,
    branches: branches.map(({ branch, hand, start }) => ({ branch, hand, start })),
  }));
  return { ...tree, plan: { ...tree.plan, runs: [...tree.plan.runs, ...planned] }, record: [...tree.record, ...entries] };
};

/** A tree as it stands when its wire was put on some day: the latest one from which half its coils as likely as not mark in the coming month, or (in the still season) have marked by now. Whatever the season, something is due. */
const withWireAboutToMark = (wiredOn, today) => {
  const half = (tree, within) => {
    const marks = watch(placeTree(tree), today).map(({ race }) => race.forecast.marking.p50 ?? Infinity);
    return marks.filter(within).length * 2 >= marks.length;
  };
  const latest = (days, within) => {
    for (let ago = 6; ago < 6 + days; ago += 2) {
      const tree = wiredOn(today - ago);
      if (half(tree, within)) return tree;
    }
    return undefined;
  };
  return latest(90, (day) => day >= today && day <= today + 30) ?? latest(500, (day) => day <= today) ?? wiredOn(today - 500);
};

/** The maple wired on five of its branches or so, looked at once since. */
const squallWired = (maple, pieces, since, today) => {
  const wired = withWire(maple, pieces, since);
  const [first] = wired.record;
  return {
    ...wired,
    plan: { ...wired.plan, decisions: wired.branches.map((b) => ({ branch: b.id, act: 'keep' })) },
    record: [
      { on: isoOf(since - 400), kind: 'repotted', text: 'New pot, a third of the roots taken.' },
      ...wired.record,
      { on: isoOf(since + Math.round((today - since) * 0.6)), kind: 'inspected', branch: first.branch, run: first.run, stage: 'touching' },
    ],
  };
};

/** The cypress in the middle of being posed: three branches accepted, one of them half bent, a leggy one made shorter, two poses to choose from. */
const levanterPosed = (cypress, today) => {
  const fromBelow = (t) => t.branches.filter((b) => b.parent === 'trunk').sort((a, b) => a.at - b.at);
  const leggy = fromBelow(cypress)[3].id;
  const bare = { ...cypress, branches: cypress.branches.map((b) => (b.id === leggy ? { ...b, bareTo: 0.72 } : b)) };
  const front = withFront(bare);
  const tree = { ...front, plan: { ...front.plan, posing: { movement: 'lively' }, decisions: front.branches.map((b) => ({ branch: b.id, act: 'keep' })) } };
  const { poses } = planTree(tree, today, { fronts: false });
  const low = fromBelow(tree).flatMap(({ id }) => poses.find((p) => p.branch === id && id !== leggy) ?? []);
  const kept = ({ branch, bearing, elevation, bends }) => ({
    branch,
    bearing,
    elevation,
    bends: bends.map(({ at, length, angle, toward }) => ({ at, angle, toward, over: length })),
  });
  const [first, second, third] = low;
  const { bearing, length } = tree.branches.find((b) => b.id === leggy);
  const [drop] = first.bends;
  return {
    ...tree,
    plan: {
      ...tree.plan,
      poses: [...[first, second, third].map(kept), { branch: leggy, bearing, elevation: 4, reach: Math.round(length * 0.85), arcs: 2, planes: 1, bends: [] }],
      aside: [{ branch: second.branch, bearing: second.bearing, elevation: Math.round(second.elevation) - 12, bends: [] }],
      worse: [{ branch: first.branch, what: [] }],
    },
    record: [
      {
        on: isoOf(today - 1),
        kind: 'bent',
        branch: first.branch,
        at: drop.at,
        over: drop.length,
        bentDeg: Math.round((drop.handDeg ?? drop.angle) / 2),
        targetDeg: drop.angle,
        stage: 1,
        sound: 'bark',
        crack: 'none',
      },
    ],
  };
};

/** The redwoods: two low branches held by ties to the rim beneath them for three years, looked at since, one bark touched under its cushion. */
const inOrder = (lines) => [...lines].sort((a, b) => (a.on < b.on ? -1 : a.on > b.on ? 1 : 0));

/** A past session of work: its steps with the minutes that they were reckoned at and that they took. */
const sessionOf = (session, day, by, steps) => [
  { on: isoOf(day), kind: 'session', session, done: 'begun', by, hours: 3 },
  ...steps.map(([step, title, reckoned, minutes]) => ({ on: isoOf(day), kind: 'worked', session, step, title, answer: 'done', reckoned, minutes, by })),
  { on: isoOf(day), kind: 'session', session, done: 'closed', by },
];

const perseveranceTied = (clump, today) => {
  const since = today - 1090;
  const stems = stemsOf(clump);
  const low = clump.branches.filter((b) => !stems.has(b.id) && (b.parent === 'trunk' || stems.has(b.parent)) && b.state !== 'dead' && b.length > 90);
  const tied = (guys) => ({ ...clump, plan: { ...clump.plan, guys } });
  const tie = ({ id, bearing, length }) => ({
    branch: id,
    at: Math.round(length * 0.62),
    anchor: { kind: 'pot-rim', bearing: (Math.round(bearing / 30) * 30) % 360 },
    wire: 1.2,
    cushion: { kind: 'tube', width: 16 },
  });
  const isClear = (of) => planTree(tied([{ id: 'g1', ...of }]), today, { fronts: false }).guys[0].checks.every((c) => c.ok);
  const ties = [];
  for (const of of low.sort((a, b) => b.d - a.d).map(tie)) {
    if (ties.length < 2 && isClear(of)) ties.push({ id: `g${ties.length + 1}`, ...of });
  }
  const line = (day, of, what) => ({ on: isoOf(day), kind: 'guyed', branch: of.branch, guy: of.id, ...what });
  const taut = planTree(tied(ties), today, { fronts: false }).guys.map(({ from, to }) => Math.round(distance(from, to)));
  return {
    ...tied(ties),
    record: inOrder([
      ...ties.map((of, i) => line(since, of, { done: 'placed', twists: 6, tension: [62, 45][i], cameDeg: [12, 10][i] })),
      ...ties.map((of, i) => line(since + 14, of, { done: 'twisted', twists: 4, tension: [85, 60][i], cameDeg: [22, 17][i], length: taut[i] })),
      line(today - 60, ties[0], { done: 'looked', bark: 'clear' }),
      line(today - 60, ties[1], { done: 'looked', bark: 'touching' }),
      ...sessionOf('tied', since, 'Robin', [
        ['shelter', 'Shelter and tools', 10, 12],
        ['fast', 'Is it fast in its pot?', 4, 9],
        ...ties.map((of) => [`guy:${of.branch}:${of.at}`, 'Tie a branch', 15, 32]),
        ['aftercare', 'Aftercare', 5, 5],
      ]),
      ...sessionOf('let-in', today - 60, 'Ash', [
        ['shelter', 'Shelter and tools', 10, 8],
        ['clear', 'Clear', 28, 45],
        ['clean', 'Undersides clean, tips up', 15, 25],
      ]),
      { on: isoOf(today - 60), kind: 'note', text: 'Buds full on both sides; the left stem lags behind.' },
      {
        id: 'promise-repot',
        on: isoOf(today - 60),
        kind: 'promised',
        what: 'repot',
        from: `${Number(isoOf(today).slice(0, 4)) + 1}-03-05`,
        text: 'A wider pot, and the left stem a little higher.',
      },
    ]),
  };
};

/** The studio's trees as they stand on an ISO date. */
export function studio(todayIso) {
  const today = dayOf(todayIso);

  const larch = withDecisions(withFront(read('lantern')), today, { dead: 'remove', bar: 'remove', hanging: 'remove', blind: 'reserve' });
  const waits = decided(larch, larch.plan.decisions.find((d) => d.act === 'reserve').branch, 'reserve', { until: isoOf(today + 190) });
  const lantern = withWire({ ...waits, repottedOn: isoOf(today - 620) }, firstPieces(waits, today - 24, 3), today - 24);

  const maple = withFront(read('squall'));
  const pieces = firstPieces(maple, today - 60, 5);
  const squall = withWireAboutToMark((since) => squallWired(maple, pieces, since, today), today);

  const gannet = withDecisions(withFront({ ...read('gannet'), client: 'The net loft' }), today, { bar: 'remove', hanging: 'remove' });

  const levanter = levanterPosed(read('levanter'), today);

  return [lantern, squall, read('old-ferry'), gannet, levanter, withFront(read('marigold')), perseveranceTied(withFront(read('perseverance')), today)];
}
