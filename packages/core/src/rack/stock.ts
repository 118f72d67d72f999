import { dayOf, isoOf } from '../units/index.js';
import type { RecordLine } from '../tree/index.js';
import { wireLength, wireMass, type MetalName } from '../wood/index.js';
import type { RackLine, RackLineOf, StockForm, StockOrigin } from './rack-lines.js';

/** A tree's record as far as the rack is concerned: its lines with their places in it, those that were replaced left out. */
export interface TreeUses {
  tree: string;
  name: string;
  uses: { at: number; on: string; roll: string; length: number; branches: string[] }[];
}

/** How a line of the rack's history was kept: with the lines that each tree's record had then. What stands after those is cut since. */
export interface KeptRackLine {
  line: RackLine;
  recorded: Readonly<Record<string, number>>;
}

export interface RollEvent {
  /** The line of the rack that says so; null where it is a tree's record. */
  line: string | null;
  on: string;
  kind: 'in' | 'weighed' | 'measured' | 'annealed' | 'gone' | 'cut';
  /** What was left after it, mm. */
  left: number;
  /** cut: how much, for which tree and branches. */
  length?: number;
  tree?: string;
  treeName?: string;
  branches?: string[];
  grams?: number;
  text?: string;
}

/** A roll or an offcut as it is now. */
export interface Stock {
  id: string;
  form: StockForm;
  origin: StockOrigin;
  metal: MetalName;
  size: number;
  soft: boolean;
  /** g, without the reel; mm when it came. */
  whole: number;
  left: number;
  mass: number;
  reel: number;
  price: number | null;
  since: string;
  /** The day its length was last weighed or measured, where it was. */
  checkedOn: string | null;
  gone: string | null;
  events: RollEvent[];
}

/** What is shorter (mm) than this is used up: nothing is wound with it. */
export const SCRAP = 60;

/** The pieces of wire that a tree's record says were cut from a roll. */
export function usesOf(record: readonly RecordLine[]): TreeUses['uses'] {
  const replaced = new Set(record.map((l) => l.corrects).filter(Boolean));
  return record.flatMap((line, at) => {
    if (line.kind !== 'wired' || !line.roll || !line.length || (line.id && replaced.has(line.id))) return [];
    const both = record.filter((l) => l.kind === 'wired' && l.run === line.run && l.on === line.on && !(l.id && replaced.has(l.id)));
    return [{ at, on: line.on, roll: line.roll, length: line.length, branches: both.flatMap((l) => (l.kind === 'wired' ? l.branch : [])) }];
  });
}

/** Lines of the rack that stand: those taken back are left out, and the ones that say so. */
export function standingOnRack(kept: readonly KeptRackLine[]): KeptRackLine[] {
  const back = new Set(kept.flatMap(({ line }) => (line.kind === 'withdrawn' ? line.corrects : [])));
  return kept.filter(({ line }) => line.kind !== 'withdrawn' && !back.has(line.id));
}

const firstLength = (line: RackLineOf<'in'>): number => line.length ?? wireLength(line.metal, line.size, Math.max(0, (line.grams ?? 0) - (line.reel ?? 0)));

type Use = TreeUses['uses'][number] & Pick<TreeUses, 'tree' | 'name'>;

/** Whether a piece was cut after a line of the rack was written: by its day, on the same day by its place in the tree's record. */
function cutSince({ line, recorded }: KeptRackLine, use: Use): boolean {
  const [day, lineDay] = [dayOf(use.on), dayOf(line.on)];
  return day > lineDay || (day === lineDay && use.at >= (recorded[use.tree] ?? Infinity));
}

function stockOf(first: KeptRackLine & { line: RackLineOf<'in'> }, about: readonly KeptRackLine[], uses: readonly Use[]): Stock {
  const { line } = first;
  const whole = firstLength(line);
  const inTurn = [...about].sort((a, b) => dayOf(a.line.on) - dayOf(b.line.on));
  const steps = [
    { kept: first, use: null, day: dayOf(line.on), order: 0 },
    ...inTurn.map((kept, i) => ({ kept, use: null, day: dayOf(kept.line.on), order: i + 1 })),
    ...uses.map((use) => ({ kept: null, use, day: dayOf(use.on), order: inTurn.filter((k) => cutSince(k, use)).length + 0.5 })),
  ].sort((a, b) => a.order - b.order || a.day - b.day);
  const stock: Stock = {
    id: line.roll,
    form: line.form,
    origin: line.origin,
    metal: line.metal,
    size: line.size,
    soft: line.soft,
    whole,
    left: whole,
    mass: 0,
    reel: line.reel ?? 0,
    price: line.price ?? null,
    since: line.on,
    checkedOn: null,
    gone: null,
    events: [],
  };
  for (const { kept, use } of steps) {
    if (use) {
      stock.left = Math.max(0, stock.left - use.length);
      stock.events.push({
        line: null,
        on: use.on,
        kind: 'cut',
        left: stock.left,
        length: use.length,
        tree: use.tree,
        treeName: use.name,
        branches: use.branches,
      });
      continue;
    }
    const now = kept!.line;
    if (now.kind === 'weighed') stock.left = wireLength(stock.metal, stock.size, Math.max(0, now.grams - stock.reel));
    if (now.kind === 'measured') stock.left = now.length;
    if (now.kind === 'weighed' || now.kind === 'measured') stock.checkedOn = now.on;
    if (now.kind === 'annealed') stock.soft = true;
    if (now.kind === 'gone') stock.gone = now.on;
    stock.events.push({
      line: now.id,
      on: now.on,
      kind: now.kind as RollEvent['kind'],
      left: stock.left,
      ...(now.text ? { text: now.text } : {}),
      ...('grams' in now && now.grams !== undefined ? { grams: now.grams } : {}),
    });
  }
  return { ...stock, mass: wireMass(stock.metal, stock.size, stock.left) };
}

