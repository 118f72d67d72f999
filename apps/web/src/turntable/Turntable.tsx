import { Canvas, type RootState } from '@react-three/fiber';
import { useCallback, useEffect, useLayoutEffect, useMemo, useRef, useState, type KeyboardEvent, type PointerEvent, type WheelEvent } from 'react';
import { Matrix4 } from 'three';
import { clamp, NO_EVIDENCE, placeTree, wrapDeg, type Evidence, type Front, type PlacedTree, type Tree, type Vec } from '@ustle/core';
import { useTheme } from '../app/theme';
import { BendHandles } from './BendHandles';
import type { DrawnCoil } from './coil-geometry';
import { ROOMS } from './colours';
import { EvidenceLines } from './EvidenceLines';
import { FrameListeners, FrameTeller, useFrames, type Frame } from './frames';
import { FOV_DEG, reachOf } from './framing';
import { Labels } from './Labels';
import { Picker, type PickAt } from './picking';
import { PlumbLine } from './PlumbLine';
import { PotMesh } from './PotMesh';
import { OnWedge, Rig } from './Rig';
import type { Stand, Tilt } from './stand';
import { Table, type Flag } from './Table';
import { TreeMesh } from './TreeMesh';
import { Wipe } from './Wipe';

/** Turntables that turn together: each is told by how much another one is being turned, degrees. */
export type Company = Set<(by: number) => void>;

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
  coils?: readonly DrawnCoil[];
  poses?: readonly { branch: string; bearing: number; elevation: number }[];
  rose?: readonly Front[];
  flags?: readonly Flag[];
  onFlag?: (letter: string) => void;
  selected: string | null;
  onSelect: (branch: string | null) => void;
  /** Words beside branches, most important first. */
  labels?: readonly { branch: string; text: string }[];
  /** What a judgement saw: lines and words on the tree. */
  evidence?: Evidence | undefined;
  /** A branch whose points can be dragged (the shoulder stays); told the point and how far it went in space, mm. */
  bendable?: string | null;
  onMovePoint?: (index: number, by: Vec) => void;
  onMoved?: () => void;
  /** Without the scale's words, for small pictures beside each other. */
  small?: boolean;
  /** With a plumb line and a grid in cm. */
  plumb?: boolean;
  foliage?: number;
}

const STEP = 3;
const BIG_STEP = 15;
const LEAST_ZOOM = 0.7;
const MOST_ZOOM = 5;
const DEGREES_PER_PIXEL = 0.42;
const NONE: readonly never[] = [];

/** The tree laid out in space; the same one as long as its measures are, whatever the plan does. */
function usePlaced(tree: Tree): PlacedTree {
  // The measures say it all.
  // eslint-disable-next-line react-hooks/exhaustive-deps
  return useMemo(() => placeTree(tree), [tree.species, tree.pot, tree.trunk, tree.roots, tree.branches]);
}

/** Asking a shader for its faults would hold the page until it is compiled. */
const unhurried = ({ gl }: RootState): void => void (gl.debug.checkShaderErrors = import.meta.env.DEV);

