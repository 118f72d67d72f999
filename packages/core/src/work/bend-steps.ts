import { dayOf, greatestOf, leastOf, sayByHand, sayDay } from '../units/index.js';
import { ownWay } from '../pose/index.js';
import type { PlanBend, PlanDocument, PlanPose } from '../plan/index.js';
import { coilsOn, guysOn, standing, type Tree } from '../tree/index.js';
import { MINUTES, type Laying, type Draft } from './draft.js';
import type { WorkStep } from './step.js';

/** Thinner wood (mm) is bent in one go, with care. */
const THIN_MM = 5;
/** The bend that asks most of its wood. */
const gravest = (bends: readonly PlanBend[]): PlanBend | undefined => [...bends].sort((a, b) => b.risk - a.risk)[0];
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

const tenth = (x: number): number => Math.round(x * 10) / 10;

/** What the hand makes of a bend, degrees: with what was made of it before. */
const handOf = (bend: PlanBend): number => Math.round(bend.handDeg ?? bend.made + bend.angle);

function bendSteps(
  laying: Laying,
  branch: string,
  bend: PlanBend,
  pose: { done: number; next: string | null; as: string; told: string[]; along?: readonly PlanBend[] },
): Draft[] {
  const { names, on, onDay } = laying;
  const stages = bend.stages ?? 0;
  const hand = bend.handDeg ?? bend.made + bend.angle;
  const overDays = bend.dates.length > 0;
  const last = overDays ? pose.done + 1 : stages;
  const due = pose.next === null || dayOf(pose.next) <= onDay;
  if (!due) return [];
  return Array.from({ length: Math.max(0, Math.min(stages, last) - pose.done) }, (_, i): Draft => {
    const stage = pose.done + 1 + i;
    const to = sayByHand((hand * stage) / stages);
    return {
      key: `bend:${branch}:${stage}`,
      as: pose.as,
      kind: 'bend',
      branches: [branch],
      title: `Bend ${names(branch)}${stages > 1 ? `, stage ${stage} of ${stages}` : ''}`,
      what: [
        `To about ${to} by hand, spread over ${bend.length.toFixed(0)} mm from ${bend.at.toFixed(0)} mm on${stage === stages && bend.settlesDeg !== null ? `; it settles at about ${bend.settlesDeg.toFixed(0)}°` : ''}.`,
        ...(WRAPPED[bend.protection] ? [WRAPPED[bend.protection]!] : []),
        ...(overDays && bend.dates[1] ? [`Then ${bend.rest} of rest: the next stage from ${sayDay(dayOf(bend.dates[1]!))} on.`] : []),
        ...pose.told,
      ],
      rest: !overDays && stage > 1 ? bend.restMinutes : 0,
      rule: MINUTES.bend(bend.diameter),
      did: [bend, ...(pose.along ?? [])].map((b) => ({
        kind: 'bent',
        on,
        branch,
        at: b.at,
        stage,
        toward: ownWay(laying.tree, b.toward),
        bentDeg: Math.round(((b.handDeg ?? b.made + b.angle) * stage) / stages),
        targetDeg: tenth(b.made + b.angle),
        over: Math.round(b.length),
        sound: 'none',
        crack: 'none',
        ...(overDays && bend.dates[1] ? { next: bend.dates[1] } : {}),
      })),
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
function placeStep(laying: Laying, pose: PlanPose, main: PlanBend | undefined, hard: PlanBend | null): Draft {
  const { names, on } = laying;
  const { branch, elevation, bearing, reach } = pose;
  const own = main && !hard && main.kind !== 'arc' ? main : null;
  const bends = pose.bends.filter((b) => b !== hard);
  const arcs = pose.bends.filter((b) => b.kind === 'arc');
  const rest = pose.bends.filter((b) => b !== main && b.kind !== 'arc').map((b) => `${sayByHand(handOf(b))} at ${b.at.toFixed(0)} mm`);
  return {
    key: `place:${branch}`,
    as: asked(pose),
    kind: 'place',
    branches: [branch],
    title: `Place ${names(branch)}`,
    what: [
      `Its tip goes to ${Math.abs(elevation).toFixed(0)}° ${elevation < 0 ? 'below' : 'above'} level, towards ${bearing.toFixed(0)}°, ${reach.toFixed(0)} mm from its shoulder.`,
      ...(own ? [`${own.kind === 'drop' ? 'From its shoulder' : 'First'} about ${sayByHand(handOf(own))} by hand over ${own.length.toFixed(0)} mm.`] : []),
      ...(arcs.length ? [sayArcs(arcs)] : []),
      ...(rest.length ? [`On its way ${rest.join(', ')}.`] : []),
    ],
    rule: MINUTES.place + bends.length,
    did: [
      {
        kind: 'placed',
        on,
        branch,
        bearing: tenth(bearing) % 360,
        elevation: tenth(elevation),
        bends: bends.map((b) => ({
          at: b.at,
          over: Math.round(b.length),
          bentDeg: handOf(b),
          targetDeg: tenth(b.made + b.angle),
          toward: ownWay(laying.tree, b.toward),
        })),
      },
    ],
  };
}

/** Arcs that make a branch shorter are told as the one snake that they are. */
function sayArcs(arcs: readonly PlanBend[]): string {
  const hands = arcs.map(handOf);
  const [first, last] = [arcs[0]!, arcs[arcs.length - 1]!];
  const range = [...new Set([leastOf(hands), greatestOf(hands)].map(sayByHand))].join(' to ');
  return `From ${first.at.toFixed(0)} to ${(last.at + last.length).toFixed(0)} mm as it is drawn, in ${arcs.length} bends of about ${range}, each going on where the last ended.`;
}

/** The trunk's bends: in the stages of the gravest, the others with it from below. */
function trunkSteps(laying: Laying, { bends, bending }: NonNullable<PlanDocument['trunk']>): Draft[] {
  const main = gravest(bends);
  const { done, next, told } = bending ?? { done: 0, next: null, told: [] };
  if (!main || (bending && next === null)) return [];
  const others = bends.filter((b) => b !== main);
  const along = others.length ? [`With it, as far in each stage: ${others.map((b) => `${sayByHand(handOf(b))} at ${b.at.toFixed(0)} mm`).join(', ')}.`] : [];
  return bendSteps(laying, 'trunk', main, { done, next, as: '', told: [...along, ...told], along: others });
}

/** Bends and placing of branches that are wired or tied in this session, or whose wire is on and waits for it; from the lowest up. */
export function posedSteps(laying: Laying, worked: ReadonlySet<string>): { bends: Draft[]; places: Draft[] } {
  const { plan, placed, on, tree, onDay } = laying;
  const awaits = awaitsBending(tree, onDay);
  const isAsked = (branch: string, as = ''): boolean => worked.has(branch) || awaits(branch, as);
  const height = (id: string): number => placed.byId.get(id)?.line.points[0]![2] ?? 0;
  const bends: Draft[] = [];
  const places: Draft[] = [];
  if (plan.trunk && !plan.trunk.device && isAsked('trunk')) bends.push(...trunkSteps(laying, plan.trunk));
  const partly = new Set([...plan.guys.map((g) => g.branch), ...plan.runs.flatMap((r) => r.branches.flatMap((b) => b.onFrom ?? []))]);
  // What a tie draws, what its wire is too thin for, or what has none beyond a shoot, is not bent by hand.
  const byHand = (p: PlanPose): PlanPose => (partly.has(p.branch) ? { ...p, bends: p.bends.filter((b) => b.handDeg !== null) } : p);
  for (const pose of plan.poses
    .map(byHand)
    .filter((p) => isAsked(p.branch, asked(p)))
    .sort((a, b) => height(a.branch) - height(b.branch))) {
    const { done, next, told } = pose.bending ?? { done: 0, next: null, told: [] };
    const cracked = pose.bending !== null && next === null;
    if (cracked) continue;
    const main = gravest(pose.bends);
    // Once the bend that asked most is made, what is left of the others goes with placing.
    const hard = main && isHard(main) && (done === 0 || main.made > 0) ? main : null;
    if (hard) bends.push(...bendSteps(laying, pose.branch, hard, { done, next, as: asked(pose), told }));
    // What is bent over days is placed with its last stage.
    if (!hard || (hard.dates.length <= 1 && (next ?? '') <= on)) places.push(placeStep(laying, pose, main, hard));
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
export function withRests(steps: readonly WorkStep[]): WorkStep[] {
  return steps.map((step, i) => {
    if (!step.rest) return step;
    const before = steps.findIndex((s) => s.kind === 'bend' && s.branches[0] === step.branches[0]);
    if (before < 0 || before >= i) return step;
    const between = steps.slice(before + 1, i).reduce((sum, s) => sum + s.minutes, 0);
    return { ...step, rest: Math.max(0, step.rest - between) };
  });
}
