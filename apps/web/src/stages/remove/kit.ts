import { useMemo, useState } from 'react';
import { outcomeOf, type Consequences, type Evidence, type Tree } from '@ustle/core';
import { useAnswer, worker } from '../../jobs/use-planner';
import { oneOf, useAddress } from '../address';
import type { Desk } from '../desk';
import type { Picture } from '../SideBySide';
import { kitOf, type Drawing } from '../stage';
import { sayRule } from './fates';
import { useDeciding } from './use-deciding';

export const SHEETS = ['decide', 'outcome', 'cut'] as const;
export type Sheet = (typeof SHEETS)[number];

/** More tags than this nobody reads on one picture; the list has them all. */
const MOST_TAGS = 24;

/** What a plan's cuts lead to; null until it is known. */
export const useConsequences = (tree: Tree, on: string): Consequences | null =>
  useAnswer(() => worker('weighing').consequences(tree, on) as Promise<Consequences>, [tree, on]);

const useFindingEvidence = (tree: Tree, branch: string | null): Evidence | null =>
  useAnswer(
    () =>
      branch && tree.branches.some((b) => b.id === branch) ? (worker('weighing').findingEvidence(tree, branch) as Promise<Evidence>) : Promise.resolve(null),
    [tree, branch],
  );

/** A pair of which one goes, shown both ways; empty where none is looked at. */
function bothWays({ names, act }: Desk, weighed: Consequences | null, pair: number | null): Picture[] {
  const ways = pair === null ? undefined : weighed?.either[pair];
  return (ways ?? []).map((way) => ({
    name: `Keep ${names(way.keep)}`,
    note: `without ${names(way.remove)}`,
    view: weighed!.front,
    after: outcomeOf(way.tree).tree,
    labels: [
      { branch: way.keep, text: names(way.keep) },
      { branch: way.remove, text: `${names(way.remove)} goes` },
    ],
    onPick: () => void act({ kind: 'decide', branch: way.keep, act: 'keep' }),
  }));
}

/** Tags of the findings, numbers of the cuts, or one branch's own name where it is in question. */
function labelsOf({ branch, short }: Desk, sheet: Sheet, weighed: Consequences | null): Drawing['labels'] {
  if (sheet === 'cut') return (weighed?.cuts ?? []).map((c) => ({ branch: c.branch, text: `${c.tag}: ${short(c.branch)}` }));
  if (branch) return [{ branch, text: short(branch) }];
  if (sheet === 'outcome') return [];
  const tags = new Map<string, string>();
  const gravest = [...(weighed?.findings ?? [])].sort((a, b) => b.severity - a.severity);
  for (const f of gravest) if (!tags.has(f.branch)) tags.set(f.branch, `${short(f.branch)} ${sayRule(f.rule)}`);
  return [...tags].slice(0, MOST_TAGS).map(([id, text]) => ({ branch: id, text }));
}

const FOLIAGE: Record<Sheet, number> = { decide: 0.5, outcome: 0.75, cut: 0.45 };

/** What the cuts lead to, and what is pointed at. In the address: sheet, wipe, pair. */
export function useRemoveKit(desk: Desk) {
  const { tree, today, branch, day } = desk;
  const { get, set } = useAddress();
  const sheet = oneOf(get('sheet'), SHEETS, 'decide');
  const asked = get('pair');
  const pair = asked === null || !Number.isInteger(Number(asked)) ? null : Number(asked);
  const wiping = get('wipe') === '1';
  const [wipe, setWipe] = useState(0.5);
  const [spot, setSpot] = useState<Evidence | null>(null);
  const weighed = useConsequences(tree, today);
  const found = useFindingEvidence(tree, sheet === 'decide' ? branch : null);
  const labels = useMemo(
    () => labelsOf(desk, sheet, weighed),
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [sheet, weighed, branch, desk.short],
  );
  const beside = useMemo(
    () => bothWays(desk, weighed, pair),
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [weighed, pair, desk.names, desk.act],
  );
  const cuts = tree.plan.decisions.length > 0 && day >= today;
  const drawing = useMemo<Drawing>(
    () => ({
      labels: labels!,
      evidence: spot ?? (sheet === 'decide' && branch ? found : null) ?? undefined,
      foliage: FOLIAGE[sheet],
      wipe: wiping && cuts ? wipe : null,
      onWipe: setWipe,
      beside,
    }),
    [labels, spot, sheet, branch, found, wiping, cuts, wipe, beside],
  );
  const deciding = useDeciding(desk, weighed, sheet === 'decide');
  return {
    drawing,
    keys: deciding.keys,
    deciding,
    weighed,
    sheet,
    setSheet: (s: Sheet) => set({ sheet: s === 'decide' ? null : s }),
    pair,
    setPair: (p: number | null) => set({ pair: p === null ? null : String(p) }),
    wiping,
    setWiping: (on: boolean) => set({ wipe: on ? '1' : null }),
    setSpot,
  };
}

export const useRemove = kitOf(useRemoveKit);
