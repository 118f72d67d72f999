import { useEffect, useRef, type RefObject } from 'react';

/** A row that is brought into sight when it is chosen; one that was chosen before its list was opened stays where it is: a stage opens at its head. */
export function useSeenWhenChosen(open: boolean): RefObject<HTMLLIElement | null> {
  const row = useRef<HTMLLIElement>(null);
  const was = useRef(open);
  useEffect(() => {
    if (open && !was.current) row.current?.scrollIntoView({ block: 'nearest' });
    was.current = open;
  }, [open]);
  return row;
}
