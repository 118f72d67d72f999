import { sayThick } from '../wood/index.js';
import { greatestOf, leastOf, dayOf, isoOf } from '../units/index.js';
import type { PlanDocument, PlanRun } from '../plan/index.js';
import { cutList } from '../removal/index.js';
import { coilsOn, cutsOf, namesOf, placeTree, sayBranches, slope, type PlacedTree, type Tree } from '../tree/index.js';
import { asWound } from '../wire/index.js';
import { posedSteps, withRests } from './bend-steps.js';
import { MINUTES, type Laying, type Draft } from './draft.js';
import { mindingOf } from './minding.js';
import { paceFor, type Pace } from './pace.js';
import type { WorkStep, StepKind } from './step.js';
import { deviceSteps, guyStep, twistStep } from './tie-steps.js';

const sizeOf = ({ size, metal, strands }: Pick<PlanRun, 'size' | 'metal' | 'strands'>): string =>
  `${sayThick(size)} ${metal}${strands > 1 ? `, ${strands} side by side` : ''}`;
const branchesOf = (run: PlanRun): string[] => run.branches.map((b) => b.branch);
const THUMB = { over: 'over the shoulder', under: 'from beneath the shoulder' } as const;
const HAND = { cw: 'clockwise', ccw: 'counter-clockwise' } as const;

