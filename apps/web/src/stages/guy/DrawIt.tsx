/** A slider from nothing to full, and what the wood is asked for there. */
export function DrawIt({ label, share, onShare, said }: { label: string; share: number; onShare: (share: number) => void; said: string | null }) {
  return (
    <label className="block">
      <span className="mb-1 block text-quiet">{label}</span>
      <input
        type="range"
        min="0"
        max="100"
        value={Math.round(share * 100)}
        className="range range-xs w-full"
        onChange={(event) => onShare(Number(event.target.value) / 100)}
      />
      <span aria-live="polite">{said ?? ' '}</span>
    </label>
  );
}
