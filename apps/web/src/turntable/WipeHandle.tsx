import { useDrag } from '@use-gesture/react';
import { useRef, type KeyboardEvent } from 'react';
import { clamp } from '@ustle/core';

const STEP = 0.05;

/** The edge between before and after, drawn across the picture or moved by the arrow keys. */
export function WipeHandle({ share, onWipe }: { share: number; onWipe: (share: number) => void }) {
  const at = useRef<HTMLDivElement>(null);
  const bind = useDrag(
    ({ event, xy: [x] }) => {
      event.stopPropagation();
      const { left, width } = at.current!.parentElement!.getBoundingClientRect();
      onWipe(clamp((x - left) / width, 0, 1));
    },
    { pointer: { keys: false } },
  );
  const onKeyDown = (event: KeyboardEvent): void => {
    const by = { ArrowLeft: -STEP, ArrowRight: STEP }[event.key];
    if (by === undefined) return;
    event.stopPropagation();
    event.preventDefault();
    onWipe(clamp(share + by, 0, 1));
  };
  return (
    <div
      ref={at}
      role="slider"
      tabIndex={0}
      aria-label="Before to the left, after to the right"
      aria-valuemin={0}
      aria-valuemax={100}
      aria-valuenow={Math.round(share * 100)}
      className="absolute inset-y-0 z-10 flex w-11 -translate-x-1/2 cursor-ew-resize touch-none justify-center"
      style={{ left: `${share * 100}%` }}
      onKeyDown={onKeyDown}
      {...bind()}
    >
      <div className="h-full w-[2px] bg-copper" />
      <span className="absolute bottom-3 right-1/2 mr-2 bg-sheet/90 px-1.5 text-[0.875rem]">before</span>
      <span className="absolute bottom-3 left-1/2 ml-2 bg-sheet/90 px-1.5 text-[0.875rem]">after</span>
    </div>
  );
}
