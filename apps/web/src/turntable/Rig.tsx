import { useFrame } from '@react-three/fiber';
import { useMemo, useRef, type ReactNode, type RefObject } from 'react';
import { Vector3, type DirectionalLight, type Group, type Matrix4, type PerspectiveCamera } from 'three';
import { toRad, type Pot } from '@ustle/core';
import { distanceTo, FOV_DEG, frameRings, type Ball, type Ring } from './framing';
import { tiltMatrix, type Stand, type Tilt } from './stand';

/** In a picture narrower than this, px, the numbers of the scale need room beside the table. */
const NARROW = 600;
/** The viewer looks a little down on the table. */
const LOOK_DOWN_DEG = 9;

interface RigProps {
  live: RefObject<Stand>;
  /** From the lowest to the highest point of the tree, mm. */
  tall: number;
  /** How far the tree reaches, from below. */
  reach: readonly Ring[];
  pot: Pot;
  radius: number;
  view: Tilt;
  /** The part that is looked at; null: the whole tree. */
  closer: Ball | null;
}

/** Puts the camera and the lamp where the viewer stands; the tree turns under a light that stays. */
export function Rig({ live, tall, reach: ofTree, pot, radius, view, closer }: RigProps) {
  const lamp = useRef<DirectionalLight>(null);
  const rings = useMemo(() => [{ radius: radius * 1.16, z: -pot.height - 12 }, ...ofTree], [ofTree, pot.height, radius]);
  const framed = useRef<{ rings: typeof rings; aspect: number; distance: number; aim: number } | null>(null);
  useFrame(({ camera, size }) => {
    const aspect = size.width / size.height;
    if (framed.current?.rings !== rings || framed.current.aspect !== aspect)
      framed.current = { rings, aspect, ...frameRings(rings, FOV_DEG, aspect, LOOK_DOWN_DEG, size.width < NARROW ? 0.11 : 0.03) };
    const whole = framed.current;
    const target = closer
      ? new Vector3(...closer.center).applyMatrix4(tiltMatrix(view, view.bearing ?? live.current.bearing, pot))
      : new Vector3(0, 0, whole.aim);
    const distance = (closer ? distanceTo(closer, whole.distance, FOV_DEG, aspect) : whole.distance) / live.current.zoom;
    const down = toRad(LOOK_DOWN_DEG);
    const b = toRad(live.current.bearing);
    camera.position
      .set(Math.sin(b) * Math.cos(down), Math.cos(b) * Math.cos(down), Math.sin(down))
      .multiplyScalar(distance)
      .add(target);
    camera.up.set(0, 0, 1);
    camera.lookAt(target);
    (camera as PerspectiveCamera).near = distance / 10;
    (camera as PerspectiveCamera).far = distance * 3 + whole.distance;
    camera.updateProjectionMatrix();
    camera.updateMatrixWorld();
    const side = b + toRad(48);
    lamp.current?.position.set(Math.sin(side) * tall * 1.6, Math.cos(side) * tall * 1.6, tall * 2.5);
  });
  const reach = Math.max(tall, radius) * 1.25;
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
        <orthographicCamera attach="shadow-camera" args={[-reach, reach, reach, -reach, 1, tall * 6]} />
      </directionalLight>
    </>
  );
}

/** What stands on the wedge: the pot and the tree. Where the tilt follows the viewer, it follows while the table turns. */
export function OnWedge({
  view,
  live,
  pot,
  matrix,
  children,
}: {
  view: Tilt;
  live: RefObject<Stand>;
  pot: Pot;
  matrix: RefObject<Matrix4>;
  children: ReactNode;
}) {
  const group = useRef<Group>(null);
  const done = useRef<{ view: Tilt; pot: Pot; seenFrom: number } | null>(null);
  useFrame(() => {
    const seenFrom = view.bearing ?? live.current.bearing;
    if (done.current?.view === view && done.current.pot === pot && done.current.seenFrom === seenFrom) return;
    done.current = { view, pot, seenFrom };
    matrix.current = tiltMatrix(view, seenFrom, pot);
    group.current?.matrix.copy(matrix.current);
    group.current?.updateMatrixWorld(true);
  });
  return (
    <group ref={group} matrixAutoUpdate={false}>
      {children}
    </group>
  );
}
