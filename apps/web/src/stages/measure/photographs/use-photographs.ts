import { useCallback, useMemo, useState } from 'react';
import {
  keptInRecord,
  partId,
  PLUMB_LINE,
  sayPart,
  shoulderIn,
  MOST_ROUNDS,
  POT_LINE,
  nextPhoto,
  project,
  type DrawnPart,
  type Camera,
  type FoundLine,
  type GreenMask,
  type KeptLine,
  type KeptPhoto,
  type KeptSight,
  type Px,
  type Tree,
  type Vec,
} from '@ustle/core';
import { worker, useAnswer } from '../../../jobs/use-planner';
import { visionWorker } from '../../../jobs/use-vision';
import type { SightAnswer } from '../../../jobs/planner';
import { useAddress } from '../../address';
import type { Desk } from '../../desk';
import { NO_SIGHT, takeIn, type Coming } from './bring-photos';
import { ledThrough, nearestPart } from './drawn-line';
import { usePhotoAddress } from './photo-address';

/** A line that was begun: its shoulder is pressed, its tip not yet. */
interface Begun {
  line: string;
  /** The line the address asked for then: until it follows, what was begun counts. */
  over: string | null;
  photo: string;
  at: Px;
}

const TRUNK = 'trunk';
/** What is drawn straight from one press to the next. */
export const isMark = (line: string): boolean => line === POT_LINE || line === PLUMB_LINE;
/** A press so near to a ring means it, as a share of how near to a line a press leads it: to that of the line in hand, whose shoulder may lie a little beside it; to another's. */
const ON_RING = { own: 1, other: 0.4 };
/** Of a tree nobody knows yet, this place counts for which photo shows most: about the middle of a small one, mm. */
const ABOUT: Vec = [0, 0, 150];
const tenth = (x: number): number => Math.round(10 * x) / 10;
const tenths = ([x, y]: Px): Px => [tenth(x), tenth(y)];

