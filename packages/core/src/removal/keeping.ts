import { turnDeg } from '../units/index.js';
import { nameInText, speciesOf } from '../species/index.js';
import { withChildren, type PlacedBranch, type Tree } from '../tree/index.js';
import { isLiving, percent, type Survey } from './survey.js';

/** Kinds of what would be lost with a branch. */
export type LossKind = 'green' | 'back' | 'gap' | 'vein' | 'wire' | 'guy';

/** Something that would be lost if a branch went. */
export interface Loss {
  branch: string;
  kind: LossKind;
  text: string;
}

const MUCH_GREEN = 0.15;
const LITTLE_GREEN = 0.02;
/** Farther from the front than this, a branch is a back branch. */
const BACK_DEG = 125;
/** No other branch within this of bearing and share of the height: it stands alone there. */
const ALONE_DEG = 50;
const ALONE_SHARE = 0.16;
/** A vein feeds what leaves within this of its bearing. */
const VEIN_DEG = 50;

/** What is true of every cut on a kind that makes no new buds on old wood; null on one that does. Said once a list. */
export function sayOldWood(tree: Tree): string | null {
  const species = speciesOf(tree.species);
  return species.budsBackOnOldWood ? null : `Old wood of ${nameInText(species)} makes no new buds: what is cut bare stays bare.`;
}

/** Ids of the runs and guys that would lose their branch, or something on it. */
export function conflictsOf(tree: Tree, gone: ReadonlySet<string>): { runs: string[]; guys: string[] } {
  const { runs, guys } = tree.plan;
  return {
    runs: runs.filter((r) => r.branches.some((b) => gone.has(b.branch))).map((r) => r.id),
    // A guy is tied to a branch, and may be anchored to another one.
    guys: guys.filter((g) => gone.has(g.branch) || gone.has(String((g.anchor as { branch?: string }).branch ?? ''))).map((g) => g.id),
  };
}

const back = (s: Survey, b: PlacedBranch): boolean => s.front !== null && Math.abs(turnDeg(s.front.bearing, s.slopeOf(b).bearing)) > BACK_DEG;

/** Live veins that would be left without a living branch above them. */
function lastOnVein(s: Survey, own: ReadonlySet<string>, gone: ReadonlySet<string>): string[] {
  return s.placed.tree.features
    .filter((f) => /live vein/i.test(f.kind))
    .filter((vein) => {
      const fed = s.primaries.filter(
        (b) => b.line.points[0]![2] >= vein.z[0] && Math.abs(turnDeg(vein.bearing, s.slopeOf(b).bearing)) <= VEIN_DEG && s.greenWith.get(b.branch.id)! > 0,
      );
      return fed.some((b) => own.has(b.branch.id)) && fed.every((b) => gone.has(b.branch.id));
    })
    .map((vein) => `the live vein at ${vein.bearing.toFixed(0)}°`);
}

/** Nothing else stands to its side at its height. */
function fillsAlone(s: Survey, b: PlacedBranch, gone: ReadonlySet<string>): boolean {
  if (b.order !== 1 || !isLiving(b) || s.greenWith.get(b.branch.id)! < LITTLE_GREEN) return false;
  const share = (x: PlacedBranch): number => x.line.points[0]![2] / s.placed.height;
  return !s.primaries.some(
    (o) =>
      o !== b &&
      !gone.has(o.branch.id) &&
      Math.abs(turnDeg(s.slopeOf(o).bearing, s.slopeOf(b).bearing)) < ALONE_DEG &&
      Math.abs(share(o) - share(b)) < ALONE_SHARE,
  );
}

/** What would be lost if a branch and all on it went, those in `alsoGone` being gone too. */
export function lossesOf(s: Survey, id: string, alsoGone: ReadonlySet<string> = new Set()): Loss[] {
  const { tree, byId } = s.placed;
  const b = byId.get(id)!;
  const own = s.on.has(id) ? withChildren(tree, id) : new Set([id]);
  const gone = alsoGone.size ? new Set([...own, ...alsoGone]) : own;
  const losses: Loss[] = [];
  const lose = (kind: LossKind, text: string): void => void losses.push({ branch: id, kind, text });
  const green = s.greenWith.get(id)!;
  if (green > MUCH_GREEN) lose('green', `it carries ${percent(green)} of the green.`);
  if (b.order === 1 && isLiving(b) && back(s, b) && !s.primaries.some((o) => o !== b && !gone.has(o.branch.id) && back(s, o)))
    lose('back', 'it is the only back branch.');
  if (fillsAlone(s, b, gone)) lose('gap', 'nothing else stands to this side at its height.');
  for (const vein of lastOnVein(s, own, gone)) lose('vein', `it is the last living branch on ${vein}.`);
  const { runs, guys } = conflictsOf(tree, own);
  if (runs.length) lose('wire', `${runs.join(', ')} would lose the branch ${runs.length === 1 ? 'it is' : 'they are'} wound on.`);
  if (guys.length) lose('guy', `${guys.join(', ')} would lose what ${guys.length === 1 ? 'it holds or is' : 'they hold or are'} tied to.`);
  return losses;
}
