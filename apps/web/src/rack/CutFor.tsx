import type { PieceView, TreeSummary } from '@ustle/contract';
import { greatestOf, needsOf, sayNeed, sayToBuy, type Piece, type SizeNeed, type Stock, sayLength, saySize, sayStock } from '@ustle/core';
import { Skeleton } from '../shared/parts';
import { count } from '../shared/say';
import { metalColour } from './Reel';

interface Props {
  stock: readonly Stock[];
  reserved: readonly Piece[];
  trees: readonly TreeSummary[];
  chosen: readonly string[];
  pieces: readonly PieceView[] | undefined;
  money: string;
  onChoose: (trees: string[]) => void;
}

const isView = (piece: Piece): piece is PieceView => 'branches' in piece;

/** The pieces that one roll or offcut gives, end to end and to scale. */
function CutStrip({ pieces, whole, metal }: { pieces: readonly Piece[]; whole: number; metal: Stock['metal'] }) {
  return (
    <span className="my-1 flex h-3 w-full gap-px bg-rule/40" aria-hidden="true">
      {pieces.map((p, i) => (
        <span key={i} className="h-full" style={{ width: `${(p.length / whole) * 100}%`, background: metalColour(metal) }} />
      ))}
    </span>
  );
}

function Need({ need, stock, name, money }: { need: SizeNeed; stock: readonly Stock[]; name: (tree: string) => string; money: string }) {
  const longest = greatestOf(need.cuts.map((c) => c.pieces.reduce((sum, p) => sum + p.length, 0)));
  return (
    <section className="break-inside-avoid border-t border-rule py-3">
      <h3 className="text-lg">
        {saySize(need.metal, need.size)} {need.metal}
      </h3>
      <p className={need.buy ? 'text-madder' : 'text-quiet'}>{sayNeed(need, money)}</p>
      {need.cuts.map((cut) => {
        const from = stock.find((s) => s.id === cut.from);
        const used = cut.pieces.reduce((sum, p) => sum + p.length, 0);
        return (
          <div key={cut.from ?? 'new'} className="mt-2">
            <strong className="block first-letter:uppercase">{from ? sayStock(from) : 'a new roll'}</strong>
            <CutStrip pieces={cut.pieces} whole={from?.form === 'offcut' ? from.left : longest} metal={need.metal} />
            <ul>
              {cut.pieces.map((p, i) => (
                <li key={i} className="flex gap-3">
                  <span className="w-20 shrink-0 text-right">{p.length.toFixed(0)} mm</span>
                  <span className="min-w-0 flex-1">
                    {name(p.tree)}
                    {isView(p) ? `: ${p.branches}` : ', settled'}
                    {isView(p) && p.later && <span className="text-quiet">, next session</span>}
                  </span>
                </li>
              ))}
            </ul>
            {from?.form === 'offcut' && <span className="text-quiet">{sayLength(Math.max(0, from.left - used))} is left of it</span>}
          </div>
        );
      })}
      {need.cuts.length > 1 && !need.exact && need.buy > 0 && (
        <p className="text-quiet">So many pieces were fitted, not tried out: at least {count(need.bound, 'new roll')} whatever one does.</p>
      )}
    </section>
  );
}

/** What the plans of some trees take from the rack, piece by piece, and what is to be bought. Wire settled for other trees is spoken for. */
export function CutFor({ stock, reserved, trees, chosen, pieces, money, onChoose }: Props) {
  const others = reserved.filter((p) => !chosen.includes(p.tree));
  const mine = chosen.length && pieces ? pieces.filter((p) => chosen.includes(p.tree)) : [];
  const needs = needsOf([...mine, ...others], stock);
  const name = (tree: string): string => trees.find((t) => t.id === tree)?.name ?? 'a tree that is gone';
  return (
    <div>
      <fieldset className="print:hidden">
        <legend className="mb-1 text-quiet">Cut for</legend>
        <div className="flex flex-wrap gap-1.5">
          {trees.map((t) => {
            const on = chosen.includes(t.id);
            return (
              <button
                key={t.id}
                type="button"
                aria-pressed={on}
                className={`btn btn-sm ${on ? 'btn-primary' : 'btn-outline border-rule font-normal'}`}
                onClick={() => onChoose(on ? chosen.filter((id) => id !== t.id) : [...chosen, t.id])}
              >
                {t.name}
              </button>
            );
          })}
        </div>
      </fieldset>
      <div className="mt-3" aria-live="polite">
        {chosen.length > 0 && !pieces && <Skeleton lines={6} />}
        {(chosen.length === 0 || pieces) && (
          <p className="mb-2">
            {needs.length === 0
              ? chosen.length
                ? 'Their plans have nothing to cut.'
                : 'Choose trees: what their plans cut stands here, from which roll or offcut, and what is to be bought.'
              : (sayToBuy(needs, money) ?? 'The rack has all of it.')}
          </p>
        )}
        {needs.map((need) => (
          <Need key={`${need.metal}${need.size}`} need={need} stock={stock} name={name} money={money} />
        ))}
      </div>
    </div>
  );
}
