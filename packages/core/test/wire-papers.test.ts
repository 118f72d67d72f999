import {
  dayOf,
  generateTree,
  namesOf,
  needsOf,
  ON_PAPER,
  paperOf,
  pieceStrip,
  planTree,
  rackPaperOf,
  sayNeed,
  sayStrip,
  shortNamesOf,
  stripSvg,
  type Paper,
  type Piece,
  type PlanDocument,
  type Stock,
  type Tree,
} from '../src/index.js';
import { after } from './trees.js';

const ON = dayOf('2026-10-10');
const tree = generateTree({ seed: 31, name: 'Curlew <i>', species: 'larch', height: 520, base: 44, primaries: 6, secondaries: 2, faults: [] });
const plan = planTree(tree, ON, { fronts: false, places: true });
const short = shortNamesOf(tree);
const section = (paper: Paper, head: RegExp): Paper['sections'][number] => paper.sections.find((s) => head.test(s.head))!;
const roll = (id: string, of: Partial<Stock>): Stock => ({
  id,
  form: 'roll',
  origin: 'bought',
  metal: 'copper',
  size: 2,
  since: '2026-03-12',
  whole: 10_000,
  left: 10_000,
  soft: true,
  gone: null,
  mass: 0,
  reel: 0,
  checkedOn: null,
  price: null,
  events: [],
  ...of,
});

test('a strip tells each mark of its piece in the order from its first end, and its drawing has all of them, at their places', () => {
  for (const run of plan.runs) {
    const strip = pieceStrip(run, tree, plan, short)!;
    expect(strip.words.map((w) => w.at)).toEqual(strip.words.map((w) => w.at).sort((a, b) => a - b));
    expect(strip.words).toHaveLength(strip.marks.length + 1);
    for (const { branch } of run.branches) if (branch !== 'trunk') expect(sayStrip(strip)).toContain(`shoulder of ${short(branch)}`);
    // Each bend of the pose stands on the strip with its own angle.
    const bends = run.branches.flatMap(({ branch }) => plan.poses.find((p) => p.branch === branch)?.bends ?? []);
    expect(strip.words.filter((w) => w.of === 'bend').map((w) => w.text.split('°')[0])).toEqual(expect.arrayContaining(bends.map((b) => b.angle.toFixed(0))));
    const svg = stripSvg(strip, ON_PAPER);
    const count = (pattern: RegExp): number => (svg.match(pattern) ?? []).length;
    expect(count(/<text x="72"/g)).toBe(strip.words.length);
    expect(count(/<line /g)).toBe(Math.floor(run.length / 50) + 1);
    expect(count(/<circle /g)).toBe(strip.marks.filter((m) => m.kind === 'end' || m.kind === 'shoot').length);
    // The ticks and the piece are to one scale: 50 mm between two ticks, the piece as long as it is.
    const ticks = [...svg.matchAll(/<line [^>]*y1="([\d.]+)"/g)].map((m) => Number(m[1]));
    const tall = Number(/width="5" height="([\d.]+)"/.exec(svg)![1]);
    if (ticks.length > 1) expect((tall / run.length) * 50).toBeCloseTo((ticks[ticks.length - 1]! - ticks[0]!) / (ticks.length - 1), 0);
    // No two lines of words lie over each other, and none below the drawing's edge.
    const lines = [...svg.matchAll(/<text x="72" y="([\d.]+)"/g)].map((m) => Number(m[1]));
    lines.slice(1).forEach((y, i) => expect(y - lines[i]!).toBeGreaterThanOrEqual(19.9));
    expect(Math.max(...lines)).toBeLessThan(Number(/viewBox="0 0 350 ([\d.]+)"/.exec(svg)![1]));
  }
  expect(pieceStrip({ ...plan.runs[0]!, places: undefined }, tree, plan, short)).toBeNull();
});

test('names in a drawing stay words, whatever is in them', () => {
  const strip = pieceStrip(plan.runs[0]!, tree, plan, () => '<script>&')!;
  const svg = stripSvg(strip, ON_PAPER);
  expect(svg).not.toContain('<script');
  expect(svg).toContain('&#60;script&#62;&#38;');
});

