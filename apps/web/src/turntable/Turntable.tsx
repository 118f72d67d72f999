import { Canvas, useFrame, useThree } from '@react-three/fiber';
import { useCallback, useEffect, useMemo, useRef, useState, type KeyboardEvent, type PointerEvent, type WheelEvent } from 'react';
import { Matrix4, PerspectiveCamera, Vector3, type DirectionalLight } from 'three';
import { clamp, limb, placeTree, pointAt, lengthOf, tilt, toRad, wedge, wrapDeg, type Evidence, type Front, type Tree, type Vec, type View } from '@ustle/core';
import { useTheme } from '../app/theme';
import type { DrawnCoil } from './coil-geometry';
import { ROOMS } from './colours';
import { FOV_DEG, frameRings } from './framing';
import { LABEL_HEIGHT, placeLabels, type PlacedLabel } from './labels';
import { Picker, type PickAt } from './picking';
import { PotMesh } from './PotMesh';
import { Table, type Flag } from './Table';
import { TreeMesh } from './TreeMesh';
import { woodMesh } from './wood-geometry';

export interface TurntableProps {
  tree: Tree;
  /** Bearing the viewer stands at, degrees. */
  bearing: number;
  onBearing: (bearing: number) => void;
  /** Tilt of the tree, seen from its front; bearing null: always towards the viewer, wherever they stand. */
  view: Omit<View, 'bearing'> & { bearing: number | null };
  gone: ReadonlySet<string>;
  coils?: readonly DrawnCoil[];
  poses?: readonly { branch: string; bearing: number; elevation: number }[];
  rose?: readonly Front[];
  flags?: readonly Flag[];
  onFlag?: (letter: string) => void;
  selected: string | null;
  onSelect: (branch: string | null) => void;
  /** Words beside branches, most important first. */
  labels?: readonly { branch: string; text: string }[];
  /** What a score saw: lines and words on the tree. */
  evidence?: Evidence | undefined;
  /** A branch whose points can be dragged (the shoulder stays); told the point and how far it went in space, mm. */
  bendable?: string | null;
  onMovePoint?: (index: number, by: Vec) => void;
  onMoved?: () => void;
  /** Without the scale's words, for small pictures beside each other. */
  small?: boolean;
  foliage?: number;
}

/** The viewer looks a little down on the table. */
const LOOK_DOWN_DEG = 9;
const STEP = 3;
const BIG_STEP = 15;
const LEAST_ZOOM = 0.7;
const MOST_ZOOM = 5;
const DEGREES_PER_PIXEL = 0.42;
const NONE: readonly never[] = [];

interface Stand {
  bearing: number;
  zoom: number;
}

/** Puts the camera and the lamp where the viewer stands; the tree turns under a light that stays. */
function Rig({ stand, height, potHeight, radius }: { stand: Stand; height: number; potHeight: number; radius: number }) {
  const { camera, size, invalidate } = useThree();
  const lamp = useRef<DirectionalLight>(null);
  useEffect(() => {
    const down = toRad(LOOK_DOWN_DEG);
    const rings = [
      { radius: radius * 1.13, z: -potHeight - 12 },
      { radius: height * 0.14, z: height * 1.06 },
    ];
    const framing = frameRings(rings, FOV_DEG, size.width / size.height, LOOK_DOWN_DEG);
    const { aim } = framing;
    const distance = framing.distance / stand.zoom;
    const b = toRad(stand.bearing);
    camera.position.set(Math.sin(b) * distance * Math.cos(down), Math.cos(b) * distance * Math.cos(down), aim + distance * Math.sin(down));
    camera.up.set(0, 0, 1);
    camera.lookAt(0, 0, aim);
    (camera as PerspectiveCamera).near = distance / 10;
    (camera as PerspectiveCamera).far = distance * 4;
    camera.updateProjectionMatrix();
    const side = b + toRad(48);
    lamp.current?.position.set(Math.sin(side) * height * 1.6, Math.cos(side) * height * 1.6, height * 2.5);
    invalidate();
  }, [camera, size, stand, height, potHeight, radius, invalidate]);
  const reach = Math.max(height, radius) * 1.25;
  return (
    <>
      <hemisphereLight args={['#fffaf0', '#8d7b66', 1.15]} />
      <ambientLight intensity={0.35} />
      <directionalLight
        ref={lamp}
        intensity={2.1}
        color="#fff3dd"
        castShadow
        shadow-mapSize={[1024, 1024]}
        shadow-bias={-0.0015}
        shadow-normalBias={1.2}
        shadow-radius={5}
      >
        <orthographicCamera attach="shadow-camera" args={[-reach, reach, reach, -reach, 1, height * 6]} />
      </directionalLight>
    </>
  );
}