/** The measured tree on its round table: turned by dragging or with the arrow keys, brought nearer with the wheel. */
export function Turntable(props: TurntableProps) {
  const {
    tree,
    after = null,
    wipe = null,
    onWipe,
    bearing,
    onBearing,
    company,
    view,
    coils = NONE,
    poses = NONE,
    rose = NONE,
    flags = NONE,
    onFlag,
    selected,
    onSelect,
    labels = NONE,
    evidence,
    bendable = null,
    onMovePoint,
    onMoved,
    small = false,
    plumb = false,
    foliage = 0.8,
  } = props;
  const [theme] = useTheme();
  const room = ROOMS[theme];
  const placed = usePlaced(tree);
  const placedAfter = useMemo(() => (after && after !== tree ? placeTree(after) : placed), [after, placed, tree]);

  // While it is turned the table runs ahead of the address, which follows: nothing of the page is laid out anew meanwhile.
  const live = useRef<Stand>({ bearing, zoom: 1 });
  const [listeners] = useState(() => new FrameListeners());
  const again = useRef<(() => void) | null>(null);
  const tiltNow = useRef(new Matrix4());
  const wipeNow = useRef(wipe ?? 0.5);
  const pickAt = useRef<PickAt | null>(null);
  const drag = useRef<{ x: number; bearing: number; moved: boolean } | null>(null);
  const box = useRef<HTMLDivElement>(null);
  const said = useRef<HTMLParagraphElement>(null);
  const [ready, setReady] = useState(false);

  const stand = useCallback((to: number) => {
    live.current.bearing = wrapDeg(to);
    const whole = String(Math.round(live.current.bearing) % 360);
    box.current?.setAttribute('data-bearing', whole);
    if (said.current) said.current.textContent = `seen from ${whole}°`;
    again.current?.();
  }, []);
  useLayoutEffect(() => {
    if (live.current.bearing !== bearing) stand(bearing);
  }, [stand, bearing]);
  useLayoutEffect(() => {
    wipeNow.current = wipe ?? 0.5;
    again.current?.();
  }, [wipe]);
  // Whatever else changes is a part of the scene, which asks for a frame of itself.
  useEffect(() => again.current?.(), [placed, placedAfter, view.bearing, view.pitch, view.roll]);
  useEffect(() => {
    if (!company) return;
    const follow = (by: number): void => stand(bearing + by);
    company.add(follow);
    return () => void company.delete(follow);
  }, [company, bearing, stand]);

  const reach = useMemo(() => reachOf(placed), [placed]);
  const tall = Math.max(...reach.map((r) => r.z)) - Math.min(0, ...reach.map((r) => r.z));
  const widest = Math.max(...reach.map((r) => r.radius));
  const radius = Math.max(Math.max(tree.pot.width, tree.pot.depth) * 0.78, Math.min(widest * 1.02, tall * 0.76));

  useFrames(
    listeners,
    useCallback((frame: Frame) => {
      setReady(true);
      box.current?.setAttribute('data-calls', String(frame.calls));
    }, []),
  );

  const nearer = (by: number): void => {
    live.current.zoom = clamp(live.current.zoom * by, LEAST_ZOOM, MOST_ZOOM);
    again.current?.();
  };
  const turnTo = (to: number): void => {
    stand(to);
    company?.forEach((follow) => follow(to - bearing));
  };
  const rest = (to: number): void => {
    const whole = Math.round(wrapDeg(to)) % 360;
    turnTo(whole);
    onBearing(whole);
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    const steps = event.shiftKey ? BIG_STEP : STEP;
    if (event.key === 'ArrowLeft') rest(live.current.bearing - steps);
    else if (event.key === 'ArrowRight') rest(live.current.bearing + steps);
    else if (event.key === '+' || event.key === '=') nearer(1.15);
    else if (event.key === '-') nearer(1 / 1.15);
    else return;
    event.preventDefault();
  };
  const onPointerDown = (event: PointerEvent): void => {
    drag.current = { x: event.clientX, bearing: live.current.bearing, moved: false };
  };
  /** Dragging to the right turns the near side of the table to the right. */
  const draggedTo = (event: PointerEvent): number | null => {
    const from = drag.current;
    if (!from) return null;
    if (Math.abs(event.clientX - from.x) > 3) from.moved = true;
    return from.moved ? from.bearing + (event.clientX - from.x) * DEGREES_PER_PIXEL : null;
  };
  const onPointerMove = (event: PointerEvent): void => {
    const now = event.buttons ? draggedTo(event) : null;
    if (now !== null) turnTo(now);
  };
  const letGo = (event: PointerEvent, clicked: boolean): void => {
    const began = drag.current;
    const now = draggedTo(event);
    drag.current = null;
    if (now !== null) rest(now);
    else if (began && clicked && !pickAt.current?.(event.clientX, event.clientY)) onSelect(null);
  };
  const onWheel = (event: WheelEvent): void => nearer(Math.exp(-event.deltaY * 0.0012));

  const shared = { onSelect, room, selected, foliage };
  const planned = <TreeMesh placed={placed} after={placedAfter} coils={coils} poses={poses} {...shared} />;
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
      onPointerDown={onPointerDown}
      onPointerMove={onPointerMove}
      onPointerUp={(event) => letGo(event, true)}
      onPointerLeave={(event) => letGo(event, false)}
      onWheel={onWheel}
    >
      <Canvas
        flat
        shadows="percentage"
        frameloop="demand"
        dpr={[0.5, 2]}
        camera={{ fov: FOV_DEG }}
        gl={{ antialias: true, preserveDrawingBuffer: true }}
        onCreated={unhurried}
      >
        <color attach="background" args={[room.ground]} />
        <Rig live={live} tall={tall} reach={reach} potHeight={tree.pot.height} radius={radius} />
        <Table
          radius={radius}
          top={-tree.pot.height - 1}
          pot={tree.pot}
          room={room}
          numerals={!small}
          rose={rose}
          flags={flags}
          onFlag={(letter) => onFlag?.(letter)}
        />
        {plumb && <PlumbLine bearing={bearing} height={placed.height} reach={radius} colour={room.pose} />}
        <OnWedge view={view} live={live} pot={tree.pot} matrix={tiltNow}>
          <PotMesh pot={tree.pot} />
          {wipe === null ? (
            planned
          ) : (
            <Wipe
              share={wipeNow}
              before={<TreeMesh placed={placed} after={placed} coils={coils} poses={NONE} {...shared} />}
              after={<TreeMesh placed={placed} after={placedAfter} outlines={false} coils={coils} poses={NONE} {...shared} />}
            />
          )}
          <EvidenceLines evidence={evidence ?? NO_EVIDENCE} colour={room.pose} thick={placed.height * 0.006} />
        </OnWedge>
        <Picker at={pickAt} />
        <FrameTeller listeners={listeners} tilt={tiltNow} again={again} />
      </Canvas>
      <Labels placed={placed} labels={labels} evidence={evidence} selected={selected} onSelect={onSelect} listeners={listeners} />
      {bendable && placed.byId.get(bendable)?.branch.path && (
        <BendHandles placed={placed} branch={bendable} onMove={(index, by) => onMovePoint?.(index, by)} onDone={() => onMoved?.()} listeners={listeners} />
      )}
      {wipe !== null && onWipe && <WipeHandle share={wipe} onWipe={onWipe} />}
      {!small && (
        <p ref={said} className="pointer-events-none absolute left-6 top-4 text-quiet">
          seen from {Math.round(bearing)}°
        </p>
      )}
    </div>
  );
}

