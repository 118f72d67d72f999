import { dayOf, isoOf, sayDay } from '../units/index.js';
import { DEVICE_WORDS } from '../guy/index.js';
import type { PlanBend, PlanDocument, PlanGuy, PlanPose, PlanRun } from '../plan/index.js';
import { cutList } from '../removal/index.js';
import { bendingOf, coilsOn, cutsOf, guysOn, namesOf, placeTree, sayBranches, slope, standing, type Names, type PlacedTree, type Tree } from '../tree/index.js';
import { mindingOf } from './minding.js';
import { paceFor, type Pace } from './pace.js';
import type { WorkStep, StepKind } from './step.js';

/** Minutes of a step before anything is known of its artist's own: rules of ours. docs: Hours. */
const MINUTES = {
  clear: (branches: number): number => 5 + 0.5 * branches,
  cut: (widthMm: number): number => 2 + 0.15 * widthMm,
  jin: (widthMm: number): number => 10 + widthMm,
  /** Cutting and anchoring it, each turn of it, and its thickness in the hand. */
  wire: (turns: number, size: number, strands: number): number => 4 + strands * turns * (0.5 + 0.15 * size),
  bend: (diameter: number): number => 2 + 0.4 * diameter,
  guy: 15,
  device: 25,
  place: 2,
};

type Draft = Omit<WorkStep, 'mind' | 'danger' | 'minutes' | 'as' | 'rest' | 'did' | 'branches'> &
  Partial<Pick<WorkStep, 'as' | 'rest' | 'did' | 'branches'>> & { rule: number };

interface Bench {
  tree: Tree;
  placed: PlacedTree;
  plan: PlanDocument;
  onDay: number;
  on: string;
  names: Names;
}

const sizeOf = ({ size, metal, strands }: Pick<PlanRun, 'size' | 'metal' | 'strands'>): string =>
  `${size.toFixed(1)} mm ${metal}${strands > 1 ? `, ${strands} side by side` : ''}`;
const branchesOf = (run: PlanRun): string[] => run.branches.map((b) => b.branch);
const THUMB = { over: 'over the shoulder', under: 'from beneath the shoulder' } as const;
const HAND = { cw: 'clockwise', ccw: 'counter-clockwise' } as const;

function cutSteps({ placed, names, on }: Bench): Draft[] {
  return cutList(placed, 1).flatMap((item): Draft[] => {
    const wood = placed.byId.get(item.branch)!;
    const jin = item.act === 'stub' && !item.what.includes('tie');
    const cut: Draft = {
      key: `cut:${item.branch}`,
      as: item.what,
      kind: 'cut',
      branches: [item.branch, ...item.along],
      title: `Cut ${item.tag}: ${names(item.branch)}`,
      what: [
        item.what,
        `It is ${item.where}, ${item.widthMm.toFixed(0)} mm wide at the cut.`,
        ...(item.along.length ? [`With it go ${sayBranches(names, item.along, 4)}.`] : []),
        ...(item.why ? [item.why] : []),
      ],
      rule: MINUTES.cut(item.widthMm),
      did: [{ kind: 'take-off', on, branches: [item.branch] }],
    };
    return jin ? [cut, jinStep(item.branch, names(item.branch), wood.branch.d)] : [cut];
  });
}

const jinStep = (branch: string, name: string, d: number): Draft => ({
  key: `jin:${branch}`,
  kind: 'jin',
  branches: [branch],
  title: `Deadwood: ${name}`,
  what: ['Peel the stub to the wood, stop at the living collar, break the fibres rather than cut them.'],
  rule: MINUTES.jin(d),
});

/** Stubs cut for deadwood since a day that are still to be peeled. */
const cutForJin = ({ tree, names, placed }: Bench, since: number): Draft[] =>
  cutsOf(tree).flatMap((c) =>
    c.kind === 'shortened' && c.stub === 'jin' && dayOf(c.on) >= since ? [jinStep(c.branch, names(c.branch), placed.byId.get(c.branch)?.branch.d ?? 8)] : [],
  );

