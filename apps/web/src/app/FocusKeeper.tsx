import { useEffect } from 'react';

const FOCUSABLE = 'button:not(:disabled), a[href], input:not(:disabled):not([type=hidden]), select, textarea, summary, [tabindex]:not([tabindex="-1"])';

const isLost = (element: Element): boolean => !element.isConnected || element.matches(':disabled');

/** Where the focus goes when what had it is gone: to what stands in its place, else to the nearest part of the page that is still there. */
function refuge(path: readonly Element[], index: number): HTMLElement | null {
  const home = path.find((e) => e.isConnected && e !== document.body && e.querySelector(FOCUSABLE));
  if (!home) return document.querySelector<HTMLElement>('main');
  const inside = [...home.querySelectorAll<HTMLElement>(FOCUSABLE)].filter((e) => e.offsetParent !== null);
  return inside[Math.min(index, inside.length - 1)] ?? null;
}

/** Keeps the focus on the page when an act takes away the very thing that had it. */
export function FocusKeeper() {
  useEffect(() => {
    let path: Element[] = [];
    let index = 0;
    const remember = (event: FocusEvent): void => {
      path = [];
      for (let e = event.target as Element | null; e; e = e.parentElement) path.push(e);
      const home = path.slice(1).find((e) => e.querySelectorAll(FOCUSABLE).length > 1);
      index = home ? [...home.querySelectorAll(FOCUSABLE)].indexOf(path[0]!) : 0;
      // The nearest part with other things in it stands first: the one that had the focus may go with its own box.
      path = home ? path.slice(path.indexOf(home)) : path;
      last = event.target as Element;
    };
    let last: Element | null = null;
    const keep = (): void => {
      const now = document.activeElement;
      if (!last || (now && now !== document.body) || !isLost(last)) return;
      const to = refuge(path, index);
      if (to && to.tabIndex < 0 && !to.hasAttribute('tabindex')) to.tabIndex = -1;
      to?.focus({ preventScroll: true });
    };
    const observer = new MutationObserver(keep);
    observer.observe(document.body, { childList: true, subtree: true, attributes: true, attributeFilter: ['disabled'] });
    document.addEventListener('focusin', remember);
    return () => {
      observer.disconnect();
      document.removeEventListener('focusin', remember);
    };
  }, []);
  return null;
}
