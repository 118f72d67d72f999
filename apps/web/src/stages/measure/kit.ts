import { useCallback, useDeferredValue, useEffect, useMemo, useRef, useState } from 'react';
import { useDebounce } from 'use-debounce';
import {
  childrenOf,
  drawnPoint,
  drawnTrunk,
  keptInRecord,
  mirroredBranch,
  pulledBranch,
  reshaped,
  wrapDeg,
  type Branch,
  type Intent,
  type Measured,
  type Vec,
} from '@ustle/core';
import type { Desk } from '../desk';
import { oneOf, useAddress } from '../address';
import { kitOf, type Drawing } from '../stage';
import { usePhotographs } from './photographs/use-photographs';
import { SHEETS } from './sheet-names';
import { forgetTyped, isUnmeasured, keepTyped, markMeasured, markUnmeasured, useTyped } from './typed';

type Changes = Extract<Intent, { kind: 'remeasure' }>['changes'];

/** A line that nobody has measured yet; its values only say how such a branch may be. */
const FIRST: Branch = {
  id: 'b1',
  parent: 'trunk',
  at: 120,
  bearing: 90,
  elevation: 15,
  length: 180,
  d: 9,
  tipD: 3,
  bareTo: 0.35,
  green: 0,
  state: 'normal',
  stage: 'wood',
  backBuds: true,
};
const MEASURED_COLUMNS = ['at', 'bearing', 'elevation', 'length', 'd', 'tipD', 'bareTo', 'green'] as const;

/** A branch as it is being changed, not stored yet. */
interface Live {
  branch: string;
  changes: Partial<Branch>;
}
/** Keys that follow each other sooner than this are one value being typed. */
const PAUSE_MS = 220;
/** What is pulled less far than this, mm, was only touched. */
const SHORTEST_PULL = 8;

const ON_PHOTOS: Drawing = { instead: true };

