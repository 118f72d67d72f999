import { sayDay } from '../units/index.js';
import { pieceStrip, sayRoute, sayWire, type PlanDocument } from '../plan/index.js';
import { needsOf, sayStock, type Piece, type SizeNeed, type Stock } from '../rack/index.js';
import { coilsOn, namesOf, sayBranches, shortNamesOf, type Tree } from '../tree/index.js';
import { sayLength, saySize } from '../wood/index.js';
import { asItStands } from '../stand/index.js';
import { many, under, type Paper, type Section } from './paper.js';

const SPRINGS = "A wire's end springs: hold it, and protect your eyes.";

const fromWhat = (id: string | null, stock: readonly Stock[]): string => {
  const found = stock.find((s) => s.id === id);
  return found ? sayStock(found) : 'a new roll';
};

/** The pieces of a tree's plan on paper, those that are on left out: what to cut from which roll, then each laid straight. */
export function piecesPaperOf(given: Tree, plan: PlanDocument, onDay: number, stock: readonly Stock[] = []): Paper {
  const tree = asItStands(given, onDay);
  const names = namesOf(tree);
  const short = shortNamesOf(tree);
  const on = new Set(coilsOn(tree, onDay).map((c) => c.branch));
  const runs = plan.runs.filter((r) => r.branches.some((b) => !on.has(b.branch)));
  const pieces = plan.cutList.flatMap(({ metal, size, pieces: of }) => of.map((p) => ({ ...p, metal, size, tree: tree.name })));
  const facts = needsOf(pieces, stock).flatMap((need) =>
    need.cuts.map((cut): [string, string] => [
      `${saySize(need.metal, need.size)} ${need.metal}`,
      `${cut.pieces.map((p) => `${p.length.toFixed(0)} mm (${1 + runs.findIndex((r) => r.id === p.run)})`).join(', ')}; from ${fromWhat(cut.from, stock)}`,
    ]),
  );
  const sections: Section[] = runs.length
    ? [
        {
          head: 'To cut first',
          caution: [SPRINGS],
          facts,
          text: [
            `${many(pieces.length, 'piece')}, ${sayLength(pieces.reduce((sum, p) => sum + p.length, 0))} in all. In brackets the number of the piece below, in the order in which they go on.`,
          ],
        },
        {
          head: 'Each piece laid straight',
          pieces: runs.map((run, i) => ({
            head: `${i + 1}. ${sayBranches(
              names,
              run.branches.map((b) => b.branch),
              6,
            )}`,
            text: [
              `${sayWire(run)}, ${run.length.toFixed(0)} mm${plan.coverage.later.includes(run.id) ? ', for the next session' : ''}`,
              `${sayRoute(run, names)}; ${run.branches
                .map((b) => `${short(b.branch)} ${b.start}, ${b.hand === 'cw' ? 'clockwise' : 'counter-clockwise'}`)
                .join('; ')}`,
            ],
            strip: pieceStrip(run, tree, plan, short),
          })),
        },
      ]
    : [{ head: 'No wire', text: ['No branch waits for wire.'] }];
  return { title: `${tree.name}: the wire, piece by piece`, under: under(tree, onDay), sections };
}

/** What wire of one size is needed, had and to be bought. */
export function sayNeed(need: SizeNeed, money: string): string {
  const hard = need.hard ? `, and ${sayLength(need.hard)} that is hard: anneal it first` : '';
  const price = need.buyPrice === null ? '' : `, about ${need.buyPrice.toFixed(2)} ${money} by what it cost last`;
  return [
    `${sayLength(need.total)} in ${many(need.pieces.length, 'piece')}; ${need.have ? `${sayLength(need.have)} on the rack` : 'none on the rack'}${hard}.`,
    ...(need.buy > 0 ? [`Buy ${many(need.buy, 'roll')} of half a kilogram${price}.`] : []),
  ].join(' ');
}

/** What is to be bought for all sizes together; null where the rack has all of it. */
export function sayToBuy(needs: readonly SizeNeed[], money: string): string | null {
  const mass = needs.reduce((sum, n) => sum + n.buyMass, 0);
  const price = needs.reduce((sum, n) => sum + (n.buyPrice ?? 0), 0);
  return mass ? `To buy: ${(mass / 1000).toFixed(1)} kg${price ? `, about ${price.toFixed(2)} ${money}` : ''}.` : null;
}

/** What is cut from the rack on paper: size by size, from which roll or offcut which pieces; `called` says where a piece goes. */
export function rackPaperOf(needs: readonly SizeNeed[], stock: readonly Stock[], money: string, onDay: number, called: (piece: Piece) => string): Paper {
  const sections = needs.map((need): Section => ({
    head: `${saySize(need.metal, need.size)} ${need.metal}`,
    text: [sayNeed(need, money)],
    ticks: need.cuts.map((cut) => ({
      head: `From ${fromWhat(cut.from, stock)}`,
      text: cut.pieces.map((p) => `${p.length.toFixed(0)} mm  ${called(p)}`),
    })),
  }));
  const all: Section[] = needs.length
    ? [{ head: 'Before you cut', caution: [SPRINGS], text: [sayToBuy(needs, money) ?? 'The rack has all of it.'] }, ...sections]
    : [{ head: 'Nothing to cut', text: ['The plans of these trees have nothing to cut.'] }];
  return { title: 'What to cut from the rack', under: `${sayDay(onDay)}.`, sections: all };
}