/** Lines over everything: what a score saw. */
function EvidenceLines({ evidence, colour, thick }: { evidence: Evidence; colour: string; thick: number }) {
  const geometry = useMemo(
    () =>
      woodMesh(
        evidence.lines.map((points) => ({
          id: '',
          line: limb(
            points,
            points.map(() => thick),
          ),
          flare: 0,
          sides: 6,
        })),
        null,
      ).geometry,
    [evidence, thick],
  );
  useEffect(() => () => geometry.dispose(), [geometry]);
  return (
    <mesh geometry={geometry} renderOrder={5}>
      <meshBasicMaterial color={colour} depthTest={false} transparent opacity={0.85} />
    </mesh>
  );
}

interface Handle {
  index: number;
  x: number;
  y: number;
}

/** Tells where a line's points are on the screen, and what a pixel there is worth in space. */
function HandleProjector({
  points,
  onFrame,
  view,
}: {
  points: readonly Vector3[];
  onFrame: (handles: Handle[]) => void;
  view: { current: ScreenSpace | null };
}) {
  const { size } = useThree();
  useFrame(({ camera }) => {
    const right = new Vector3().setFromMatrixColumn(camera.matrixWorld, 0);
    const up = new Vector3().setFromMatrixColumn(camera.matrixWorld, 1);
    const distance = camera.position.distanceTo(points[0] ?? new Vector3());
    view.current = { right, up, mmPerPixel: (2 * distance * Math.tan(toRad(FOV_DEG / 2))) / size.height };
    onFrame(
      points.slice(1).map((p, i) => {
        const seen = p.clone().project(camera);
        return { index: i + 1, x: ((seen.x + 1) / 2) * size.width, y: ((1 - seen.y) / 2) * size.height };
      }),
    );
  });
  return null;
}

interface ScreenSpace {
  right: Vector3;
  up: Vector3;
  mmPerPixel: number;
}

/** Tells where the labels' branches are on the screen after each frame, and that a frame was drawn. */
function Projector({
  anchors,
  onFrame,
}: {
  anchors: readonly { id: string; text: string; at: Vector3 }[];
  onFrame: (labels: PlacedLabel[], calls: number) => void;
}) {
  const { size } = useThree();
  useFrame(({ camera, gl }) => {
    const labels = anchors.map(({ id, text, at }, i) => {
      const seen = at.clone().project(camera);
      return { id, text, x: ((seen.x + 1) / 2) * size.width, y: ((1 - seen.y) / 2) * size.height, weight: anchors.length - i };
    });
    // What the frame before cost: this one is not drawn yet.
    onFrame(placeLabels(labels, size.width, size.height), gl.info.render.calls);
  });
  return null;
}

const sameLabels = (a: readonly PlacedLabel[], b: readonly PlacedLabel[]): boolean =>
  a.length === b.length &&
  a.every((l, i) => l.id === b[i]!.id && l.text === b[i]!.text && Math.abs(l.left - b[i]!.left) < 0.5 && Math.abs(l.top - b[i]!.top) < 0.5);

