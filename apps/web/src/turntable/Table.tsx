import { useFrame } from '@react-three/fiber';
import { useMemo, useRef } from 'react';
import { BufferAttribute, BufferGeometry, Color, DoubleSide, Vector3, type Group } from 'three';
import { greatestOf, leastOf, toRad, type Front, type Pot } from '@ustle/core';
import type { Room } from './colours';
import { pickable } from './picking';
import { boxInPicture, mmOfPixel, overlap, type Reach } from './sprite-boxes';
import { flag, numeral } from './sprites';

export interface Flag {
  letter: string;
  bearing: number;
  filled: boolean;
}

interface Props {
  radius: number;
  top: number;
  pot: Pot;
  room: Room;
  numerals: boolean;
  rose: readonly Front[];
  flags: readonly Flag[];
  onFlag: (letter: string) => void;
}

const at = (bearing: number, radius: number, z: number): [number, number, number] => [Math.sin(toRad(bearing)) * radius, Math.cos(toRad(bearing)) * radius, z];

/** Ticks every 5°, longer every 30°, on the table's rim. */
function ticks(radius: number, z: number): BufferGeometry {
  const points: number[] = [];
  for (let b = 0; b < 360; b += 5) points.push(...at(b, radius, z), ...at(b, radius * (b % 30 === 0 ? 0.945 : b % 10 === 0 ? 0.965 : 0.98), z));
  const geometry = new BufferGeometry();
  geometry.setAttribute('position', new BufferAttribute(new Float32Array(points), 3));
  return geometry;
}

/** The front rose: a petal for each bearing, as long as its score; those near the best in a deeper tone. */
function petals(rose: readonly Front[], inner: number, outer: number, z: number, room: Room): BufferGeometry {
  const geometry = new BufferGeometry();
  const scores = rose.map((f) => f.score);
  const least = leastOf(scores);
  const most = greatestOf(scores);
  const positions: number[] = [];
  const colours: number[] = [];
  const half = 180 / rose.length;
  const plain = new Color(room.petal);
  const best = new Color(room.petalBest);
  for (const front of rose) {
    const share = most > least ? (front.score - least) / (most - least) : 0.5;
    const reach = inner + (outer - inner) * (0.12 + 0.88 * share);
    const colour = plain.clone().lerp(best, share ** 3);
    const [a, b, c, d] = [
      at(front.bearing - half * 0.8, inner, z),
      at(front.bearing + half * 0.8, inner, z),
      at(front.bearing + half * 0.8, reach, z),
      at(front.bearing - half * 0.8, reach, z),
    ];
    positions.push(...a!, ...c!, ...b!, ...a!, ...d!, ...c!);
    for (let i = 0; i < 6; i++) colours.push(colour.r, colour.g, colour.b);
  }
  geometry.setAttribute('position', new BufferAttribute(new Float32Array(positions), 3));
  geometry.setAttribute('color', new BufferAttribute(new Float32Array(colours), 3));
  return geometry;
}

const pole = (radius: number): Reach => ({ left: radius * -0.006, right: radius * 0.006, below: 0, above: radius * 0.211 });

const ORIGIN = new Vector3();
/** A number of the scale is at least so high, its margin included. */
const LEAST_PIXELS = 21;

/** What a flag's cloth covers about its foot, mm. */
const pennant = (radius: number): Reach => ({ left: 0, right: radius * 0.118, below: radius * 0.137, above: radius * 0.211 });

/** The round table: its rim is the scale of bearings, with the rose and the lettered fronts on it. */
export function Table({ radius, top, pot, room, numerals, rose, flags, onFlag }: Props) {
  const scale = useMemo(() => ticks(radius * 0.995, top + 0.6), [radius, top]);
  const inner = Math.min(radius * 0.66, Math.max(pot.width, pot.depth) / 2 + radius * 0.03);
  const roseGeometry = useMemo(() => (rose.length ? petals(rose, inner, radius * 0.9, top + 0.5, room) : null), [rose, inner, radius, top, room]);
  const standing = useRef<Group>(null);
  const numbers = useRef<Group>(null);
  // A number of the scale gives way to a flag, and to the pot where it stands behind it.
  useFrame(({ camera, size }) => {
    const seen = Math.atan2(camera.position.x, camera.position.y);
    const half = (pot.width * Math.abs(Math.cos(seen)) + pot.depth * Math.abs(Math.sin(seen))) / 2;
    const body = boxInPicture(ORIGIN, camera, { left: -half, right: half, below: -pot.height, above: pot.depth * 0.1 });
    const flying = (standing.current?.children ?? []).flatMap((f) => [pennant(radius), pole(radius)].map((reach) => boxInPicture(f.position, camera, reach)));
    for (const [i, n] of (numbers.current?.children ?? []).entries()) {
      const tall = Math.max(radius * 0.0675, LEAST_PIXELS * mmOfPixel(n.position, camera, size.height));
      n.scale.set(2 * tall, tall, 1);
      n.position.set(...at(i * 30, radius * 1.03 + 1.5 * tall, top + 1));
      const box = boxInPicture(n.position, camera, { left: tall * -0.6, right: tall * 0.6, below: tall * -0.4, above: tall * 0.4 });
      const behind = n.position.x * camera.position.x + n.position.y * camera.position.y < 0;
      const clipped = box.left < -1 || box.right > 1;
      n.visible = !clipped && !flying.some((p) => overlap(p, box)) && !(behind && overlap(body, box));
    }
  });
  return (
    <group>
      <mesh rotation-x={Math.PI / 2} position={[0, 0, top - 3]} receiveShadow>
        <cylinderGeometry args={[radius, radius * 0.99, 6, 96]} />
        <meshLambertMaterial attach="material-0" color={room.tableEdge} />
        <meshLambertMaterial attach="material-1" color={room.table} />
        <meshLambertMaterial attach="material-2" color={room.tableEdge} />
      </mesh>
      <lineSegments geometry={scale}>
        <lineBasicMaterial color={room.ink} transparent opacity={0.75} />
      </lineSegments>
      {roseGeometry && (
        <mesh geometry={roseGeometry}>
          <meshBasicMaterial vertexColors side={DoubleSide} transparent opacity={0.85} />
        </mesh>
      )}
      <group ref={numbers}>
        {Array.from({ length: numerals ? 12 : 0 }, (_, i) => (
          <sprite key={i} position={at(i * 30, radius * 1.1, top + 1)}>
            <spriteMaterial map={numeral(String(i * 30), room.ink)} transparent depthWrite={false} />
          </sprite>
        ))}
      </group>
      <group ref={standing}>
        {flags.map((f) => (
          <sprite
            key={`${f.letter}${f.filled}`}
            position={at(f.bearing, radius * 0.965, top)}
            center={[0.125, 0] as never}
            scale={[radius * 0.135, radius * 0.225, 1]}
            userData={pickable(() => onFlag(f.letter))}
          >
            <spriteMaterial map={flag(f.letter, f.filled, '#a4532a', '#faf7ef', room.ink)} transparent depthWrite={false} />
          </sprite>
        ))}
      </group>
    </group>
  );
}