const WIPE_STEP = 0.05;

/** The edge between before and after, drawn across the picture or moved by the arrow keys. */
function WipeHandle({ share, onWipe }: { share: number; onWipe: (share: number) => void }) {
  const at = useRef<HTMLDivElement>(null);
  const drawTo = (event: PointerEvent): void => {
    event.stopPropagation();
    const { left, width } = at.current!.parentElement!.getBoundingClientRect();
    if (event.buttons) onWipe(clamp((event.clientX - left) / width, 0, 1));
  };
  return (
    <div
      ref={at}
      role="slider"
      tabIndex={0}
      aria-label="Before to the left, after to the right"
      aria-valuemin={0}
      aria-valuemax={100}
      aria-valuenow={Math.round(share * 100)}
      className="absolute inset-y-0 z-10 flex w-11 -translate-x-1/2 cursor-ew-resize touch-none justify-center"
      style={{ left: `${share * 100}%` }}
      onPointerDown={(event) => {
        event.stopPropagation();
        event.currentTarget.setPointerCapture(event.pointerId);
      }}
      onPointerMove={drawTo}
      onPointerUp={(event) => event.stopPropagation()}
      onKeyDown={(event) => {
        const by = { ArrowLeft: -WIPE_STEP, ArrowRight: WIPE_STEP }[event.key];
        if (by === undefined) return;
        event.stopPropagation();
        event.preventDefault();
        onWipe(clamp(share + by, 0, 1));
      }}
    >
      <div className="h-full w-[2px] bg-copper" />
      <span className="absolute bottom-3 right-1/2 mr-2 bg-sheet/90 px-1.5 text-[13.5px]">before</span>
      <span className="absolute bottom-3 left-1/2 ml-2 bg-sheet/90 px-1.5 text-[13.5px]">after</span>
    </div>
  );
}
