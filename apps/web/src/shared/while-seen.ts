/**
 * Keeps something open while its page is in sight: `open` is called, and what it gives back closes it again. A browser has six lines to a server for all
 * its pages; one that nobody looks at, or that was left and waits for the back button, holds none.
 */
export function whileSeen(open: () => () => void, page: Pick<Document, 'visibilityState' | 'addEventListener' | 'removeEventListener'> = document): () => void {
  let close: (() => void) | null = null;
  const follow = (): void => {
    if (page.visibilityState === 'visible') close ??= open();
    else {
      close?.();
      close = null;
    }
  };
  follow();
  page.addEventListener('visibilitychange', follow);
  return () => {
    page.removeEventListener('visibilitychange', follow);
    close?.();
    close = null;
  };
}