/** The photos that a tree is measured by: what is in them, what is drawn, what follows, and which one is looked at. */
export function usePhotographs(desk: Desk, open: boolean) {
  const { stored, act, today, names } = desk;
  const { tree } = stored;
  const { get, set } = useAddress();
  const sight: KeptSight = tree.sight ?? NO_SIGHT;
  const addressOf = usePhotoAddress(stored.id);
  const asked = open && sight.photos.length > 0;
  const answered = useAnswer(
    async () => (asked ? { of: tree.sight, answer: (await worker('sight').sight(tree)) as SightAnswer | null } : null),
    // What else changes on a tree moves none of its lines.
    [asked, tree.sight, tree.branches, tree.trunk],
  );
  const answer = answered?.answer ?? null;
  const [began, setBegun] = useState<Begun | null>(null);
  const [coming, setComing] = useState<{ at: number; of: number } | null>(null);
  const [refused, setRefused] = useState<readonly { name: string; why: string }[]>([]);
  const [finding, setFinding] = useState(false);
  const [green, setGreen] = useState<{ at: number; of: number; rest: number | null } | null>(null);

  const solved = answer?.sight ?? null;
  const cameras = useMemo(() => new Map<string, Camera>((solved?.cameras ?? []).map((c) => [c.photo, c.camera])), [solved]);
  const found = useMemo(() => new Map<string, FoundLine>((solved?.lines ?? []).map((l) => [l.line, l])), [solved]);
  const left = useMemo(() => new Map<string, string>((answer ? (answer.sight ? answer.sight.left : answer.left) : []).map((l) => [l.photo, l.why])), [answer]);
  const numbers = useMemo(() => new Map(sight.photos.map((p, i) => [p.photo, i + 1])), [sight.photos]);
  /** Round the tree, as far as that is known; the others behind them, as they came. */
  const inOrder = useMemo(() => {
    const at = new Map((solved?.cameras ?? []).map((c) => [c.photo, c.bearing]));
    return [...sight.photos].sort((a, b) => (at.get(a.photo) ?? a.bearing ?? 360) - (at.get(b.photo) ?? b.bearing ?? 360));
  }, [sight.photos, solved]);

  const drawnLines = useMemo(() => [...new Set(sight.drawn.map((d) => d.line))], [sight.drawn]);
  const asksFor = get('line');
  const begun = began && (asksFor === began.over || asksFor === began.line) ? began : null;
  const line = begun?.line ?? asksFor ?? (drawnLines.includes(TRUNK) ? (drawnLines.at(-1) ?? TRUNK) : TRUNK);
  const photo: KeptPhoto | undefined = inOrder.find((p) => p.photo === get('shot')) ?? inOrder[0];
  const earlier = sight.earlier?.findLast((round) => round.photos.some((p) => p.camera)) ?? null;
  const lines = useMemo(() => [...new Set([TRUNK, ...drawnLines, ...(earlier?.drawn ?? []).map((d) => d.line), line])], [drawnLines, earlier, line]);
  /** Branches of the list that are drawn over no photo yet. */
  const undrawn = useMemo(() => tree.branches.filter((b) => !lines.includes(b.id)), [tree.branches, lines]);
  const drawnHere: KeptLine | undefined = photo && sight.drawn.find((d) => d.line === line && d.photo === photo.photo);
  const nameOf = useCallback(
    (of: string): string => {
      if (tree.branches.some((b) => b.id === of)) return names(of);
      const part = sayPart(of);
      return part ? part[0]!.toUpperCase() + part.slice(1) : `new branch ${of.replace(/^b/, '')}`;
    },
    [names, tree.branches],
  );
  /** What is said of photos, which are known here by their number. */
  const said = (text: string): string => [...numbers].reduce((all, [id, number]) => all.replaceAll(id, `photo ${number}`), text);
  const nextFor = (of: string): string | null => (isMark(of) ? null : nextPhoto(of, sight.drawn, cameras, found.get(of)?.end ?? ABOUT));

  /** Where lines that are drawn elsewhere, but not in this photo, leave their wood here: as they stand in space, or where their line of sight meets known wood. */
  const waiting = useMemo((): Map<string, Px> => {
    const here = photo && cameras.get(photo.photo);
    if (!here) return new Map();
    const wood = [...found.values()];
    return new Map(
      drawnLines.flatMap((l): [string, Px][] => {
        if (isMark(l) || l === TRUNK || sight.drawn.some((d) => d.line === l && d.photo === photo.photo)) return [];
        const space = found.get(l);
        const first = sight.drawn.find((d) => d.line === l && cameras.has(d.photo));
        const others = wood.filter((w) => w.line !== l);
        const at = space ? project(here, space.start) : first && shoulderIn(cameras.get(first.photo)!, first.points[0]!, others, here);
        return at ? [[l, at]] : [];
      }),
    );
  }, [photo, cameras, found, drawnLines, sight.drawn]);

  const freeId = (): string => {
    const used = new Set([...tree.branches.map((b) => b.id), ...drawnLines, ...keptInRecord(tree.record)]);
    let n = tree.branches.length + 1;
    while (used.has(`b${n}`)) n++;
    return `b${n}`;
  };
  const choose = (of: string): void => {
    setBegun(null);
    set({ line: of });
  };
  const look = (at: string): void => set({ shot: at });

  const put = (points: readonly Px[] | null, widths: KeptLine['widths']): Promise<boolean> =>
    act({ kind: 'draw-line', line, photo: photo!.photo, points: points && points.map(tenths), ...(widths?.length ? { widths } : {}) });

  /** A press on the photo: a shoulder, then a tip; where the shoulder is known in space, the tip at once. A drawn line is led through a press within so many px of it. */
  const press = async (at: Px, within: number): Promise<void> => {
    if (!photo) return;
    const mine = begun?.line === line && begun.photo === photo.photo ? begun.at : null;
    const onRing = ([of, p]: [string, Px]): boolean => Math.hypot(p[0] - at[0], p[1] - at[1]) <= ON_RING[of === line ? 'own' : 'other'] * within;
    const ring = mine ? undefined : [...waiting].find(onRing);
    const begin = (of: string): void => {
      set({ line: of });
      setBegun({ line: of, over: asksFor, photo: photo.photo, at });
    };
    if (drawnHere) {
      // Where it strayed it is led through there; farther off, a further one is begun.
      if (nearestPart(drawnHere.points, at).off <= within) await put(ledThrough(drawnHere.points, at), drawnHere.widths);
      else if (ring) begin(ring[0]);
      else if (found.has(TRUNK) && !isMark(line)) begin(freeId());
      return;
    }
    if (ring) return begin(ring[0]);
    const camera = cameras.get(photo.photo);
    const there = found.get(line);
    const shoulder = mine ?? waiting.get(line);
    if (!shoulder) return begin(line);
    setBegun(null);
    if (isMark(line)) return void (await put([shoulder, at], undefined));
    setFinding(true);
    try {
      const runs = camera && there ? there.points.map((p) => project(camera, p)).filter((p) => p !== null) : null;
      const way = await visionWorker().follow(photo.photo, addressOf(photo.photo), shoulder, at, runs);
      await put(way.points, way.widths);
    } catch {
      await put([shoulder, at], undefined);
    } finally {
      setFinding(false);
    }
  };

  /** Brings photos in, one after the other: a phone has not room for two. */
  const bring = async (all: readonly Coming[]): Promise<void> => {
    setRefused([]);
    const no: { name: string; why: string }[] = [];
    for (const [i, each] of all.entries()) {
      setComing({ at: i + 1, of: all.length });
      const taken = await takeIn(stored.id, today, each).catch(() => ({ refused: 'It could not be read.' }));
      if ('refused' in taken) no.push({ name: each.name, why: taken.refused });
      // Each is kept as it comes: who leaves in the middle has those before.
      else await act({ kind: 'add-photo', of: taken });
      setRefused([...no]);
    }
    setComing(null);
  };
  /** Finds the foliage in all photos that are used, one after the other, and gives it to the branches it is on. */
  const findGreen = async (): Promise<void> => {
    const used = sight.photos.filter((p) => p.camera);
    const masks = new Map<string, GreenMask>();
    for (const [i, p] of used.entries()) {
      setGreen({ at: i + 1, of: used.length, rest: null });
      const mask = await visionWorker()
        .green(addressOf(p.photo))
        .catch(() => null);
      if (mask) masks.set(p.photo, mask);
    }
    const found = (await worker('sight').green(tree, masks)) as { branches: Tree['branches']; rest: number } | null;
    if (!found || !(await act({ kind: 'measure', measured: { branches: found.branches } }))) return setGreen(null);
    setGreen({ at: used.length, of: used.length, rest: found.rest });
  };
  const takeOut = (out: string): Promise<boolean> =>
    act({
      kind: 'measure',
      measured: { sight: { ...sight, photos: sight.photos.filter((p) => p.photo !== out), drawn: sight.drawn.filter((d) => d.photo !== out) } },
    });

  return {
    ...{ sight, answer, solved, cameras, found, left, numbers, inOrder, photo, line, lines, undrawn, drawnHere, begun, coming, refused, finding, green },
    ...{ addressOf, nameOf, said, nextFor, choose, look, put, press, bring, takeOut, findGreen },
    waiting,
    add: () => choose(freeId()),
    addPart: (part: DrawnPart) => {
      let n = 1;
      while (drawnLines.includes(partId(part, n))) n++;
      choose(partId(part, n));
    },
    /** The photo before or after the one that is looked at, round the tree. */
    step: (by: 1 | -1) => {
      const at = inOrder.findIndex((p) => p.photo === photo?.photo);
      if (inOrder.length) look(inOrder[(at + by + inOrder.length) % inOrder.length]!.photo);
    },
    setSide: (cardSide: number) => void act({ kind: 'measure', measured: { sight: { ...sight, cardSide } } }),
    earlier,
    /** New photos of the same tree, later: those of now are kept as an earlier round. */
    photographAgain: () => {
      const { earlier: before = [], ...round } = sight;
      return act({
        kind: 'measure',
        measured: { sight: { cardSide: sight.cardSide, photos: [], drawn: [], earlier: [...before, round].slice(-MOST_ROUNDS) } },
      });
    },
    noteHeld: (branch: string, deg: number) => void act({ kind: 'measured', branch, heldDeg: Math.round(deg) }),
    /** Whether what is shown is of what is drawn now: it is taken in only then. */
    isWorkedOut: answered?.of === tree.sight,
    takeOver: () => (answer?.by ? act({ kind: 'measure', measured: answer.by.measured }) : Promise.resolve(false)),
    forgetLine: (of: string) => act({ kind: 'measure', measured: { sight: { ...sight, drawn: sight.drawn.filter((d) => d.line !== of) } } }),
    /** What was begun by a press is not meant. */
    cancel: () => {
      setBegun(null);
      if (!drawnLines.includes(line) && !tree.branches.some((b) => b.id === line)) set({ line: null });
    },
  };
}
export type Photographs = ReturnType<typeof usePhotographs>;
