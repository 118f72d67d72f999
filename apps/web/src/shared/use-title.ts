import { useEffect } from 'react';

/** The page's title, as the browser's tab and history show it. */
export const useTitle = (title: string): void =>
  useEffect(() => {
    document.title = `${title} · Ustle`;
  }, [title]);
