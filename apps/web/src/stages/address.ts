import { useCallback, useLayoutEffect, useRef } from 'react';
import { useSearchParams } from 'react-router';

export interface Address {
  get: (key: string) => string | null;
  /** Sets some keys at once; null takes one out. */
  set: (values: Record<string, string | null>) => void;
}

/** What was set and does not stand in the address yet: what is set next, by whatever part of the page, must not undo it. */
let coming: Record<string, string | null> = {};

/** The part of the address behind the "?": what the user looks at survives a reload, and can be passed on. */
export function useAddress(): Address {
  const [params, setParams] = useSearchParams();
  // The router makes its function anew with every address; what hangs on ours, down to the drawn tree, shall stay as it is.
  const latest = useRef(setParams);
  useLayoutEffect(() => {
    latest.current = setParams;
    coming = {};
  }, [setParams]);
  const set = useCallback((values: Record<string, string | null>) => {
    coming = { ...coming, ...values };
    const all = coming;
    latest.current((before) => withValues(before, all), { replace: true });
  }, []);
  return { get: (key) => params.get(key), set };
}

/** An address with some of its values others; null takes one away. */
export function withValues(before: URLSearchParams, values: Record<string, string | null>): URLSearchParams {
  const next = new URLSearchParams(before);
  for (const [key, value] of Object.entries(values)) {
    if (value === null) next.delete(key);
    else next.set(key, value);
  }
  return next;
}

export const finite = (text: string | null, otherwise: number): number =>
  text !== null && text !== '' && Number.isFinite(Number(text)) ? Number(text) : otherwise;
export const oneOf = <T extends string>(text: string | null, known: readonly T[], otherwise: T): T =>
  (known as readonly string[]).includes(text ?? '') ? (text as T) : otherwise;
