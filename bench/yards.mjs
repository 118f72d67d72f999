// Made-up gardens that live for years by the schedule: with a growth, a weather and eyes of their own, which the forecasts do not know.
import {
  dayOf,
  dueDay,
  gatherRounds,
  generateTree,
  growingDays,
  heldShare,
  isoOf,
  lookFrom,
  MARK_LIMIT,
  placeTree,
  planTree,
  seeded,
  speciesOf,
  stageAt,
  stageStarts,
  toleranceOf,
  unwiringOf,
  watch,
} from '@ustle/core';

const KINDS = ['larch', 'maple-trident', 'olive', 'juniper-scale', 'pine-two-needle', 'hornbeam', 'azalea', 'spruce', 'elm', 'apple'];
const VIGOURS = ['weak', 'normal', 'normal', 'strong', 'refined'];
const X = { weak: 0.5, normal: 1, strong: 1.5, free: 1.8, refined: 0.3 };
const START = dayOf('2026-02-20');
export const YEARS = 5;
export const GARDEN = 10;
const FORTNIGHT = 14;
const DORMANT_ROUND = 28;
const MOST_COILS = 4;

const DAY_OF_YEAR = (day) => (day - dayOf(`${isoOf(day).slice(0, 4)}-01-01`)) / 365;
const gauss = (random) => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());

/** Gompertz growth over the year about the middle of the species' season; each year early or late, rich or poor. */
function truthOf(tree, random) {
  const species = speciesOf(tree.species);
  const flushes = species.flushes.map((f) => {
    const [from, to] = [f.from, f.to].map((d) => DAY_OF_YEAR(dayOf(`2001-${d}`)));
    return { middle: from + 0.38 * (to - from), wide: (to - from) / 5.5, share: f.share };
  });
  const years = new Map();
  const yearOf = (y) => {
    if (!years.has(y)) years.set(y, { late: (8 * gauss(random)) / 365, rich: Math.exp(0.12 * gauss(random)) });
    return years.get(y);
  };
  const cumulated = (day) => {
    const y = Number(isoOf(day).slice(0, 4));
    const { late } = yearOf(y);
    const gompertz = (t, f) => Math.exp(-Math.exp(-(t - f.middle - late) / f.wide));
    return flushes.reduce((sum, f) => sum + f.share * ((gompertz(DAY_OF_YEAR(day), f) - gompertz(0, f)) / (gompertz(1, f) - gompertz(0, f))), 0);
  };
  const grownBetween = (a, b) => {
    let sum = 0;
    for (let y = Number(isoOf(a).slice(0, 4)); y <= Number(isoOf(b).slice(0, 4)); y++) {
      const from = Math.max(a, dayOf(`${y}-01-01`));
      const to = Math.min(b, dayOf(`${y}-12-31`));
      if (to > from) sum += yearOf(y).rich * (cumulated(to) - cumulated(from));
    }
    return sum;
  };
  const half = 0.35 / Math.SQRT2;
  const own = half * gauss(random);
  const branches = new Map(tree.branches.map((b) => [b.id, Math.exp(own + half * gauss(random))]));
  return {
    /** mm of radius, straight wood. */
    grown: (branch, from, to) => species.yearlyGrowth.value * X[tree.vigour] * branches.get(branch) * grownBetween(from, to),
    markLimit: MARK_LIMIT[species.bark] * Math.exp(0.1 * gauss(random)),
    spring: Math.exp(0.15 * gauss(random)),
    relax: Math.exp(0.1 * gauss(random)),
  };
}

/** The wire that the plan puts on each branch, as lines of the record. */
function wiredBy(tree, day, past) {
  const wiring = past === null ? [] : tree.branches.map((b) => ({ branch: b.id, past }));
  const { runs } = planTree({ ...tree, plan: { ...tree.plan, wiring } }, day, { fronts: false });
  return runs.flatMap((run) =>
    run.branches
      .filter((b) => b.branch !== 'trunk')
      .map((b) => ({
        kind: 'wired', run: run.id, branch: b.branch, metal: run.metal, size: run.size, strands: run.strands, angle: run.angle,
        gap: b.gap ?? 0, wrap: 'none', bentDeg: b.bendTo, targetDeg: b.target, over: b.bendLength, turns: b.turns,
      })),
  ); // prettier-ignore
}

