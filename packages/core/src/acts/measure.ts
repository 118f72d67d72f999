import { Type } from '@sinclair/typebox';
import { dayOf } from '../units/index.js';
import {
  calipersOf,
  keptInRecord,
  knownAnew,
  MEASURES,
  namesOf,
  needsAgreement,
  sayBranches,
  recordedBranches,
  standing,
  withBranches,
  type Branch,
  type LineOf,
  type Measured,
  type RecordLine,
  type Tree,
} from '../tree/index.js';
import { actKind, refuse, type Refusal } from './act.js';

const SOME = Type.Partial(Type.Object(MEASURES), { additionalProperties: false, description: 'parts of the tree file, each whole' });

/** Lines for branches that are taken out of the measures while the record speaks of them: they keep how those were. */
export function unlistedLines(tree: Tree, branches: readonly Branch[], on: string): LineOf<'removed'>[] {
  const there = new Set(branches.map((b) => b.id));
  const told = recordedBranches(tree.record);
  const kept = keptInRecord(tree.record);
  const names = namesOf(tree);
  return tree.branches
    .filter((b) => !there.has(b.id) && told.has(b.id) && !kept.has(b.id))
    .map((b) => ({ kind: 'removed', on, branch: b.id, was: [b], green: 0, called: names(b.id), unlisted: true }));
}

const LINE_PARTS = ['parent', 'at', 'bearing', 'elevation', 'length', 'path'] as const satisfies readonly (keyof Branch)[];

/** The wood that a line of the record tells a shape of: bent by hand, with its wire, or led by a tie or a device. */
function bentBy(line: RecordLine): string[] {
  if (line.kind === 'bent' || line.kind === 'placed') return [line.branch];
  if (line.kind === 'wired') return line.toward ? [line.branch] : [];
  if (line.kind !== 'guyed') return [];
  return [...(line.bends?.length ? [line.branch] : []), ...(line.other?.bends.length ? [line.other.branch] : [])];
}

/** Lines for branches of which the record tells bends and whose line is measured anew: they begin from there, and keep how they were measured before. */
export function lineAnew(tree: Tree, branches: readonly Branch[], on: string): LineOf<'measured'>[] {
  const bent = new Set(standing(tree.record).flatMap(bentBy));
  const after = new Map(branches.map((b) => [b.id, b]));
  return tree.branches.flatMap((was) => {
    const now = after.get(was.id);
    return now && bent.has(was.id) && LINE_PARTS.some((part) => now[part] !== was[part]) ? [{ kind: 'measured' as const, on, branch: was.id, was: [was] }] : [];
  });
}

/** Measured again so many days later, the thickness of before is a measure of its own. */
const ANOTHER_AFTER_DAYS = 14;

/** Branches with the day on which their thickness was measured and how well they are known, where that is told anew (`told`: who measured them says how well, whatever it was before); and lines for the thickness of before, and for one that the record told already on that day. */
export function thicknessAnew(
  tree: Tree,
  branches: readonly Branch[],
  on: string,
  told: (branch: string) => boolean = () => false,
): { branches: Branch[]; lines: LineOf<'measured'>[] } {
  const before = new Map(tree.branches.map((b) => [b.id, b]));
  const lines: LineOf<'measured'>[] = [];
  const dated = branches.map((given): Branch => {
    const was = before.get(given.id);
    const b = was && !told(given.id) ? knownAnew(was, given) : given;
    if (was?.d === b.d || (b.measuredOn && b.measuredOn !== was?.measuredOn)) return b;
    if (was?.measuredOn && dayOf(on) - dayOf(was.measuredOn) >= ANOTHER_AFTER_DAYS)
      lines.push({ kind: 'measured', on: was.measuredOn, branch: b.id, d: was.d });
    if (calipersOf(tree, b.id).at(-1)?.day === dayOf(on)) lines.push({ kind: 'measured', on, branch: b.id, d: b.d });
    return { ...b, measuredOn: on };
  });
  return { branches: dated, lines };
}

/** Lines where the record tells bends of the trunk, and it is measured anew. */
const trunkAnew = (tree: Tree, on: string): LineOf<'measured'>[] =>
  standing(tree.record).some((line) => bentBy(line).includes('trunk')) ? [{ kind: 'measured', on, branch: 'trunk', trunkWas: tree.trunk }] : [];

const SAID: Partial<Record<keyof Measured, string>> = {
  name: 'name it anew',
  species: 'say which kind of tree it is',
  client: 'say whom it belongs to',
  pot: 'measure the pot',
  vigour: 'note its vigour',
  site: 'say where it stands',
  trunk: 'measure the trunk',
  roots: 'measure the roots',
  features: 'note features',
  branches: 'measure branches',
  sight: 'bring in photos',
};

/** The refusal of taking living branches of a client's tree out of its list, before they agreed to it; null where that may be. */
export function notToUnlist(tree: Tree, out: readonly Branch[]): { refused: Refusal[] } | null {
  const living = out.flatMap((b) => (b.state === 'dead' ? [] : b.id));
  if (!living.length || !needsAgreement(tree, 'unlisting')) return null;
  const which = sayBranches(namesOf(tree), living, 4);
  return refuse('branches', 'not-agreed', `This tree belongs to ${tree.client}: note first who agreed to take ${which} out of its list, and when.`);
}

/** The tree measured anew, in whole parts of the tree file. The plan lets go of branches that are no longer there. */
export const measure = actKind({
  kind: 'measure',
  fields: { measured: SOME },
  guarded: true,
  apply: (tree, { measured, on }) => {
    const { branches, ...others } = measured;
    const next = { ...tree, ...others };
    const trunk = measured.trunk && measured.trunk !== tree.trunk ? trunkAnew(tree, on) : [];
    if (!branches) return { tree: next, lines: trunk };
    const there = new Set(branches.map((b) => b.id));
    const notYet = notToUnlist(
      tree,
      tree.branches.filter((b) => !there.has(b.id)),
    );
    if (notYet) return notYet;
    // Photos tell how well they show what is measured by them.
    const thick = thicknessAnew(tree, branches, on, () => measured.sight !== undefined);
    return {
      tree: withBranches(next, thick.branches),
      lines: [...unlistedLines(tree, branches, on), ...lineAnew(tree, branches, on), ...thick.lines, ...trunk],
    };
  },
  say: ({ measured }) => {
    const parts = Object.keys(measured) as (keyof Measured)[];
    return (parts.length === 1 && SAID[parts[0]!]) || 'measure';
  },
});
