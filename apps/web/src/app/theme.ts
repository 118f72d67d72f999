import { useSyncExternalStore } from 'react';

export type Theme = 'paper' | 'lamp';

const KEY = 'ustle-theme';
const listeners = new Set<() => void>();

const current = (): Theme => (document.documentElement.dataset.theme === 'lamp' ? 'lamp' : 'paper');

function apply(theme: Theme): void {
  document.documentElement.dataset.theme = theme;
  listeners.forEach((tell) => tell());
}

apply(localStorage.getItem(KEY) === 'lamp' ? 'lamp' : 'paper');

function choose(theme: Theme): void {
  localStorage.setItem(KEY, theme);
  apply(theme);
}

/** The light in the room: daylight on paper, or a lamp in the dark. */
export function useTheme(): [Theme, (theme: Theme) => void] {
  const theme = useSyncExternalStore((tell) => {
    listeners.add(tell);
    return () => listeners.delete(tell);
  }, current);
  return [theme, choose];
}
