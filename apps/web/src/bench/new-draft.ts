import { useEffect, useState } from 'react';
import type { BentByEye, MetalName, WiredHeight, WiredRow, WiredSide } from '@ustle/core';
import { newId } from '../shared/new-id';

/** A row as far as it was typed. */
export interface DraftRow {
  key: string;
  side: WiredSide;
  height: WiredHeight;
  d: number | null;
  metal: MetalName;
  size: number;
  since: string | null;
  bent: BentByEye | null;
}

export interface Draft {
  name: string;
  kind: string;
  rows: DraftRow[];
}

const KEY = 'ustle-new-tree';
const EMPTY: Draft = { name: '', kind: '', rows: [] };

function kept(): Draft {
  try {
    return { ...EMPTY, ...(JSON.parse(localStorage.getItem(KEY) ?? '{}') as Partial<Draft>) };
  } catch {
    return EMPTY;
  }
}

/** A tree that is being entered: kept on the device until it is on the bench. */
export function useDraft(): [Draft, (change: Partial<Draft>) => void, () => void] {
  const [draft, setDraft] = useState(kept);
  useEffect(() => localStorage.setItem(KEY, JSON.stringify(draft)), [draft]);
  return [draft, (change) => setDraft((d) => ({ ...d, ...change })), () => setDraft(EMPTY)];
}

const NEXT_SIDE: Record<WiredSide, WiredSide> = { left: 'right', right: 'back', back: 'front', front: 'left' };
const ABOVE: Record<WiredHeight, WiredHeight> = { low: 'middle', middle: 'high', high: 'high' };

/** A row to go on with: another place, the same wire on the same day. */
export function rowAfter(last: DraftRow | undefined): DraftRow {
  if (!last) return { key: newId(), side: 'left', height: 'low', d: null, metal: 'aluminium', size: 2, since: null, bent: null };
  return { ...last, key: newId(), side: NEXT_SIDE[last.side], height: last.side === 'front' ? ABOVE[last.height] : last.height, d: null };
}

/** A row that says all it must; null where it does not yet. */
export const wholeRow = ({ key: _key, d, since, ...row }: DraftRow): WiredRow | null => (d === null || since === null ? null : { ...row, d, since });
