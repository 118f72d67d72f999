import { sayTurn } from '../pose/index.js';
import type { Names, PlannedBend, Tree } from '../tree/index.js';
import { unrolled, type PieceMark, type Unrolled } from '../wire/index.js';
import { escaped } from './escaped.js';
import type { PlanDocument } from './plan.js';
import type { PlanRun } from './runs.js';

/** A piece of wire laid out straight, with what stands beside it. */
export interface PieceStrip extends Pick<Unrolled, 'length' | 'route'> {
  metal: PlanRun['metal'];
  marks: PieceMark[];
  /** What is told, in its order along the piece: at how many mm. `of` is null for the way round the limb. */
  words: { at: number; text: string; of: PieceMark['kind'] | null }[];
}

/** What a strip is drawn with: a page has names for its colours, a file the colours themselves. */
export interface StripLook {
  ink: string;
  quiet: string;
  rule: string;
  sheet: string;
  bark: string;
  moss: string;
  copper: string;
  pewter: string;
}

/** The strip's colours on paper. */
export const ON_PAPER: StripLook = {
  ink: '#24251f',
  quiet: '#5f5d52',
  rule: '#d3cab7',
  sheet: '#faf7ef',
  bark: '#6e5844',
  moss: '#566e43',
  copper: '#a4532a',
  pewter: '#7c858c',
};

function sayMark(mark: PieceMark, bend: PlannedBend | undefined, short: Names): string {
  if (mark.kind === 'end') return 'end loop';
  if (mark.kind === 'shoulder') return mark.branch === 'trunk' ? 'out of the soil' : `shoulder of ${short(mark.branch!)}`;
  if (mark.kind === 'shoot') return `past ${short(mark.branch!)}`;
  return `${bend!.angle.toFixed(0)}° ${sayTurn(bend!.start, bend!.toward)}`;
}

function sayWay(run: PlanRun): string {
  if (run.kind === 'trunk') return `${(run.anchor?.soil ?? 0).toFixed(0)} mm into the soil`;
  return run.kind === 'pair' ? `round, ${run.route!.turnDeg.toFixed(0)}°` : `${(run.anchor?.turns ?? 2).toFixed(1)} turns to anchor`;
}

/** A planned piece laid out straight: shoulders, the way round the limb, bends, side shoots stepped over; null where the plan was made without its places. docs: The unrolled piece. */
export function pieceStrip(run: PlanRun, tree: Tree, plan: Pick<PlanDocument, 'poses' | 'trunk'>, short: Names): PieceStrip | null {
  const { places } = run;
  if (!places) return null;
  const bendsOf = (branch: string): readonly PlannedBend[] =>
    (branch === 'trunk' ? plan.trunk?.bends : plan.poses.find((p) => p.branch === branch)?.bends) ?? [];
  const { length, route, ...whole } = unrolled(tree, { ...run, places }, bendsOf);
  // A bend that a tie holds is none of its wire's.
  const isItsOwn = ({ branch, bend }: PieceMark): boolean => bend === null || run.branches.find((b) => b.branch === branch)!.bends[bend] !== null;
  const marks = whole.marks.filter(isItsOwn);
  const words = [
    ...marks.map((m) => ({ at: m.at + m.length / 2, of: m.kind, text: sayMark(m, m.bend === null ? undefined : bendsOf(m.branch!)[m.bend], short) })),
    { at: (route.from + route.to) / 2, of: null, text: sayWay(run) },
  ].sort((a, b) => a.at - b.at);
  return { length, route, marks, words, metal: run.metal };
}

/** The strip in one sentence, for who cannot see it. */
export const sayStrip = ({ length, words }: PieceStrip): string =>
  `The piece laid straight, ${length.toFixed(0)} mm: ${words.map((w) => `${w.at.toFixed(0)} mm ${w.text}`).join('; ')}`;

const TICK = 50;
const STRIP_X = 46;
const WIDE = 350;
/** Least room between two lines of words. */
const LINE = 20;

/** Words beside a strip, moved down where two would lie over each other. */
function spread(at: readonly number[]): number[] {
  const out: number[] = [];
  at.forEach((y, i) => out.push(i ? Math.max(y, out[i - 1]! + LINE) : y));
  return out;
}

/** A strip as an SVG drawing to scale, a tick each 50 mm; long pieces are drawn smaller. */
export function stripSvg({ length, route, marks, words, metal }: PieceStrip, look: StripLook): string {
  const scale = Math.min(0.85, Math.max(0.4, 520 / length));
  const y = (mm: number): number => 14 + mm * scale;
  const f = (x: number): string => String(Math.round(x * 10) / 10);
  const lines = spread(words.map((w) => y(w.at)));
  const high = Math.max(y(length), lines[lines.length - 1] ?? 0) + 16;
  const colour = metal === 'copper' ? look.copper : look.pewter;
  const ticks = Array.from({ length: Math.floor(length / TICK) + 1 }, (_, i) => {
    const at = f(y(i * TICK));
    const label = i % 2 ? '' : `<text x="${STRIP_X - 16}" y="${f(y(i * TICK) + 5)}" text-anchor="end" fill="${look.quiet}">${i * TICK}</text>`;
    return `<line x1="${STRIP_X - 13}" x2="${STRIP_X - 7}" y1="${at}" y2="${at}" stroke="${look.quiet}"/>${label}`;
  });
  const drawn = marks.map((m) => {
    const [at, long] = [f(y(m.at)), m.length * scale];
    if (m.kind === 'bend') return `<path d="M${STRIP_X + 6} ${at}q7 ${f(long / 2)} 0 ${f(long)}" fill="none" stroke="${look.ink}" stroke-width="2"/>`;
    if (m.kind === 'shoot') return `<circle cx="${STRIP_X}" cy="${at}" r="4.5" fill="${look.sheet}" stroke="${look.moss}" stroke-width="2"/>`;
    if (m.kind === 'shoulder') return `<path d="M${STRIP_X - 9} ${at}h18" stroke="${look.ink}" stroke-width="2.5"/>`;
    return `<circle cx="${STRIP_X}" cy="${f(y(m.at + m.length / 2))}" r="${f(Math.max(3, long / 3))}" fill="none" stroke="${colour}" stroke-width="2"/>`;
  });
  const told = words.map(
    (w, i) =>
      `<path d="M${STRIP_X + 14} ${f(y(w.at))}L${STRIP_X + 22} ${f(lines[i]!)}" fill="none" stroke="${look.rule}"/>` +
      `<text x="${STRIP_X + 26}" y="${f(lines[i]! + 5)}" fill="${w.of === 'shoot' ? look.moss : look.ink}">${escaped(w.text)}</text>`,
  );
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${WIDE} ${f(high)}" width="${WIDE}" height="${f(high)}" font-size="15">`,
    ...ticks,
    `<rect x="${STRIP_X - 2.5}" y="${f(y(0))}" width="5" height="${f(length * scale)}" fill="${colour}"/>`,
    `<rect x="${STRIP_X - 5}" y="${f(y(route.from))}" width="10" height="${f(Math.max(2, (route.to - route.from) * scale))}" fill="${look.bark}" opacity="0.55"/>`,
    ...drawn,
    ...told,
    '</svg>',
  ].join('');
}