function wireSteps({ plan, names, on, tree, onDay }: Bench): Draft[] {
  const worn = new Set(coilsOn(tree, onDay).map((c) => c.branch));
  const open = plan.runs.filter((r) => r.branches.some((b) => !worn.has(b.branch)));
  const inOrder = [...open].sort((a, b) => plan.order.indexOf(a.id) - plan.order.indexOf(b.id));
  return inOrder.map((run): Draft => {
    const branches = branchesOf(run);
    const [first, second] = run.branches.map((b) => ({ branch: b.branch, hand: b.hand, start: b.start, turns: b.turns }));
    const turns = run.branches.reduce((sum, b) => sum + b.turns, 0);
    return {
      key: `wire:${[...branches].sort().join('+')}`,
      kind: 'wire',
      branches,
      title: `Wire ${sayBranches(names, branches, 2)}`,
      what: [
        `${sizeOf(run)}, ${run.length.toFixed(0)} mm${run.strands > 1 ? ' each' : ''}, at ${run.angle}° to the branch.`,
        ...run.branches.map(
          (b) =>
            `${names(b.branch)}: ${THUMB[b.start]}, ${HAND[b.hand]} seen from its parent, ${b.turns.toFixed(1)} turns${b.gap ? `, loose by ${b.gap.toFixed(1)} mm` : ''}.`,
        ),
      ],
      rule: MINUTES.wire(turns, run.size, run.strands),
      of: run.id,
      did: [
        {
          kind: 'wired',
          on,
          metal: run.metal,
          size: run.size,
          strands: run.strands,
          angle: run.angle,
          ...first!,
          ...(second ? { second } : {}),
          gap: Math.max(...run.branches.map((b) => b.gap)),
          anchor: 'good',
          length: run.length * run.strands,
        },
      ],
    };
  });
}

/** Thinner wood (mm) is bent in one go, with care. */
const THIN_MM = 5;
/** The bend of a pose that asks most of its wood. */
const gravest = (pose: PlanPose): PlanBend | undefined => [...pose.bends].sort((a, b) => b.risk - a.risk)[0];
/** A bend that is a step of its own; what is thin is bent as it is placed, however sharply. */
const isHard = (bend: PlanBend): boolean =>
  bend.band !== 'no' && (bend.band !== 'calm' || (bend.stages ?? 1) > 1) && (bend.diameter >= THIN_MM || bend.dates.length > 0);
/** What an artist's own pose asks for; a proposed one may move a little with whatever else is done. */
const asked = (pose: PlanPose): string => (pose.from === 'plan' ? `${Math.round(pose.bearing)}/${Math.round(pose.elevation)}` : '');

const WRAPPED: Record<string, string> = {
  none: '',
  raffia: 'Wrapped with wet raffia.',
  parallel: 'With parallel wires along it.',
  both: 'Wrapped with wet raffia, parallel wires along it.',
};

function bendSteps(
  { names, on, onDay }: Bench,
  branch: string,
  bend: PlanBend,
  pose: { done: number; next: string | null; as: string; told: string[] },
): Draft[] {
  const stages = bend.stages ?? 0;
  const hand = bend.handDeg ?? bend.angle;
  const overDays = bend.dates.length > 0;
  const last = overDays ? pose.done + 1 : stages;
  const due = pose.next === null || dayOf(pose.next) <= onDay;
  if (!due) return [];
  return Array.from({ length: Math.max(0, Math.min(stages, last) - pose.done) }, (_, i): Draft => {
    const stage = pose.done + 1 + i;
    const to = Math.round((hand * stage) / stages);
    return {
      key: `bend:${branch}:${stage}`,
      as: pose.as,
      kind: 'bend',
      branches: [branch],
      title: `Bend ${names(branch)}${stages > 1 ? `, stage ${stage} of ${stages}` : ''}`,
      what: [
        `To ${to}° by hand, spread over ${bend.length.toFixed(0)} mm from ${bend.at.toFixed(0)} mm on${stage === stages && bend.settlesDeg !== null ? `; it settles at about ${bend.settlesDeg.toFixed(0)}°` : ''}.`,
        ...(WRAPPED[bend.protection] ? [WRAPPED[bend.protection]!] : []),
        ...(overDays && bend.dates[1] ? [`Then ${bend.rest} of rest: the next stage from ${sayDay(dayOf(bend.dates[1]!))} on.`] : []),
        ...pose.told,
      ],
      rest: !overDays && stage > 1 ? bend.restMinutes : 0,
      rule: MINUTES.bend(bend.diameter),
      did: [
        {
          kind: 'bent',
          on,
          branch,
          at: bend.at,
          stage,
          bentDeg: to,
          targetDeg: bend.angle,
          over: Math.round(bend.length),
          sound: 'none',
          crack: 'none',
          ...(overDays && bend.dates[1] ? { next: bend.dates[1] } : {}),
        },
      ],
    };
  });
}

