import { useCallback, useLayoutEffect, useRef, type ReactNode } from 'react';
import type { MarkStage } from '@ustle/core';

/** Two taps within so long are one: the second was meant for what is gone. */
const ONE_TAP_MS = 400;

/** A guard for what is shown: whatever is pressed within a moment of its coming was meant for what stood there before. */
export function useOncePer(shown: unknown): (press: () => void, at: number) => void {
  const since = useRef(0);
  useLayoutEffect(() => {
    since.current = performance.now();
  }, [shown]);
  return useCallback((press, at) => {
    if (at - since.current >= ONE_TAP_MS) press();
  }, []);
}

interface Props {
  once: (press: () => void, at: number) => void;
  onPress: () => void;
  className: string;
  children: ReactNode;
}

/** A button of a card that answers. */
export const Press = ({ once, onPress, className, children }: Props) => (
  <button type="button" className={className} onClick={(event) => once(onPress, event.timeStamp)}>
    {children}
  </button>
);

/** What was seen asks for more than a look. */
export const isGrave = (stage: MarkStage): boolean => stage === 'marking' || stage === 'deep' || stage === 'swallowed';
