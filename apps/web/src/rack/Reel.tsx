import type { Stock } from '@ustle/core';

export const metalColour = (metal: Stock['metal']): string => (metal === 'copper' ? 'var(--color-copper)' : 'var(--color-pewter)');

const CORE = 9;
const FULL = 35;
/** Half the height of what is wound on a reel, for a share of a full one: the same wire lies thinner further out. */
const halfHeight = (share: number): number => Math.sqrt(CORE ** 2 + Math.min(1, Math.max(0, share)) * (FULL ** 2 - CORE ** 2));

/** A roll from the side, wound as far as it is full; what is spoken for is the lighter wire outside. */
export function Reel({ stock, reserved }: { stock: Stock; reserved: number }) {
  const share = stock.left / stock.whole;
  const [outer, inner] = [halfHeight(share), halfHeight((stock.left - Math.min(reserved, stock.left)) / stock.whole)];
  const turns = Math.round(Math.min(15, Math.max(6, 44 / (stock.size * 1.6))));
  return (
    <svg viewBox="0 0 84 80" className="h-20 w-21" aria-hidden="true">
      <rect x="14" y={40 - CORE} width="56" height={CORE * 2} fill="var(--color-rule)" />
      {share > 0 && <rect x="14" y={40 - outer} width="56" height={outer * 2} fill={metalColour(stock.metal)} opacity="0.38" />}
      {share > 0 && <rect x="14" y={40 - inner} width="56" height={inner * 2} fill={metalColour(stock.metal)} />}
      {share > 0 &&
        Array.from({ length: turns - 1 }, (_, i) => {
          const x = 14 + (56 * (i + 1)) / turns;
          return <path key={i} d={`M${x - 1.2} ${40 - outer}L${x + 1.2} ${40 + outer}`} stroke="var(--color-sheet)" strokeWidth="0.9" opacity="0.75" />;
        })}
      <path d="M12 3v74M72 3v74" stroke="var(--color-bark)" strokeWidth="5" />
      <path d="M2 40h8M74 40h8" stroke="var(--color-bark)" strokeWidth="3" />
    </svg>
  );
}

/** Loose pieces, drawn to one scale: a metre is as long as the bar can be. */
export function OffcutBar({ stock, reserved }: { stock: Stock; reserved: number }) {
  const long = Math.min(1, stock.left / 1000) * 100;
  const free = stock.left > 0 ? Math.max(0, 1 - reserved / stock.left) : 0;
  return (
    <span className="block h-2.5 w-32 bg-rule/40">
      <span className="flex h-full" style={{ width: `${Math.max(2, long)}%` }}>
        <span className="h-full" style={{ width: `${free * 100}%`, background: metalColour(stock.metal) }} />
        <span className="h-full flex-1" style={{ background: metalColour(stock.metal), opacity: 0.38 }} />
      </span>
    </span>
  );
}