/** Whether a branch's wire or tie is on and waits for the branch to be bent or placed as is asked for. */
function awaitsBending(tree: Tree, onDay: number): (branch: string, as: string) => boolean {
  const coils = new Map(coilsOn(tree, onDay).map((c) => [c.branch, c]));
  const ties = new Map(guysOn(tree, onDay).map((g) => [g.branch, g]));
  const steps = standing(tree.record).flatMap((l) => (l.kind === 'worked' ? [l] : []));
  return (branch, as) => {
    const [coil, tie] = [coils.get(branch), ties.get(branch)];
    const from = coil?.since ?? tie?.since;
    if (from === undefined) return false;
    const since = steps.filter((l) => dayOf(l.on) >= from);
    const put = since.some(({ step }) =>
      step.startsWith('wire:') ? step.slice('wire:'.length).split('+').includes(branch) : step.startsWith(`guy:${branch}:`),
    );
    const placed = since.some((l) => l.step === `place:${branch}` && (l.as ?? '') === as);
    return (coil && coil.bentDeg === null) || (put && !placed);
  };
}

/** A branch brought to its pose; what is too thin for a step of its own is bent with it. */
function placeStep({ names, on }: Bench, pose: PlanPose, main: PlanBend | undefined): Draft {
  const { branch, elevation, bearing, reach } = pose;
  const own = main && !isHard(main) ? main : null;
  const hand = (b: PlanBend): number => Math.round(b.handDeg ?? b.angle);
  const rest = pose.bends.filter((b) => b !== main).map((b) => `${hand(b)}° at ${b.at.toFixed(0)} mm`);
  return {
    key: `place:${branch}`,
    as: asked(pose),
    kind: 'place',
    branches: [branch],
    title: `Place ${names(branch)}`,
    what: [
      `Its tip goes to ${Math.abs(elevation).toFixed(0)}° ${elevation < 0 ? 'below' : 'above'} level, towards ${bearing.toFixed(0)}°, ${reach.toFixed(0)} mm from its shoulder.`,
      ...(own ? [`${own.kind === 'drop' ? 'From its shoulder' : 'First'} ${hand(own)}° by hand over ${own.length.toFixed(0)} mm.`] : []),
      ...(rest.length ? [`On its way ${rest.join(', ')}.`] : []),
    ],
    rule: MINUTES.place + pose.bends.length,
    did: own ? [{ kind: 'bent', on, branch, at: own.at, bentDeg: hand(own), targetDeg: own.angle, over: Math.round(own.length) }] : [],
  };
}

/** Bends and placing of branches that are wired or tied in this session, or whose wire is on and waits for it; from the lowest up. */
function posedSteps(bench: Bench, worked: ReadonlySet<string>): { bends: Draft[]; places: Draft[] } {
  const { plan, placed, on, tree, onDay } = bench;
  const awaits = awaitsBending(tree, onDay);
  const isAsked = (branch: string, as = ''): boolean => worked.has(branch) || awaits(branch, as);
  const height = (id: string): number => placed.byId.get(id)?.line.points[0]![2] ?? 0;
  const bends: Draft[] = [];
  const places: Draft[] = [];
  const trunk = plan.trunk?.bends[0];
  if (trunk && isAsked('trunk')) {
    const planned: PlanBend = { ...trunk, rest: '', restMinutes: 20, dates: [], handDeg: null, settlesDeg: null, spreadDeg: null };
    const done = bendingOf(tree, onDay).get('trunk')?.stages ?? 0;
    bends.push(...bendSteps(bench, 'trunk', planned, { done, next: null, as: '', told: [] }));
  }
  for (const pose of plan.poses.filter((p) => isAsked(p.branch, asked(p))).sort((a, b) => height(a.branch) - height(b.branch))) {
    const { done, next, told } = pose.bending ?? { done: 0, next: null, told: [] };
    const cracked = pose.bending !== null && next === null;
    if (cracked) continue;
    const main = gravest(pose);
    const hard = main && isHard(main) ? main : null;
    if (hard) bends.push(...bendSteps(bench, pose.branch, hard, { done, next, as: asked(pose), told }));
    // What is bent over days is placed with its last stage.
    if (!hard || (hard.dates.length <= 1 && (next ?? '') <= on)) places.push(placeStep(bench, pose, main));
  }
  // One stage of every branch before the next of any: the others' work is the rest.
  const stageOf = (d: Draft): number => Number(d.key.slice(d.key.lastIndexOf(':') + 1));
  return {
    bends: bends
      .map((d, i) => ({ d, i }))
      .sort((a, b) => stageOf(a.d) - stageOf(b.d) || a.i - b.i)
      .map(({ d }) => d),
    places,
  };
}

