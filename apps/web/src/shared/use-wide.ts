import { useSyncExternalStore } from 'react';

const WIDE = '(min-width: 640px), print';

/** Whether there is room for more than a phone shows. */
export const useWide = (): boolean =>
  useSyncExternalStore(
    (tell) => {
      const query = window.matchMedia(WIDE);
      query.addEventListener('change', tell);
      return () => query.removeEventListener('change', tell);
    },
    () => window.matchMedia(WIDE).matches,
  );
