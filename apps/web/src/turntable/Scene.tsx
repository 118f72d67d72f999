import { Canvas, type RootState } from '@react-three/fiber';
import { useRef, type RefObject } from 'react';
import { Matrix4 } from 'three';
import { greatestOf, leastOf, NO_EVIDENCE, type PlacedTree } from '@ustle/core';
import type { Room } from './colours';
import { EvidenceLines } from './EvidenceLines';
import { FrameTeller, type FrameListeners } from './frames';
import { FOV_DEG, reachOf } from './framing';
import { Picker, type PickAt, type WoodAt } from './picking';
import { PlumbLine } from './PlumbLine';
import { PotMesh } from './PotMesh';
import { PhotoBehindTree } from './PhotoBehind';
import { OnWedge, Rig } from './Rig';
import type { Stand, Tilt } from './stand';
import { Table } from './Table';
import { Ties } from './Ties';
import { TreeMesh } from './TreeMesh';
import type { TurntableProps } from './Turntable';
import { Wipe } from './Wipe';

const NONE: readonly never[] = [];
/** A photo was taken of the tree as it stands. */
const UPRIGHT: Tilt = { bearing: 0, pitch: 0, roll: 0 };

/** Asking a shader for its faults would hold the page until it is compiled. */
const unhurried = ({ gl }: RootState): void => void (gl.debug.checkShaderErrors = import.meta.env.DEV);

interface Props extends TurntableProps {
  room: Room;
  placed: PlacedTree;
  placedAfter: PlacedTree;
  /** The tree on the lines it is bent to; null where it is shown as it grows. */
  placedBent: PlacedTree | null;
  live: RefObject<Stand>;
  wipeNow: RefObject<number>;
  pickAt: RefObject<PickAt | null>;
  woodAt: RefObject<WoodAt | null>;
  listeners: FrameListeners;
  again: RefObject<(() => void) | null>;
}

/** What is drawn: table, pot and tree, on its wedge. */
export function Scene({ tree, room, placed, placedAfter, placedBent, live, wipeNow, pickAt, woodAt, listeners, again, ...asked }: Props) {
  const { coils = NONE, poses = NONE, rose = NONE, flags = NONE, foliage = 0.8, wipe: asksWipe = null, small = false, photo = null } = asked;
  const wipe = photo ? null : asksWipe;
  const view = photo ? UPRIGHT : asked.view;
  const tiltNow = useRef(new Matrix4());
  const reach = reachOf(placed);
  const tall =
    greatestOf(reach.map((r) => r.z)) -
    leastOf(
      reach.map((r) => r.z),
      0,
    );
  const widest = greatestOf(reach.map((r) => r.radius));
  const radius = Math.max(Math.max(tree.pot.width, tree.pot.depth) * 0.78, Math.min(widest * 1.02, tall * 0.76));
  const wood = !photo ? 'drawn' : placedBent ? 'pale' : 'unseen';
  const shared = { onSelect: asked.onSelect, room, selected: asked.selected, foliage: photo ? 0 : foliage, coils, wood } as const;
  return (
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
      {photo ? (
        <PhotoBehindTree key={photo.address} photo={photo} placed={placed} live={live} ground={room.ground} />
      ) : (
        <>
          <Rig live={live} tall={tall} reach={reach} pot={tree.pot} radius={radius} view={view} closer={asked.closer ?? null} />
          <Table
            radius={radius}
            top={-tree.pot.height - 1}
            pot={tree.pot}
            room={room}
            numerals={!small && !asked.closer}
            rose={rose}
            flags={flags}
            onFlag={(letter) => asked.onFlag?.(letter)}
          />
        </>
      )}
      {asked.plumb && !photo && <PlumbLine bearing={asked.bearing} height={placed.height} reach={radius} colour={room.pose} />}
      <OnWedge view={view} live={live} pot={tree.pot} matrix={tiltNow}>
        {!photo && <PotMesh pot={tree.pot} />}
        {wipe === null ? (
          <TreeMesh placed={placedBent ?? placed} after={placedBent ?? placedAfter} poses={poses} {...shared} />
        ) : (
          <Wipe
            share={wipeNow}
            before={<TreeMesh placed={placed} after={placed} poses={NONE} {...shared} />}
            after={<TreeMesh placed={placed} after={placedAfter} outlines={false} poses={NONE} {...shared} />}
          />
        )}
        <Ties ties={asked.ties ?? NONE} room={room} thick={placed.height * 0.0035} />
        <EvidenceLines evidence={asked.evidence ?? NO_EVIDENCE} colour={room.pose} thick={placed.height * 0.006} />
      </OnWedge>
      <Picker at={pickAt} woodAt={woodAt} />
      <FrameTeller listeners={listeners} tilt={tiltNow} again={again} />
    </Canvas>
  );
}