/** Rest that is left of a bend's once the steps between it and its stage before have taken their time. */
function withRests(steps: readonly WorkStep[]): WorkStep[] {
  return steps.map((step, i) => {
    if (!step.rest) return step;
    const before = steps.findIndex((s) => s.kind === 'bend' && s.branches[0] === step.branches[0]);
    if (before < 0 || before >= i) return step;
    const between = steps.slice(before + 1, i).reduce((sum, s) => sum + s.minutes, 0);
    return { ...step, rest: Math.max(0, step.rest - between) };
  });
}

function guyStep({ names, on }: Bench, guy: PlanGuy): Draft[] {
  if (guy.stages === null) return [];
  const first = guy.stages > 1 ? Math.max(1, Math.round(guy.windlassTurns / guy.stages)) : Math.round(guy.windlassTurns);
  return [
    {
      key: `guy:${guy.branch}:${Math.round(guy.at)}`,
      kind: 'guy',
      branches: [guy.branch],
      title: `Tie ${names(guy.branch)}`,
      what: [
        `${guy.wire.toFixed(1)} mm copper, doubled${guy.rounds > 1 ? `, laid ${guy.rounds} times` : ''}: ${guy.wireLength.toFixed(0)} mm. At ${guy.at.toFixed(0)} mm of the branch, ${guy.cushion.kind} of ${guy.cushion.width.toFixed(0)} mm under it.`,
        `To the ${guy.anchor.kind.replace('-', ' ')}. Draw ${guy.byHand.toFixed(0)} mm in by hand, then ${first} twists today${guy.stages > 1 ? ` of ${guy.windlassTurns.toFixed(0)}, in ${guy.stages} stages, ${guy.rest} between them` : ''}: about ${guy.tension.toFixed(0)} N when it is done.`,
        ...guy.checks.filter((c) => !c.ok).map((c) => c.said),
      ],
      rule: MINUTES.guy,
      of: guy.id,
      did: [
        {
          kind: 'tie',
          on,
          ...(guy.fixed ? { guy: guy.id } : {}),
          branch: guy.branch,
          at: guy.at,
          anchor: guy.anchor,
          wire: guy.wire,
          cushion: guy.cushion,
          twists: first,
          tension: Math.round(guy.tension),
          length: Math.round(guy.length - guy.shortening),
        },
      ],
    },
  ];
}

/** A tie that stands between two stages, on the day of the next. */
function twistStep({ names, on, onDay }: Bench, guy: PlanGuy): Draft[] {
  const left = guy.windlassTurns - guy.on!.twists;
  if (guy.stages === null || guy.stages < 2 || left < 0.5 || !guy.dates[0] || dayOf(guy.dates[0]) > onDay) return [];
  const twists = Math.max(1, Math.min(Math.round(left), Math.round(guy.windlassTurns / guy.stages)));
  return [
    {
      key: `guy:${guy.branch}:${Math.round(guy.at)}:${Math.round(guy.on!.twists)}`,
      kind: 'guy',
      branches: [guy.branch],
      title: `Twist the tie of ${names(guy.branch)} on`,
      what: [`${twists} twists today; ${guy.on!.twists.toFixed(0)} are in it, of ${guy.windlassTurns.toFixed(0)}. Look at its cushion.`],
      rule: MINUTES.guy / 3,
      of: guy.id,
      did: [{ kind: 'guyed', on, branch: guy.branch, guy: guy.id, done: 'twisted', twists }],
    },
  ];
}