/** The measured tree on its round table: turned by dragging or with the arrow keys, brought nearer with the wheel. */
export function Turntable(props: TurntableProps) {
  const {
    tree,
    bearing,
    onBearing,
    view,
    gone,
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
    foliage = 0.8,
  } = props;
  const [theme] = useTheme();
  const room = ROOMS[theme];
  const placed = useMemo(() => placeTree(tree), [tree]);
  const [zoom, setZoom] = useState(1);
  // While it is turned the table runs ahead of the address, which follows.
  const [turning, setTurning] = useState<{ from: number; now: number } | null>(null);
  const seenFrom = turning && turning.from === bearing ? turning.now : bearing;
  const stand = useMemo<Stand>(() => ({ bearing: seenFrom, zoom }), [seenFrom, zoom]);
  const [shownLabels, setShownLabels] = useState<readonly PlacedLabel[]>([]);
  const [ready, setReady] = useState(false);
  const pickAt = useRef<PickAt | null>(null);
  const drag = useRef<{ x: number; bearing: number; moved: boolean } | null>(null);

  const radius = useMemo(() => {
    const reach = Math.max(...placed.branches.flatMap((b) => b.line.points.map((p) => Math.hypot(p[0], p[1]))), 1);
    return Math.max(Math.max(tree.pot.width, tree.pot.depth) * 0.78, Math.min(reach * 1.05, placed.height * 0.8));
  }, [placed, tree.pot]);

  const tiltMatrix = useMemo(() => {
    const from = { bearing: view.bearing ?? seenFrom, pitch: view.pitch, roll: view.roll };
    const column = (point: readonly [number, number, number]): Vector3 =>
      new Vector3(...tilt({ point, frontDeg: from.bearing, pitchDeg: from.pitch, rollDeg: from.roll }));
    // The pot's low edge stays on the table; the other stands on the wedge.
    const lift = wedge(from, tree.pot).height / 2;
    return new Matrix4().makeBasis(column([1, 0, 0]), column([0, 1, 0]), column([0, 0, 1])).setPosition(0, 0, lift);
  }, [view.bearing, view.pitch, view.roll, seenFrom, tree.pot]);

  const anchors = useMemo(
    () => [
      ...(evidence?.words ?? []).map(({ at, text }, i) => ({ id: `evidence ${i}`, text, at: new Vector3(...at).applyMatrix4(tiltMatrix) })),
      ...labels.flatMap(({ branch, text }) => {
        const b = placed.byId.get(branch);
        if (!b) return [];
        const { point } = pointAt(b.line, lengthOf(b.line) * 0.55);
        return [{ id: branch, text, at: new Vector3(...point).applyMatrix4(tiltMatrix) }];
      }),
    ],
    [labels, evidence, placed, tiltMatrix],
  );

  const bendPoints = useMemo(() => {
    const b = bendable ? placed.byId.get(bendable) : undefined;
    return b?.branch.path ? b.line.points.map((p) => new Vector3(...p).applyMatrix4(tiltMatrix)) : [];
  }, [bendable, placed, tiltMatrix]);
  const [handles, setHandles] = useState<readonly Handle[]>([]);
  const screen = useRef<ScreenSpace | null>(null);
  const onHandles = useCallback((next: Handle[]) => {
    setHandles((before) =>
      before.length === next.length && before.every((h, i) => Math.abs(h.x - next[i]!.x) + Math.abs(h.y - next[i]!.y) < 0.5) ? before : next,
    );
  }, []);
  /** Pixels of a drag as a way in the tree's own space, in the plane of the picture. */
  const wayOf = (dx: number, dy: number): Vec => {
    const { right, up, mmPerPixel } = screen.current!;
    const way = right
      .clone()
      .multiplyScalar(dx * mmPerPixel)
      .addScaledVector(up, -dy * mmPerPixel);
    const { x, y, z } = way.applyMatrix4(new Matrix4().extractRotation(tiltMatrix).transpose());
    return [x, y, z];
  };

  const box = useRef<HTMLDivElement>(null);
  const onFrame = useCallback((next: PlacedLabel[], calls: number) => {
    setReady(true);
    box.current?.setAttribute('data-calls', String(calls));
    setShownLabels((before) => (sameLabels(before, next) ? before : next));
  }, []);

  const nearer = (by: number): void => setZoom((z) => clamp(z * by, LEAST_ZOOM, MOST_ZOOM));
  const turn = (by: number): void => {
    const next = wrapDeg(Math.round(stand.bearing + by));
    setTurning({ from: bearing, now: next });
    onBearing(next);
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    const steps = event.shiftKey ? BIG_STEP : STEP;
    if (event.key === 'ArrowLeft') turn(-steps);
    else if (event.key === 'ArrowRight') turn(steps);
    else if (event.key === '+' || event.key === '=') nearer(1.15);
    else if (event.key === '-') nearer(1 / 1.15);
    else return;
    event.preventDefault();
  };
  const onPointerDown = (event: PointerEvent): void => {
    drag.current = { x: event.clientX, bearing: stand.bearing, moved: false };
  };
  /** Dragging to the right turns the near side of the table to the right. */
  const draggedTo = (event: PointerEvent): number | null => {
    const from = drag.current;
    if (!from) return null;
    if (Math.abs(event.clientX - from.x) > 3) from.moved = true;
    return from.moved ? wrapDeg(from.bearing + (event.clientX - from.x) * DEGREES_PER_PIXEL) : null;
  };
  const onPointerMove = (event: PointerEvent): void => {
    const now = event.buttons ? draggedTo(event) : null;
    if (now !== null) setTurning({ from: bearing, now });
  };
  const letGo = (event: PointerEvent, clicked: boolean): void => {
    const began = drag.current;
    const now = draggedTo(event);
    drag.current = null;
    if (now !== null) {
      const whole = Math.round(now) % 360;
      setTurning({ from: bearing, now: whole });
      onBearing(whole);
    } else if (began && clicked && !pickAt.current?.(event.clientX, event.clientY)) onSelect(null);
  };
  const onWheel = (event: WheelEvent): void => nearer(Math.exp(-event.deltaY * 0.0012));

  return (
    <div
      ref={box}
      className="relative h-full w-full touch-pan-y select-none overflow-hidden outline-offset-[-2px]"
      role="application"
      tabIndex={0}
      aria-label={`${tree.name} on the turntable, seen from ${Math.round(stand.bearing)} degrees. Arrow keys turn it, plus and minus bring it nearer.`}
      data-ready={ready ? '1' : '0'}
      data-bearing={Math.round(stand.bearing)}
      onKeyDown={onKeyDown}
      onPointerDown={onPointerDown}
      onPointerMove={onPointerMove}
      onPointerUp={(event) => letGo(event, true)}
      onPointerLeave={(event) => letGo(event, false)}
      onWheel={onWheel}
    >
      <Canvas flat shadows frameloop="demand" dpr={[1, 2]} camera={{ fov: FOV_DEG }} gl={{ antialias: true, preserveDrawingBuffer: true }}>
        <color attach="background" args={[room.ground]} />
        <Rig stand={stand} height={placed.height} potHeight={tree.pot.height} radius={radius} />
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
        <group matrix={tiltMatrix} matrixAutoUpdate={false}>
          <PotMesh pot={tree.pot} />
          <TreeMesh placed={placed} gone={gone} onSelect={onSelect} coils={coils} poses={poses} room={room} selected={selected} foliage={foliage} />
          {evidence && <EvidenceLines evidence={evidence} colour={room.pose} thick={placed.height * 0.006} />}
        </group>
        <HandleProjector points={bendPoints} onFrame={onHandles} view={screen} />
        <Picker at={pickAt} />
        <Projector anchors={anchors} onFrame={onFrame} />
      </Canvas>
      <svg className="pointer-events-none absolute inset-0 h-full w-full" aria-hidden="true">
        {shownLabels.map((l) => {
          const edge = l.left > l.x ? l.left : l.left + l.width;
          return <path key={l.id} d={`M${l.x} ${l.y}L${edge} ${l.top + LABEL_HEIGHT / 2}`} stroke="var(--color-quiet)" strokeWidth="1" fill="none" />;
        })}
      </svg>
      {shownLabels.map((l) => (
        <button
          key={l.id}
          type="button"
          tabIndex={-1}
          onPointerDown={(event) => event.stopPropagation()}
          onClick={() => onSelect(placed.byId.has(l.id) ? l.id : null)}
          className={`absolute cursor-pointer whitespace-nowrap rounded-[2px] border px-1.5 text-center text-[13px] leading-5 ${l.id === selected ? 'border-copper bg-copper text-primary-content' : 'border-rule bg-sheet/90'}`}
          style={{ left: l.left, top: l.top, width: l.width, height: LABEL_HEIGHT }}
        >
          {l.text}
        </button>
      ))}
      {bendPoints.length > 0 &&
        handles.map((h) => (
          <button
            key={h.index}
            type="button"
            aria-label={`Point ${h.index} of ${bendable}`}
            className="absolute h-5 w-5 -translate-x-1/2 -translate-y-1/2 cursor-move touch-none rounded-full border-2 border-indigo bg-sheet/70"
            style={{ left: h.x, top: h.y }}
            onPointerDown={(event) => {
              event.stopPropagation();
              event.currentTarget.setPointerCapture(event.pointerId);
            }}
            onPointerMove={(event) => {
              event.stopPropagation();
              if (event.buttons && (event.movementX || event.movementY)) onMovePoint?.(h.index, wayOf(event.movementX, event.movementY));
            }}
            onPointerUp={(event) => {
              event.stopPropagation();
              onMoved?.();
            }}
          />
        ))}
      {!small && <p className="pointer-events-none absolute left-6 top-4 text-quiet">seen from {Math.round(stand.bearing)}°</p>}
    </div>
  );
}