function cutSteps({ tree, placed, names, on }: Laying): Draft[] {
  return cutList(placed, 1).flatMap((item): Draft[] => {
    const wood = placed.byId.get(item.branch)!;
    const decision = tree.plan.decisions.find((d) => d.branch === item.branch)!;
    const jin = decision.act === 'stub' && decision.stub !== 'anchor';
    const cut: Draft = {
      key: `cut:${item.branch}`,
      // What it is asked for, not how it is said: names by place change with every cut.
      as: [decision.act, 'length' in decision ? (decision.length ?? '') : '', 'toShoot' in decision ? (decision.toShoot ?? '') : ''].join(' ').trim(),
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
const cutForJin = ({ tree, names, placed }: Laying, since: number): Draft[] =>
  cutsOf(tree).flatMap((c) =>
    c.kind === 'shortened' && c.stub === 'jin' && dayOf(c.on) >= since ? [jinStep(c.branch, names(c.branch), placed.byId.get(c.branch)?.branch.d ?? 8)] : [],
  );

/** Where a branch is wrapped before its wire goes on, for the bends that want it, in words; null where none does. */
function wrapOf({ poses, trunk }: PlanDocument, branch: string): [branch: string, where: string][] | null {
  const own = branch === 'trunk' ? trunk?.bends : poses.find((p) => p.branch === branch)?.bends;
  const bends = own?.filter((b) => b.protection === 'raffia' || b.protection === 'both');
  if (!bends?.length) return null;
  const [from, to] = [leastOf(bends.map((b) => b.at)), greatestOf(bends.map((b) => b.at + b.length))];
  return [[branch, `from ${Math.max(0, from - pastBend(bends)).toFixed(0)} to ${(to + pastBend(bends)).toFixed(0)} mm`]];
}
/** A wrap goes a thickness past the bend to either side. */
const pastBend = (bends: readonly { diameter: number }[]): number => greatestOf(bends.map((b) => b.diameter));

function wireSteps({ plan, names, on, tree, onDay }: Laying): Draft[] {
  const worn = new Set(coilsOn(tree, onDay).map((c) => c.branch));
  const open = plan.runs.filter((r) => r.branches.some((b) => !worn.has(b.branch)));
  const inOrder = [...open].sort((a, b) => plan.order.indexOf(a.id) - plan.order.indexOf(b.id));
  return inOrder.flatMap((run): Draft[] => {
    // A half that is on already stays as it is: the other goes on by itself.
    const parts = run.branches.filter((b) => !worn.has(b.branch));
    const whole = parts.length === run.branches.length;
    const branches = parts.map((b) => b.branch);
    const wraps = new Map(parts.flatMap((b) => wrapOf(plan, b.branch) ?? []));
    const wound = parts.map(({ branch, hand, start, turns }) => ({ branch, hand, start, turns, ...(wraps.has(branch) ? { wrap: 'raffia' as const } : {}) }));
    const { first, ...others } = whole ? asWound(run, wound) : { first: wound[0]!, ...(wound[1] ? { along: wound.slice(1) } : {}) };
    const turns = parts.reduce((sum, b) => sum + b.turns, 0);
    // A trunk is a work of its own to wrap; a branch is wrapped as its wire goes on.
    const trunk = wraps.get('trunk');
    wraps.delete('trunk');
    const wire: Draft = {
      key: `wire:${[...branches].sort().join('+')}`,
      kind: 'wire',
      branches,
      title: `Wire ${sayBranches(names, branches, 2)}`,
      what: [
        ...[...wraps].map(([branch, where]) => `Before the wire, wrap ${names(branch)} with wet raffia ${where}.`),
        `${sizeOf(run)}, ${run.length.toFixed(0)} mm${run.strands > 1 ? ' each' : ''}, at ${run.angle}° to the branch.`,
        ...(whole
          ? []
          : [
              `The rest of the piece that is on ${sayBranches(
                names,
                branchesOf(run).filter((b) => worn.has(b)),
                2,
              )}.`,
            ]),
        ...parts.map(
          (b) =>
            `${names(b.branch)}${b.onFrom ? `, on from ${names(b.onFrom)}` : ''}: ${THUMB[b.start]}, ${HAND[b.hand]} seen from its parent, ${b.turns.toFixed(1)} turns${b.gap ? `, loose by ${b.gap.toFixed(1)} mm` : ''}.`,
        ),
      ],
      rule: MINUTES.wire(turns, run.size, run.strands) + MINUTES.wrap * wraps.size,
      of: run.id,
      did: [
        {
          kind: 'wired',
          on,
          metal: run.metal,
          size: run.size,
          strands: run.strands,
          angle: run.angle,
          ...first,
          ...others,
          gap: greatestOf(parts.map((b) => b.gap)),
          anchor: 'good',
          ...(whole ? { length: run.length * run.strands } : {}),
        },
      ],
    };
    return trunk ? [wrapTrunk(trunk, run.id), wire] : [wire];
  });
}

const wrapTrunk = (where: string, run: string): Draft => ({
  key: 'wrap:trunk',
  kind: 'wrap',
  branches: ['trunk'],
  title: 'Wrap the trunk',
  what: [
    `Wet raffia ${where} above the soil, two layers, wound tight and all one way, the way its wire will go.`,
    'Where the bend comes lay a strand or two of raffia, or a heavy wire, along its outside, under the last layer.',
  ],
  rule: 3 * MINUTES.wrap,
  of: run,
});

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

/** Minutes of clearing where so many branches are worked on. */
export const clearing = (branches: number, pace: Pace): number => Math.round((MINUTES.clear + MINUTES.clearEach * branches) * paceFor(pace, 'clear'));

/** All that is decided and not yet done on a tree, as steps in the order of the job; `since` is the day that the session began, `on` how many branches it works on. */
export function openSteps(
  tree: Tree,
  plan: PlanDocument,
  onDay: number,
  pace: Pace = {},
  { since = onDay, on = tree.branches.length }: { since?: number; on?: number } = {},
): WorkStep[] {
  const placed = placeTree(tree);
  const laying: Laying = { tree, placed, plan, onDay, on: isoOf(onDay), names: namesOf(tree) };
  const cuts = cutSteps(laying);
  const jins = [...cuts.filter((s) => s.kind === 'jin'), ...cutForJin(laying, since)];
  const wires = wireSteps(laying);
  const guyed = plan.guys.flatMap((g) => (g.on ? twistStep(laying, g) : guyStep(laying, g)));
  const devices = deviceSteps(laying);
  const worked = new Set([...wires, ...guyed].flatMap((s) => s.branches ?? []));
  const { bends, places } = posedSteps(laying, worked);
  const rank = (id: string | undefined): number => plan.order.indexOf(id ?? '');
  const ties = [...guyed, ...devices].sort((a, b) => rank(a.of) - rank(b.of));
  const drafts: Draft[] = [
    general('shelter'),
    general('clear', MINUTES.clear + MINUTES.clearEach * on),
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
