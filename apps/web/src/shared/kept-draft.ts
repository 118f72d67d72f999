import { useEffect, useState } from 'react';

/** What was typed and not stored yet, by what it is for, the oldest first: it outlasts the page. */
const KEY = 'ustle-drafts';
const MOST = 60;

type Drafts = [key: string, value: unknown][];

function read(): Drafts {
  try {
    const found = JSON.parse(localStorage.getItem(KEY) ?? '[]') as unknown;
    return Array.isArray(found) ? (found as Drafts) : [];
  } catch {
    return [];
  }
}

export const draftOf = <T>(key: string): T | null => (read().find(([own]) => own === key)?.[1] as T | undefined) ?? null;

/** Keeps what was typed; null where there is nothing left to keep. */
export function keepDraft(key: string, value: unknown): void {
  const others = read().filter(([own]) => own !== key);
  const now: Drafts = value === null ? others : [...others, [key, value]];
  try {
    localStorage.setItem(KEY, JSON.stringify(now.slice(-MOST)));
  } catch {
    // There is no room: it stays as long as the page.
  }
}

/** A text that is being typed, kept until it is `stored`: as it was before, there is nothing to keep. */
export function useDraft(key: string, stored: string): [text: string, setText: (text: string) => void] {
  const [text, setText] = useState(() => draftOf<string>(key) ?? stored);
  // What is changed elsewhere, or taken back, is followed where nothing was typed beside it.
  const [was, setWas] = useState(stored);
  if (was !== stored) {
    setWas(stored);
    if (text === was) setText(stored);
  }
  useEffect(() => keepDraft(key, text === stored ? null : text), [key, text, stored]);
  return [text, setText];
}
