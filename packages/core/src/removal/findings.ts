import type { Evidence } from '../space/index.js';
import { withChildren, type PlacedTree } from '../tree/index.js';
import type { Draft, Finding, SeenFromFront } from './finding.js';
import { conflictsOf, lossesOf, type Loss } from './keeping.js';
import { rulesFor, type RemovalProfile } from './profile.js';
import { condition } from './rules/condition.js';
import { forksAndBends } from './rules/forks.js';
import { fromFront } from './rules/from-front.js';
import { whorlsAndBars } from './rules/heights.js';
import { meetings } from './rules/meetings.js';
import { stance } from './rules/stance.js';
import { survey, type Survey } from './survey.js';

/** Rules about growth that feeds the tree although it is in the way; schools with helpers keep it for now. */
const HELPERS: ReadonlySet<string> = new Set(['hanging', 'upright', 'crotch', 'fork', 'weak', 'low']);

function bySchool(draft: Draft, { helpers }: RemovalProfile): Draft {
  if (!helpers || !HELPERS.has(draft.rule) || draft.advice !== 'remove') return draft;
  return {
    ...draft,
    advice: 'reserve',
    also: ['remove', ...(draft.also ?? []).filter((a) => a !== 'reserve')],
    because: [...draft.because, 'Until back buds show it feeds the tree: keep it as a helper for now.'],
  };
}

/** The rules, each file with those of one subject. */
const RULE_FILES: ((s: Survey) => Draft[])[] = [condition, stance, whorlsAndBars, forksAndBends, meetings, fromFront];

function ruled(s: Survey): Draft[] {
  return RULE_FILES.flatMap((rules) => rules(s))
    .filter((d) => s.profile.rules[d.rule])
    .map((d) => ({ draft: bySchool(d, s.profile), height: s.placed.byId.get(d.branch)!.line.points[0]![2], key: `${d.branch} ${d.rule} ${d.because[0]!}` }))
    .sort((a, b) => a.height - b.height || (a.key < b.key ? -1 : 1))
    .map(({ draft }) => draft);
}

/** What a good teacher would point at, from below; the artist decides. Independent of the order of the file. */
export function findingsOf(placed: PlacedTree, front: SeenFromFront | null, profile: RemovalProfile = rulesFor(placed.tree)): Finding[] {
  const s = survey(placed, front, profile);
  // What a branch takes along is the same for all that is found on it.
  const takenBy = new Map<string, { along: number; losses: readonly Loss[]; conflicts: string[] }>();
  const taken = (id: string): { along: number; losses: readonly Loss[]; conflicts: string[] } => {
    const own = withChildren(placed.tree, id);
    const { runs, guys } = conflictsOf(placed.tree, own);
    const losses = lossesOf(s, id).filter((l) => l.kind !== 'wire' && l.kind !== 'guy');
    return { along: own.size - 1, losses, conflicts: [...runs, ...guys] };
  };
  return ruled(s).map(({ draw: _draw, ...d }): Finding => {
    if (!takenBy.has(d.branch)) takenBy.set(d.branch, taken(d.branch));
    const { along, losses, conflicts } = takenBy.get(d.branch)!;
    const takes = along && d.advice === 'remove' ? [`It takes ${along} ${along === 1 ? 'branch' : 'branches'} growing on it along.`] : [];
    return {
      ...d,
      also: d.also ?? [],
      because: [...d.because, ...takes],
      against: losses.map((l) => l.text),
      conflicts,
    };
  });
}

/** What the findings on one branch saw, for drawing on the tree. */
export function findingEvidence(placed: PlacedTree, front: SeenFromFront | null, branch: string, profile: RemovalProfile = rulesFor(placed.tree)): Evidence {
  const all = ruled(survey(placed, front, profile))
    .filter((d) => d.branch === branch)
    .map((d) => d.draw());
  return { lines: all.flatMap((e) => e.lines), words: all.flatMap((e) => e.words) };
}
