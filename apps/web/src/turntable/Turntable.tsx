import { useGesture } from '@use-gesture/react';
import { useCallback, useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { add, placeTree, withLines, type Evidence, type Front, type Limb, type PlacedTree, type Tree, type Vec } from '@ustle/core';
import { useTheme } from '../app/theme';
import { BendHandles } from './BendHandles';
import type { DrawnCoil } from './coil-geometry';
import { ROOMS } from './colours';
import type { Ball } from './framing';
import { FrameListeners, useFrames, wayInTree, type Frame } from './frames';
import { Labels } from './Labels';
import type { PhotoBehind } from './PhotoBehind';
import type { OnWood, PickAt, WoodAt } from './picking';
import { Scene } from './Scene';
import type { Tilt } from './stand';
import type { Flag } from './Table';
import type { DrawnTie } from './Ties';
import type { DottedLine } from './TreeMesh';
import { ThreadedHandles, type Threaded } from './ThreadedHandles';
import { useStand, type Company } from './use-stand';
import { WipeHandle } from './WipeHandle';

export type { Company };

export interface TurntableProps {
  tree: Tree;
  /** The tree as the plan's cuts leave it; what is not in it is drawn as pale outlines. */
  after?: Tree | null;
  /** Before to the left of this share of the picture, after to the right of it; null: after, with the outlines. */
  wipe?: number | null;
  onWipe?: (share: number) => void;
  /** Bearing the viewer stands at, degrees. */
  bearing: number;
  onBearing: (bearing: number) => void;
  company?: Company;
  /** Tilt of the tree, seen from its front. */
  view: Tilt;
  /** A part of the tree to look at from near; null: the whole tree. */
  closer?: Ball | null;
  coils?: readonly DrawnCoil[];
  /** Lines in dots: where branches shall lie. */
  poses?: readonly DottedLine[];
  /** The tree on other lines than it grows on now, in place of itself. */
  bent?: ReadonlyMap<string, Limb> | null;
  /** Guys, and places that one could go to. */
  ties?: readonly DrawnTie[];
  /** Handles on a posed branch: its bends and its tip. */
  threaded?: Threaded | null;
  rose?: readonly Front[];
  flags?: readonly Flag[];
  onFlag?: (letter: string) => void;
  selected: string | null;
  onSelect: (branch: string | null) => void;
  /** Words beside branches, most important first. */
  labels?: readonly { branch: string; text: string }[];
  /** What a judgement saw: lines and words on the tree. */
  evidence?: Evidence | undefined;
  /** Wood that is pressed and pulled: told of which limb, from where, and to where (mm, in the tree's space), and when the hand lets go. */
  onPull?: (limb: string, from: Vec, to: Vec, done: boolean) => void;
  /** A branch, or the trunk, whose points can be dragged (the first stays); told the point and how far it went in space, mm. */
  bendable?: string | null;
  onMovePoint?: (index: number, by: Vec) => void;
  onMoved?: () => void;
  /** A photo that the tree is seen on, from where it was taken; what is drawn is drawn over it. */
  photo?: PhotoBehind | null;
  /** Without the scale's words, for small pictures beside each other. */
  small?: boolean;
  /** With a plumb line and a grid in cm. */
  plumb?: boolean;
  foliage?: number;
}

const DEGREES_PER_PIXEL = 0.42;
const ZOOM_PER_PIXEL = 0.0012;

/** The tree laid out in space; the same one as long as its measures are, whatever the plan does. */
function usePlaced(tree: Tree): PlacedTree {
  // The measures say it all.
  // eslint-disable-next-line react-hooks/exhaustive-deps
  return useMemo(() => placeTree(tree), [tree.species, tree.pot, tree.trunk, tree.roots, tree.branches]);
}

/** The measured tree on its round table: turned by dragging or with the arrow keys, brought nearer with the wheel or two fingers. */
export function Turntable(props: TurntableProps) {
  const { tree, after = null, wipe = null, onWipe, bearing, onBearing, company, view, selected, onSelect, labels = [], evidence, small = false } = props;
  const { bendable = null, onMovePoint, onMoved, bent = null, threaded = null } = props;
  const [theme] = useTheme();
  const placed = usePlaced(tree);
  const placedAfter = useMemo(() => (after && after !== tree ? placeTree(after) : placed), [after, placed, tree]);

  const placedBent = useMemo(() => bent && withLines(placedAfter, bent), [placedAfter, bent]);

  const [listeners] = useState(() => new FrameListeners());
  const again = useRef<(() => void) | null>(null);
  const wipeNow = useRef(wipe ?? 0.5);
  const pickAt = useRef<PickAt | null>(null);
  const woodAt = useRef<WoodAt | null>(null);
  const box = useRef<HTMLDivElement>(null);
  const said = useRef<HTMLParagraphElement>(null);
  const [ready, setReady] = useState(false);

  // Told past the page, so that nothing of it is laid out anew while the table turns.
  const onStand = (whole: number): void => {
    box.current?.setAttribute('data-bearing', String(whole));
    if (said.current) said.current.textContent = `seen from ${whole}°`;
  };
  const { live, turnTo, rest, nearer, onKeyDown } = useStand({ bearing, onBearing, company, again, onStand });
  useLayoutEffect(() => {
    wipeNow.current = wipe ?? 0.5;
    again.current?.();
  }, [wipe]);
  // Whatever else changes is a part of the scene, which asks for a frame of itself.
  useEffect(() => again.current?.(), [placed, placedAfter, placedBent, view.bearing, view.pitch, view.roll, props.closer, props.photo]);
  useFrames(
    listeners,
    useCallback((frame: Frame) => {
      setReady(true);
      box.current?.setAttribute('data-calls', String(frame.calls));
    }, []),
  );

  /** Pulls a branch out of the wood, in the plane that faces the viewer. */
  const pull = (wood: OnWood, x: number, y: number, done: boolean): OnWood => {
    const frame = listeners.last!;
    const at = wood.point.clone().applyMatrix4(frame.tilt.clone().invert());
    const from: Vec = [at.x, at.y, at.z];
    props.onPull?.(wood.part, from, add(from, wayInTree(frame, from, x, y)), done);
    return wood;
  };
  const bind = useGesture(
    {
      /** Dragging to the right turns the near side of the table to the right; what is only touched is chosen. */
      onDrag: ({ movement: [x, y], tap, last, first, xy, initial, pinching, cancel, memo = live.current.bearing }) => {
        const pulled = first && !tap && props.onPull ? woodAt.current?.(...initial) : null;
        if (pulled || (memo as OnWood).part) return pull(pulled ?? (memo as OnWood), x, y, last);
        const from = memo as number;
        if (pinching) cancel();
        else if (tap) {
          if (!pickAt.current?.(...xy)) onSelect(null);
        } else if (last) rest(from + x * DEGREES_PER_PIXEL);
        else turnTo(from + x * DEGREES_PER_PIXEL);
        return from;
      },
      onWheel: ({ delta: [, y] }) => nearer(Math.exp(-y * ZOOM_PER_PIXEL)),
      onPinch: ({ movement: [scale], memo = 1 }) => {
        nearer(scale / (memo as number));
        return scale;
      },
    },
    { drag: { filterTaps: true, pointer: { keys: false } } },
  );

  return (
    <div
      ref={box}
      className="relative h-full w-full touch-pan-y select-none overflow-hidden outline-offset-[-2px]"
      role="application"
      tabIndex={0}
      aria-label={`${tree.name} on the turntable, seen from ${Math.round(bearing)} degrees. Arrow keys turn it, plus and minus bring it nearer.`}
      data-ready={ready ? '1' : '0'}
      data-bearing={Math.round(bearing)}
      onKeyDown={onKeyDown}
      {...bind()}
    >
      <Scene {...props} {...{ placed, placedAfter, placedBent, live, wipeNow, pickAt, woodAt, listeners, again }} room={ROOMS[theme]} />
      <Labels placed={placedBent ?? placed} labels={labels} evidence={evidence} selected={selected} onSelect={onSelect} listeners={listeners} />
      {bendable && (bendable === 'trunk' || placed.byId.get(bendable)?.branch.path) && (
        <BendHandles placed={placed} branch={bendable} onMove={(index, by) => onMovePoint?.(index, by)} onDone={() => onMoved?.()} listeners={listeners} />
      )}
      {threaded && <ThreadedHandles threaded={threaded} listeners={listeners} />}
      {wipe !== null && onWipe && !props.photo && <WipeHandle share={wipe} onWipe={onWipe} />}
      {!small && (
        <p
          ref={said}
          className="pointer-events-none absolute left-5 top-4 max-sm:bottom-2 max-sm:left-auto max-sm:right-4 max-sm:top-auto bg-base-100/85 px-1 text-quiet"
        >
          seen from {Math.round(bearing)}°
        </p>
      )}
    </div>
  );
}
