import { useCallback, useEffect, useRef, useState } from 'react';

/** From the tree as it stands to the tree as posed, ms. */
const MOVES_MS = 700;

/** How far the tree is shown on its way to its poses, 0..1, and ways to set that and to move there. Once it is planned what one came for is shown, in a short movement. */
export function useShare(planned: boolean): { share: number; setShare: (share: number) => void; moveTo: (share: 0 | 1) => void } {
  const [share, setOwn] = useState(0);
  const frame = useRef(0);
  const setShare = useCallback((to: number): void => {
    cancelAnimationFrame(frame.current);
    setOwn(to);
  }, []);
  const moveTo = useCallback(
    (to: 0 | 1): void => {
      if (matchMedia('(prefers-reduced-motion: reduce)').matches) return setShare(to);
      cancelAnimationFrame(frame.current);
      const began = performance.now();
      const step = (now: number): void => {
        const gone = Math.min(1, Math.max(0, now - began) / MOVES_MS);
        setOwn(to === 1 ? gone : 1 - gone);
        if (gone < 1) frame.current = requestAnimationFrame(step);
      };
      frame.current = requestAnimationFrame(step);
    },
    [setShare],
  );
  const shown = useRef(false);
  useEffect(() => {
    if (!planned || shown.current) return;
    shown.current = true;
    moveTo(1);
  }, [planned, moveTo]);
  useEffect(() => () => cancelAnimationFrame(frame.current), []);
  return { share, setShare, moveTo };
}
