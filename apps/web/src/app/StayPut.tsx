import { useEffect } from 'react';

const PRESSED = 'button, summary, a[href], label, select, input';
/** So long after a press what it opened and closed may still be coming in, ms. */
const SETTLES_MS = 800;
/** Less than this nobody sees, px. */
const STILL = 1;

/** The box that scrolls what is in it. */
function scrollerOf(element: Element): HTMLElement | null {
  for (let e = element.parentElement; e; e = e.parentElement) {
    if (/auto|scroll/.test(getComputedStyle(e).overflowY) && e.scrollHeight > e.clientHeight) return e;
  }
  return document.scrollingElement as HTMLElement | null;
}

/** Scrolls by so much, and where what is below has become too short for that makes room beneath it. */
function scrollOn(scroller: HTMLElement, off: number): void {
  const short = scroller.scrollTop + off - (scroller.scrollHeight - scroller.clientHeight);
  if (short > 0) scroller.style.paddingBottom = `${parseFloat(getComputedStyle(scroller).paddingBottom) + short}px`;
  scroller.scrollTop += off;
}

/** Keeps what is pressed under the pointer, whatever it opens and closes above itself; until one scrolls or presses again. */
export function StayPut() {
  useEffect(() => {
    let frame = 0;
    const letGo = (): void => cancelAnimationFrame(frame);
    const hold = (event: MouseEvent): void => {
      letGo();
      const pressed = (event.target as Element | null)?.closest(PRESSED);
      const scroller = pressed && scrollerOf(pressed);
      if (!pressed || !scroller) return;
      const { top } = pressed.getBoundingClientRect();
      const until = performance.now() + SETTLES_MS;
      const keep = (): void => {
        if (!pressed.isConnected || performance.now() > until) return;
        const off = pressed.getBoundingClientRect().top - top;
        if (Math.abs(off) > STILL) scrollOn(scroller, off);
        frame = requestAnimationFrame(keep);
      };
      frame = requestAnimationFrame(keep);
    };
    document.addEventListener('click', hold, true);
    for (const kind of ['wheel', 'touchmove', 'pointerdown', 'keydown'] as const) document.addEventListener(kind, letGo, { capture: true, passive: true });
    return () => {
      letGo();
      document.removeEventListener('click', hold, true);
      for (const kind of ['wheel', 'touchmove', 'pointerdown', 'keydown'] as const) document.removeEventListener(kind, letGo, true);
    };
  }, []);
  return null;
}