const RANK = ['clear', 'touching', 'marking', 'deep', 'swallowed'];

/** The first day of the next month that is good for wiring a tree's kind, two weeks on at least. */
function nextGoodMonth({ species }, day) {
  const { good } = speciesOf(species).months.wiring;
  for (let d = day + 14; ; d++) if (isoOf(d).endsWith('-01') && good.includes(Number(isoOf(d).slice(5, 7)))) return d;
}

/** One garden through its years; `how` says what of the schedule is used. */
function live(trees, seed, how) {
  const tally = { wires: 0, deep: 0, tender: 0, tenderMarked: 0, windows: 0, inWindow: 0, beforeSet: 0, looks: 0, walks: 0 };
  const yard = trees.map((tree, i) => {
    const random = seeded(seed * 100 + i);
    return {
      tree,
      truth: truthOf(tree, random),
      eyes: seeded(seed * 100 + i + 50),
      open: new Map(),
      again: [],
      wires: wiredBy(tree, START, how.past),
      year: i % 2,
    };
  });
  const known = (t) => (how.learn ? t.tree : { ...t.tree, plan: { ...t.tree.plan, learnFrom: '2099-01-01' } });
  // What is watched on a tree changes with its record; a day more changes nothing before a look is due.
  const kept = new WeakMap();
  const watchedOf = (t, day) => {
    if (!kept.has(t.tree)) kept.set(t.tree, watch(placeTree(known(t)), day));
    return kept.get(t.tree);
  };
  const putOn = (t, line, day, coils) => {
    t.tree = { ...t.tree, record: [...t.tree.record, { ...line, on: isoOf(day), id: `${t.tree.record.length}` }] };
    const now = watchedOf(t, day).find((w) => w.coil.branch === line.branch);
    t.open.set(line.branch, { line, since: day, coils, window: now.race.window });
    tally.wires++;
    if (now.race.window) tally.windows++;
  };
  const swell = (t, w) => w.state.factor / (w.state.straight?.factor ?? w.state.factor);
  const embedding = (t, w, day) => t.truth.grown(w.coil.branch, w.coil.since, day) * swell(t, w) - w.coil.gap;
  const startsOf = (t, w) => stageStarts(t.truth.markLimit, w.coil.size);
  const holds = (t, w, day) => {
    const { state } = w;
    if (!state.bend) return false;
    const held = heldShare({
      diameter: state.diameter,
      curvature: state.bend.wired,
      recoverable: Math.min(state.bend.wired, state.bend.stored * t.truth.spring),
      growingDays: growingDays(state.species, 'north', w.coil.since, day) * t.truth.relax,
      relaxedShare: state.species.relaxedShare.value,
      relaxationDays: state.species.relaxationDays.value,
      radialGrowth: t.truth.grown(w.coil.branch, w.coil.since, day) * swell(t, w),
    });
    return held;
  };
  const takeOff = (t, w, day) => {
    const true_ = stageAt(embedding(t, w, day), startsOf(t, w));
    const { window, coils, line } = t.open.get(w.coil.branch);
    const held = holds(t, w, day);
    const isSet = held * w.state.bend.wired >= 0.9 * w.state.bend.target;
    if (RANK.indexOf(true_) >= 3) tally.deep++;
    if (toleranceOf(t.tree) === 'none') {
      tally.tender++;
      if (RANK.indexOf(true_) >= 2) tally.tenderMarked++;
    }
    if (window) {
      if (isSet) tally.inWindow += RANK.indexOf(true_) < (toleranceOf(t.tree) === 'none' ? 2 : 3) ? 1 : 0;
      else tally.beforeSet++;
    }
    const heldDeg = Math.max(0, ((held * w.state.bend.wired * w.coil.over * 180) / Math.PI) * Math.exp(0.05 * gauss(t.eyes)));
    t.tree = {
      ...t.tree,
      record: [...t.tree.record, { kind: 'unwired', on: isoOf(day), branch: w.coil.branch, run: w.coil.run, heldDeg, id: `${t.tree.record.length}` }],
    };
    t.open.delete(w.coil.branch);
    if (!isSet && coils < MOST_COILS) t.again.push({ line, coils: coils + 1, on: nextGoodMonth(t.tree, day) });
  };
  const look = (t, branch, day) => {
    const before = watchedOf(t, day).find((w) => w.coil.branch === branch);
    tally.looks++;
    const stage = stageAt(embedding(t, before, day) + 0.06 * gauss(t.eyes), startsOf(t, before));
    t.tree = {
      ...t.tree,
      record: [...t.tree.record, { kind: 'inspected', on: isoOf(day), branch, run: before.coil.run, stage, id: `${t.tree.record.length}` }],
    };
    const w = watchedOf(t, day).find((x) => x.coil.branch === branch);
    if (how.fixed ? RANK.indexOf(stage) >= 2 : unwiringOf(w, day).take !== 'none') takeOff(t, w, day);
  };
  // Each tree is wired afresh every second year, in late winter, where no wire is on: its new growth is shaped in turn.
  const wireAfresh = (day) => {
    for (const t of yard.filter((x) => START + x.year * 365 <= day)) {
      t.year += 2;
      for (const line of t.wires.filter((l) => !t.open.has(l.branch))) putOn(t, { ...line, run: `${line.run}.${t.year}` }, day, 1);
    }
  };
  // What did not hold is wired again in the next month that is good for wiring its kind.
  const wireAgain = (day) => {
    for (const t of yard) {
      for (const { line, coils } of t.again.filter((a) => a.on <= day)) if (!t.open.has(line.branch)) putOn(t, line, day, coils);
      t.again = t.again.filter((a) => a.on > day);
    }
  };
  const end = START + YEARS * 365;
  for (let day = START; day < end;) {
    const next = (from) => Math.min(...yard.flatMap((t) => [START + t.year * 365, ...t.again.map((a) => a.on)]).filter((d) => d > from));
    wireAfresh(day);
    wireAgain(day);
    const due = yard.flatMap((t) => watchedOf(t, day).map((w) => ({ t, branch: w.coil.branch, last: Math.max(day, dueDay(w, day)), ...lookFrom(w, day) })));
    if (how.fixed) {
      tally.walks++;
      for (const l of due) look(l.t, l.branch, day);
      const month = Number(isoOf(day).slice(5, 7));
      day += month >= 4 && month <= 9 ? FORTNIGHT : DORMANT_ROUND;
      continue;
    }
    const [round] = gatherRounds(due, day);
    if (!round || round.day > next(day)) {
      day = next(day);
      continue;
    }
    if (round.day >= end) break;
    tally.walks++;
    for (const l of round.looks) look(l.t, l.branch, round.day);
    day = round.day + 1;
  }
  return tally;
}

/** Gardens of so many trees each, ten where nothing is said: how the years went. */
export function gardens(count, how, size = GARDEN) {
  const sum = {};
  for (let g = 0; g < count / size; g++) {
    const random = seeded(g + 1);
    const trees = Array.from({ length: size }, (_, i) => {
      const species = KINDS[(g * 3 + i) % KINDS.length];
      const tree = generateTree({
        seed: g * 50 + i,
        name: `t${i}`,
        species,
        height: 300 + 250 * random(),
        base: 25 + 30 * random(),
        primaries: 4,
        secondaries: 0,
      });
      return { ...tree, vigour: VIGOURS[Math.floor(random() * VIGOURS.length)] };
    });
    const tally = live(trees, g + 1, how);
    for (const [key, value] of Object.entries(tally)) sum[key] = (sum[key] ?? 0) + value;
  }
  return sum;
}

export const WAYS = {
  'by the schedule': { learn: true, past: null, fixed: false },
  'without learning': { learn: false, past: null, fixed: false },
  'settling on the target': { learn: true, past: 0, fixed: false },
  'a fixed round': { learn: true, past: null, fixed: true },
};