/** Every roll and offcut with what is left of it: what came, what was weighed since, less what the trees' records say was cut since. */
export function rackOf(kept: readonly KeptRackLine[], trees: readonly TreeUses[]): Stock[] {
  const lines = standingOnRack(kept);
  const uses = trees.flatMap(({ tree, name, uses: own }) => own.map((use): Use => ({ ...use, tree, name })));
  return lines.flatMap((first) => {
    const { line } = first;
    if (line.kind !== 'in') return [];
    const about = lines.filter((k) => k !== first && k.line.kind !== 'withdrawn' && k.line.roll === line.roll);
    return [
      stockOf(
        { ...first, line },
        about,
        uses.filter((u) => u.roll === line.roll),
      ),
    ];
  });
}

/** What can be cut from: not gone, not used up, and soft where it is copper. */
export const isUsable = (stock: Stock): boolean => stock.gone === null && stock.left >= SCRAP && (stock.soft || stock.metal === 'aluminium');

/** Why a line does not go on the rack, with its field; null where it does. */
export function rackFault(line: RackLine, kept: readonly KeptRackLine[]): { field: string; code: string; message: string } | null {
  const fault = (field: string, code: string, message: string) => ({ field, code, message });
  const standing = standingOnRack(kept);
  if (line.kind === 'withdrawn') {
    const of = standing.find((k) => k.line.id === line.corrects)?.line;
    if (!of) return fault('corrects', 'not-found', 'That line is not on the rack, or was taken back already.');
    if (of.kind === 'in' && standing.some((k) => k.line !== of && k.line.kind !== 'withdrawn' && k.line.roll === of.roll))
      return fault('corrects', 'in-use', 'More was written of this roll since: take that back first, or say that it is gone.');
    return null;
  }
  const first = standing.find((k) => k.line.kind === 'in' && k.line.roll === line.roll)?.line as RackLineOf<'in'> | undefined;
  if (line.kind === 'in') {
    if (first) return fault('roll', 'twice', 'A roll of this id is on the rack already.');
    if (line.length === undefined && line.grams === undefined) return fault('length', 'required', 'Say how long it is, or what it weighs.');
    if (line.grams !== undefined && line.grams <= (line.reel ?? 0))
      return fault('grams', 'range', `grams: with an empty reel of ${line.reel} g it weighs more than that; ${line.grams} g leaves no wire.`);
    return null;
  }
  if (!first) return fault('roll', 'not-found', 'That roll is not on the rack.');
  if (standing.some((k) => k.line.kind === 'gone' && k.line.roll === line.roll)) return fault('roll', 'gone', 'That roll is gone: take that back first.');
  if (dayOf(line.on) < dayOf(first.on)) return fault('on', 'early', `It came on ${isoOf(dayOf(first.on))}: nothing was done with it before.`);
  if (line.kind === 'weighed' && line.grams < (first.reel ?? 0))
    return fault('grams', 'range', `grams: the empty reel alone weighs ${first.reel} g; ${line.grams} g cannot be.`);
  const whole = firstLength(first);
  const says = line.kind === 'weighed' ? wireLength(first.metal, first.size, line.grams - (first.reel ?? 0)) : line.kind === 'measured' ? line.length : 0;
  // A scale and a tape are good to a few percent.
  if (says > whole * 1.1 + 50)
    return fault(
      line.kind === 'weighed' ? 'grams' : 'length',
      'range',
      `${line.kind === 'weighed' ? 'grams' : 'length'}: that is ${(says / 1000).toFixed(1)} m, and it came with ${(whole / 1000).toFixed(1)} m. Is it another roll?`,
    );
  return null;
}
