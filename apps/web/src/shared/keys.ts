import { useEffect, useSyncExternalStore } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';

/** A key, or several that do alike, and what it does. */
export interface Key {
  keys: string;
  what: string;
  run: (event: KeyboardEvent) => void;
  /** Heard in text fields too. */
  inFields?: boolean;
}
interface Sheet {
  title: string;
  keys: readonly Pick<Key, 'keys' | 'what'>[];
}

const sheets = new Map<symbol, Sheet>();
let listed: readonly Sheet[] = [];
const listeners = new Set<() => void>();
const tell = (): void => {
  listed = [...sheets.values()];
  listeners.forEach((listen) => listen());
};
const subscribe = (listener: () => void): (() => void) => {
  listeners.add(listener);
  return () => void listeners.delete(listener);
};

/** Every key that does something now, by where it belongs: the sheet of keys is made from this. */
export const useKeySheets = (): readonly Sheet[] => useSyncExternalStore(subscribe, () => listed);

const SINGLE_KEY = 'ustle-single-keys';
let single = localStorage.getItem(SINGLE_KEY) !== 'off';
export function setSingleKeys(on: boolean): void {
  single = on;
  localStorage.setItem(SINGLE_KEY, on ? 'on' : 'off');
  tell();
  listeners.forEach((listen) => listen());
}
/** Whether keys without Ctrl do something: who dictates switches them off. */
export const useSingleKeys = (): boolean => useSyncExternalStore(subscribe, () => single);

const withModifier = (keys: string): boolean => /ctrl|mod|alt/.test(keys);

/** Listens to some keys for as long as the component is there; in a text field they are the text's. */
export function useKeys(title: string, keys: readonly Key[]): void {
  const singleOn = useSingleKeys();
  const all = keys.map((k) => k.keys).join(',');
  useHotkeys(
    all,
    (event, hotkey) => {
      const found = keys.find((k) => k.keys.split(',').includes(hotkey.hotkey));
      if (!found || (!singleOn && !withModifier(found.keys))) return;
      found.run(event);
    },
    { useKey: true, enabled: keys.length > 0, enableOnFormTags: keys.some((k) => k.inFields) },
    [keys, singleOn],
  );
  const words = JSON.stringify(keys.map((k) => [k.keys, k.what]));
  useEffect(() => {
    const told = (JSON.parse(words) as [string, string][]).map(([k, what]) => ({ keys: k, what }));
    if (!told.length) return undefined;
    const mine = Symbol(title);
    sheets.set(mine, { title, keys: told });
    tell();
    return () => {
      sheets.delete(mine);
      tell();
    };
  }, [title, words]);
}
