import { useEffect, useLayoutEffect, type RefObject } from 'react';
import { NavigationType, useLocation, useNavigationType } from 'react-router';

interface Place {
  top: number;
  /** What was pressed there to leave: where its link leads. */
  left: string | null;
}

/** Where each address was left, in this visit. */
const places = new Map<string, Place>();
/** So long a page may take to be as tall as it was, ms. */
const GROWS_MS = 3000;

/** Keeps how far each page was scrolled: who comes back stands where they left, by the back button with the focus on the row they opened. */
export function KeepPlace({ box }: { box: RefObject<HTMLDivElement | null> }) {
  const { pathname, search } = useLocation();
  const isBack = useNavigationType() === NavigationType.Pop;
  // A page is one whatever is chosen on it; only lists are found and ordered by their address.
  const here = pathname.startsWith('/tree/') ? pathname : pathname + search;
  useLayoutEffect(() => {
    const scroller = box.current;
    const was = places.get(here);
    if (!scroller) return undefined;
    let frame = 0;
    scroller.scrollTo({ top: was?.top ?? 0 });
    if (was) {
      const until = performance.now() + GROWS_MS;
      const grow = (): void => {
        const row = was.left === null ? null : scroller.querySelector<HTMLElement>(`a[href="${CSS.escape(was.left)}"]`);
        if (isBack && row && !scroller.contains(document.activeElement)) row.focus({ preventScroll: true });
        if (Math.abs(scroller.scrollTop - was.top) > 1) scroller.scrollTo({ top: was.top });
        if (performance.now() < until && (Math.abs(scroller.scrollTop - was.top) > 1 || (isBack && was.left !== null && !row)))
          frame = requestAnimationFrame(grow);
      };
      grow();
    }
    const letGo = (): void => cancelAnimationFrame(frame);
    scroller.addEventListener('wheel', letGo, { passive: true });
    scroller.addEventListener('touchmove', letGo, { passive: true });
    return () => {
      letGo();
      scroller.removeEventListener('wheel', letGo);
      scroller.removeEventListener('touchmove', letGo);
    };
  }, [box, here, isBack]);
  useEffect(() => {
    const scroller = box.current;
    if (!scroller) return undefined;
    const keep = (event: MouseEvent): void => {
      const link = (event.target as Element | null)?.closest('a[href]');
      places.set(here, { top: scroller.scrollTop, left: link?.getAttribute('href') ?? places.get(here)?.left ?? null });
    };
    const keepTop = (): void => void places.set(here, { top: scroller.scrollTop, left: places.get(here)?.left ?? null });
    scroller.addEventListener('click', keep, true);
    scroller.addEventListener('scroll', keepTop, { passive: true });
    return () => {
      scroller.removeEventListener('click', keep, true);
      scroller.removeEventListener('scroll', keepTop);
    };
  }, [box, here]);
  return null;
}