/** What is being measured: shown while one types, each value stored when its field is left. */
export function useMeasureKit(desk: Desk) {
  const { stored, branch, setBranch, bearing, act, short } = desk;
  const { tree } = stored;
  const { branches } = tree;
  const kept = useTyped(stored.id);
  const onPhotos = oneOf(useAddress().get('measures'), SHEETS, 'branches') === 'photographs';
  const photographs = usePhotographs(desk, onPhotos);
  const [live, setLive] = useState<Live | null>(null);
  const [bent, setBent] = useState<Live | null>(null);
  const [part, setPart] = useState<Partial<Measured> | null>(null);
  const [pulled, setPulled] = useState<Branch | null>(null);
  // The hand on a bend sees it follow; who types sees the keys first, and the tree at the next pause.
  const [typed] = useDebounce(live, PAUSE_MS);
  const now = useDeferredValue(bent ?? typed);
  const nowPart = useDeferredValue(part);
  const nowPulled = useDeferredValue(pulled);
  const { get, set } = useAddress();
  const drawing3d = get('draw') === '1' && !onPhotos;

  const freeId = (): string => {
    const used = new Set([...branches.map((b) => b.id), ...keptInRecord(tree.record)]);
    let n = branches.length + 1;
    while (used.has(`b${n}`)) n++;
    return `b${n}`;
  };
  const add = (fresh: Branch, after: string | null): string => {
    markUnmeasured(
      stored.id,
      MEASURED_COLUMNS.map((c) => `${fresh.id}/${c}`),
    );
    void act({ kind: 'list-branch', branch: fresh, after });
    setBranch(fresh.id);
    return fresh.id;
  };
  /** A further line behind one, as such a branch may be; behind the last where none is named. */
  const addAfter = (above: Branch | undefined): string => {
    if (!above) return add({ ...FIRST, id: freeId() }, null);
    const { path: _path, name: _name, ...plain } = above;
    const next: Branch = {
      ...plain,
      id: freeId(),
      at: Math.round(above.at + 25),
      bearing: Math.round(wrapDeg(above.bearing + 135)),
      state: 'normal',
      green: 0,
    };
    return add(next, above.id);
  };
  const copy = (of: Branch): string => {
    const { path: _path, name: _name, ...plain } = of;
    return add({ ...plain, id: freeId(), green: 0 }, of.id);
  };
  const mirror = (of: Branch): string => add({ ...mirroredBranch(of, freeId(), bearing), green: 0 }, of.id);

  const change = useCallback((id: string, changes: Changes): Promise<boolean> => act({ kind: 'remeasure', branch: id, changes }), [act]);
  /** Stores one value; a tip that nobody measured follows its base. */
  const put = useCallback(
    async (id: string, column: (typeof MEASURED_COLUMNS)[number], value: number, text: string): Promise<void> => {
      markMeasured(stored.id, `${id}/${column}`);
      const tip = column === 'd' && isUnmeasured(stored.id, `${id}/tipD`) ? { tipD: Math.max(0.1, Math.round(value * 3.5) / 10) } : {};
      const taken = await change(id, { [column]: value, ...tip });
      // What was refused stays as it was typed.
      if (!taken) keepTyped(stored.id, `${id}/${column}`, { text, fault: 'Not stored: see the message below.' });
    },
    [change, stored.id],
  );

  /** Puts a branch onto the one above it in the list, or one order back. */
  const indent = (b: Branch, deeper: boolean): void => {
    const above = branches[branches.findIndex((x) => x.id === b.id) - 1];
    const parent = deeper ? above?.id : branches.find((x) => x.id === b.parent)?.parent;
    if (!parent || parent === b.parent) return;
    // Along its new parent a branch sits by default two thirds out.
    void change(b.id, deeper ? { parent, at: Math.round(above!.length * 0.66) } : { parent });
  };
  const takeOut = (b: Branch): void => {
    forgetTyped(stored.id, `${b.id}/`);
    void act({ kind: 'unlist', branches: [b.id] });
  };

  const measured = useMemo(() => {
    const base = nowPart ? { ...tree, ...nowPart } : tree;
    const changed = now ? { ...base, branches: base.branches.map((b) => (b.id === now.branch ? reshaped(b, now.changes) : b)) } : base;
    return nowPulled ? { ...changed, branches: [...changed.branches, nowPulled] } : changed;
  }, [tree, now, nowPart, nowPulled]);
  /** A branch grows out of the wood while it is pulled; let go, it is in the list. */
  const pull = (limb: string, from: Vec, to: Vec, done: boolean): void => {
    const grown = pulledBranch(tree, limb, from, to, freeId());
    setPulled(done ? null : grown);
    if (!done || grown.length < SHORTEST_PULL) return;
    void act({ kind: 'list-branch', branch: grown, after: branches.at(-1)?.id ?? null });
    setBranch(grown.id);
  };
  /** Thicker or thinner by eye: the chosen branch, or the trunk where none is. */
  const thicken = (times: number): void => {
    const tenth = (x: number): number => Math.max(0.3, Math.round(x * times * 10) / 10);
    const of = branches.find((b) => b.id === branch);
    if (of) void change(of.id, { d: tenth(of.d), tipD: Math.min(tenth(of.d), tenth(of.tipD)), known: { ...of.known, how: 'drawn' } });
    else void act({ kind: 'measure', measured: { trunk: tree.trunk.map((s) => ({ ...s, d: Math.max(0.5, tenth(s.d)) })), trunkKnown: { how: 'drawn' } } });
  };
  const chosen = measured.branches.find((b) => b.id === branch);
  // What is done is done with the tree of that moment; what is drawn is not made anew for it.
  const pullNow = useRef(pull);
  const trunkDone = useRef<() => void>(() => undefined);
  useEffect(() => {
    pullNow.current = pull;
    trunkDone.current = () => {
      if (part?.trunk) void act({ kind: 'measure', measured: part }).finally(() => setPart(null));
    };
  });
  const drawing = useMemo<Drawing>(
    () => ({
      measured,
      // A crooked branch has its handles, where a word would stand in the way.
      labels: chosen && !chosen.path ? [{ branch: chosen.id, text: short(chosen.id) }] : [],
      foliage: 0.45,
      ...(drawing3d ? { onPull: (...of: Parameters<typeof pull>) => pullNow.current(...of) } : {}),
      ...(drawing3d && !chosen
        ? {
            bendable: 'trunk',
            onMovePoint: (index: number, by: Vec) =>
              setPart((before) => ({ trunk: drawnTrunk(before?.trunk ?? tree.trunk, index, by), trunkKnown: { how: 'drawn' } })),
            onMoved: () => trunkDone.current(),
          }
        : {}),
      ...(chosen?.path
        ? {
            bendable: chosen.id,
            onMovePoint: (index: number, by: Vec) =>
              setBent((before) => {
                const b = before?.branch === chosen.id ? { ...chosen, ...before.changes } : chosen;
                return { branch: chosen.id, changes: drawnPoint(b, index, by) };
              }),
            onMoved: () =>
              setBent((before) => {
                if (before) void change(before.branch, before.changes as Changes);
                return null;
              }),
          }
        : {}),
    }),
    [measured, chosen, short, change, drawing3d, tree.trunk],
  );
  return {
    drawing: onPhotos ? ON_PHOTOS : drawing,
    onPhotos,
    drawing3d,
    setDrawing: (on: boolean) => set({ draw: on ? '1' : null }),
    thicken,
    photographs,
    kept,
    typedIn: (field: string, typed: Parameters<typeof keepTyped>[2]) => keepTyped(stored.id, field, typed),
    setLive,
    setPart,
    put,
    change,
    measure: (parts: Partial<Measured>) => act({ kind: 'measure', measured: parts }),
    addAfter,
    copy,
    mirror,
    indent,
    takeOut,
    hasShoots: (b: Branch) => childrenOf(tree, b.id).length > 0,
  };
}

export const useMeasure = kitOf(useMeasureKit);