test('the pieces on paper: each that waits once, cut from what the rack has, numbered as they go on; what is on is left out', () => {
  const [sample] = plan.cutList;
  const stock = [roll('r1', { metal: sample!.metal, size: sample!.size })];
  const paper = paperOf('pieces', tree, plan, ON, { stock });
  const cut = section(paper, /To cut/);
  const pieces = section(paper, /straight/).pieces!;
  expect(pieces.map((p) => p.head)).toEqual(plan.runs.map((r, i) => `${i + 1}. ${r.branches.map((b) => namesOf(tree)(b.branch)).join(' and ')}`));
  const numbers = cut.facts!.flatMap(([, text]) => [...text.matchAll(/(\d+) mm \((\d+)\)/g)].map(([, mm, n]) => [Number(n), Number(mm)]));
  expect(numbers.sort((a, b) => a[0]! - b[0]!)).toEqual(plan.runs.map((r, i) => [i + 1, Math.round(r.length)]));
  expect(cut.facts!.filter(([, text]) => text.includes('the roll of 12 March 2026')).map(([size]) => size)).toEqual([
    expect.stringContaining(`${sample!.size.toFixed(1)} mm`),
  ]);
  expect(cut.caution!.join()).toMatch(/springs/);

  const on = plan.runs[0]!;
  const wired = on.branches.reduce<Tree>(
    (now, b) => after(now, { kind: 'wired', branch: b.branch, metal: on.metal, size: on.size, strands: 1, angle: 50, hand: b.hand, start: b.start }),
    tree,
  );
  const next: PlanDocument = planTree(wired, ON, { fronts: false, places: true });
  const left = section(paperOf('pieces', wired, next, ON), /straight/).pieces!.map((p) => p.head.replace(/^\d+\. /, ''));
  expect(left).not.toContain(on.branches.map((b) => namesOf(wired)(b.branch)).join(' and '));
  const bare = { ...tree, branches: [] };
  expect(paperOf('pieces', bare, planTree(bare, ON, { fronts: false }), ON).sections).toEqual([{ head: 'No wire', text: ['No branch waits for wire.'] }]);
});

test('the cuts on paper stand in their order with a box each, drawn where they are; cautions first, and the owner asked', () => {
  const [first, , third] = tree.branches.filter((b) => b.parent === 'trunk').map((b) => b.id) as [string, string, string];
  const decided = after(
    { ...tree, client: 'The net loft' },
    { kind: 'decide', branch: third, act: 'remove', why: 'It crosses.' },
    { kind: 'decide', branch: first, act: 'shorten', length: 60 },
  );
  const paper = paperOf('cuts', decided, planTree(decided, ON, { fronts: false }), ON);
  expect(paper.sections[0]!.caution!.join(' ')).toMatch(/blade.*local rules/);
  expect(section(paper, /Agreement/).text).toEqual(['Nothing is cut before its owner has agreed to it.']);
  const ticks = section(paper, /order/).ticks!;
  expect(ticks.map((t) => t.head)).toEqual([expect.stringMatching(/^1\. .*Shorten to 60 mm\.$/), expect.stringMatching(/^2\. .*Cut off at the trunk\.$/)]);
  expect(ticks[1]!.text.at(-1)).toBe('It crosses.');
  const { drawing } = section(paper, /Where/);
  const words = [...drawing!.matchAll(/<text[^>]*>([^<]*)</g)].map((m) => m[1]);
  expect(words.sort()).toEqual([`1: ${shortNamesOf(decided)(first)}`, `2: ${shortNamesOf(decided)(third)}`]);
  const none = paperOf('cuts', tree, plan, ON).sections;
  expect(none.map((s) => s.head)).toEqual(['Mind yourself', 'Nothing to cut']);
});

test('what is cut from the rack on paper: every piece once under what it is cut from, what to buy, what is to be annealed', () => {
  const piece = (run: string, length: number, size = 2): Piece => ({ metal: 'copper', size, length, tree: 't1', run });
  const stock = [roll('r1', { left: 900, price: 10 }), roll('r2', { size: 3, soft: false, left: 4000 })];
  const needs = needsOf([piece('w1', 500), piece('w2', 300), piece('w3', 420), piece('w4', 200, 3)], stock);
  const paper = rackPaperOf(needs, stock, '£', ON, (p) => `Curlew ${p.run}`);
  const told = paper.sections.flatMap((s) => s.ticks ?? []).flatMap((t) => t.text);
  expect(told.sort()).toEqual(['200 mm  Curlew w4', '300 mm  Curlew w2', '420 mm  Curlew w3', '500 mm  Curlew w1']);
  expect(section(paper, /^3\.0 mm/).text![0]).toMatch(/none on the rack, and 4\.0 m that is hard: anneal it first\. Buy one roll .*£ by what it cost last\.$/);
  expect(section(paper, /^Before/).text![0]).toMatch(/^To buy: \d\.\d kg, about \d+\.\d\d £\.$/);
  for (const need of needs) expect(sayNeed(need, '£').includes('Buy')).toBe(need.buy > 0);
  expect(rackPaperOf(needsOf([piece('w1', 500)], stock), stock, '£', ON, () => '').sections[0]!.text).toEqual(['The rack has all of it.']);
  expect(rackPaperOf([], stock, '£', ON, () => '').sections.map((s) => s.head)).toEqual(['Nothing to cut']);
});