function deviceSteps({ plan, names, on }: Bench): Draft[] {
  return plan.devices.flatMap((d): Draft[] => {
    if ('fault' in d || d.on || d.stages === null) return [];
    const turns = d.turns === null ? null : Math.max(1, Math.round(d.turns / (d.stages ?? 1)));
    return [
      {
        key: `device:${d.id}`,
        kind: 'device',
        branches: [d.device.branch, ...(d.device.other ? [d.device.other.branch] : [])],
        title: `Set the ${DEVICE_WORDS[d.device.kind].name} on ${names(d.device.branch)}`,
        what: [
          d.does,
          `${d.length.toFixed(0)} mm long when it has done its work, about ${d.force.toFixed(0)} N${turns ? `; ${turns} turns today` : ''}.`,
          d.marks,
        ],
        rule: MINUTES.device,
        of: d.id,
        did: [{ kind: 'set-up', on, device: d.id, tension: Math.round(d.force), ...(turns ? { twists: turns } : {}) }],
      },
    ];
  });
}

/** Steps that go with any session, or with whatever of it asks for them. */
const GENERAL = {
  shelter: {
    title: 'Shelter and tools',
    what: ['Out of wind and sun, the tree turned so that the work comes towards you.', 'Is its soil moist, and does the tree sit fast in its pot?'],
    rule: 10,
  },
  clear: {
    title: 'Clear',
    what: [
      'Dead twigs, growth in crotches, what grows straight down or up on a branch, weak inner growth.',
      'It shows the structure, and nothing is wired that would be cut.',
    ],
    rule: 10,
  },
  soak: { title: 'Soak the raffia', what: ['Half an hour in water before it is wound on, so that it clings and tightens as it dries.'], rule: 5 },
  fast: {
    title: 'Is it fast in its pot?',
    what: ['Push the trunk: if the root ball rocks, tie the tree into its pot now, before anything pulls at it.'],
    rule: 4,
  },
  clean: {
    title: 'Undersides clean, tips up',
    what: ['Take away what hangs below the line of each pad, fan the pads, turn the tips up to the light.'],
    rule: 15,
  },
  pot: { title: 'Tied in its pot', what: ['See that the tree is tied into its pot: what moves in the wind tears its new roots.'], rule: 10 },
  aftercare: { title: 'Aftercare', what: ['How it is kept now, and what is promised for later, stands below.'], rule: 5 },
} as const;
const general = (kind: keyof typeof GENERAL, rule: number = GENERAL[kind].rule): Draft => ({
  key: kind,
  kind,
  title: GENERAL[kind].title,
  what: [...GENERAL[kind].what],
  rule,
});

/** All that is decided and not yet done on a tree, as steps in the order of the job; `since` is the day that the session began. */
export function openSteps(tree: Tree, plan: PlanDocument, onDay: number, pace: Pace = {}, since = onDay): WorkStep[] {
  const placed = placeTree(tree);
  const bench: Bench = { tree, placed, plan, onDay, on: isoOf(onDay), names: namesOf(tree) };
  const cuts = cutSteps(bench);
  const jins = [...cuts.filter((s) => s.kind === 'jin'), ...cutForJin(bench, since)];
  const wires = wireSteps(bench);
  const guyed = plan.guys.flatMap((g) => (g.on ? twistStep(bench, g) : guyStep(bench, g)));
  const devices = deviceSteps(bench);
  const worked = new Set([...wires, ...guyed].flatMap((s) => s.branches ?? []));
  const { bends, places } = posedSteps(bench, worked);
  const rank = (id: string | undefined): number => plan.order.indexOf(id ?? '');
  const ties = [...guyed, ...devices].sort((a, b) => rank(a.of) - rank(b.of));
  const drafts: Draft[] = [
    general('shelter'),
    general('clear', MINUTES.clear(tree.branches.length)),
    ...cuts.filter((s) => s.kind === 'cut'),
    ...jins,
    general('soak'),
    general('fast'),
    ...wires,
    ...bends,
    ...ties,
    ...places,
    general('clean'),
    general('pot'),
    general('aftercare'),
  ];
  const told = new Set<StepKind>();
  const steps = drafts.map(({ rule, as = '', rest = 0, did = [], branches = [], ...step }) => {
    const first = !told.has(step.kind);
    told.add(step.kind);
    return { ...step, as, rest, did, branches, minutes: Math.max(1, Math.round(rule * paceFor(pace, step.kind))), ...mindingOf(tree, step.kind, first) };
  });
  return withRests(steps);
}

/** From where to look at a step, so that what it is about comes towards the one who works: a bearing. */
export function towardsYou(placed: PlacedTree, branch: string | undefined, front: number): number {
  const wood = branch ? placed.byId.get(branch) : undefined;
  return wood ? Math.round(slope(wood).bearing) : front;
}
