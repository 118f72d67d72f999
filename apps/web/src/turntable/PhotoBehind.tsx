import { useFrame, useThree } from '@react-three/fiber';
import { useEffect, useMemo, useState, type RefObject } from 'react';
import { Matrix4, NoColorSpace, ShaderMaterial, TextureLoader, Vector2, Vector3, type PerspectiveCamera, type Texture } from 'three';
import type { Camera, PlacedTree } from '@ustle/core';
import { boxOf, lieOf } from './photo-lie';
import type { Stand } from './stand';

/** A photo of the tree, and how it was taken: what is drawn stands over it as it stood there. */
export interface PhotoBehind {
  address: string;
  camera: Camera;
  width: number;
  height: number;
}

const NEAR = 50;
const FAR = 20_000;

const VERTEX = 'varying vec2 at; void main() { at = position.xy; gl_Position = vec4(position.xy, 1.0, 1.0); }';
/** Each place of the picture shows what the lens brought there: the photo is straightened. */
const FRAGMENT = `
  uniform sampler2D picture; uniform vec2 screen; uniform vec3 lie; uniform vec2 size; uniform vec2 centre; uniform float focal; uniform float k1; uniform vec3 ground;
  varying vec2 at;
  void main() {
    vec2 px = (vec2(at.x + 1.0, 1.0 - at.y) * 0.5 * screen - lie.yz) / lie.x;
    vec2 ray = (px - centre) / focal;
    vec2 seen = centre + focal * ray * (1.0 + k1 * dot(ray, ray));
    vec2 uv = vec2(seen.x / size.x, 1.0 - seen.y / size.y);
    bool inside = all(greaterThanEqual(uv, vec2(0.0))) && all(lessThanEqual(uv, vec2(1.0)));
    gl_FragColor = vec4(inside ? texture2D(picture, uv).rgb : ground, 1.0);
  }`;

/** The photo behind the tree, and the camera where it was taken from. */
export function PhotoBehindTree({ photo, placed, live, ground }: { photo: PhotoBehind; placed: PlacedTree; live: RefObject<Stand>; ground: string }) {
  const [texture, setTexture] = useState<Texture | null>(null);
  const { invalidate } = useThree();
  useEffect(() => {
    let stale = false;
    let loaded: Texture | null = null;
    new TextureLoader().load(photo.address, (found) => {
      loaded = found;
      found.colorSpace = NoColorSpace;
      if (stale) return found.dispose();
      setTexture(found);
      invalidate();
    });
    return () => {
      stale = true;
      loaded?.dispose();
    };
  }, [photo.address, invalidate]);
  const box = useMemo(
    () =>
      boxOf(
        [placed.trunk, ...placed.branches.map((b) => b.line)].flatMap((l) => l.points),
        photo.camera,
      ),
    [placed, photo.camera],
  );
  const material = useMemo(
    () =>
      new ShaderMaterial({
        vertexShader: VERTEX,
        fragmentShader: FRAGMENT,
        depthTest: false,
        depthWrite: false,
        uniforms: {
          picture: { value: null },
          screen: { value: new Vector2() },
          lie: { value: new Vector3() },
          size: { value: new Vector2() },
          centre: { value: new Vector2() },
          focal: { value: 1 },
          k1: { value: 0 },
          ground: { value: new Vector3() },
        },
      }),
    [],
  );
  useEffect(() => () => material.dispose(), [material]);
  useFrame(({ camera, size }) => {
    const { at, right, down, forward, focal, k1, centre } = photo.camera;
    const lie = lieOf(photo, box, size.width, size.height, live.current.zoom);
    camera.position.set(...at);
    camera.quaternion.setFromRotationMatrix(new Matrix4().makeBasis(new Vector3(...right), new Vector3(...down).negate(), new Vector3(...forward).negate()));
    camera.updateMatrixWorld();
    const [x, y] = [lie.x + centre[0] * lie.scale, lie.y + centre[1] * lie.scale];
    // prettier-ignore
    (camera as PerspectiveCamera).projectionMatrix.set(
      (2 * focal * lie.scale) / size.width, 0, 1 - (2 * x) / size.width, 0,
      0, (2 * focal * lie.scale) / size.height, (2 * y) / size.height - 1, 0,
      0, 0, -(FAR + NEAR) / (FAR - NEAR), (-2 * FAR * NEAR) / (FAR - NEAR),
      0, 0, -1, 0,
    );
    camera.projectionMatrixInverse.copy((camera as PerspectiveCamera).projectionMatrix).invert();
    const of = material.uniforms;
    of.picture!.value = texture;
    (of.screen!.value as Vector2).set(size.width, size.height);
    (of.lie!.value as Vector3).set(lie.scale, lie.x, lie.y);
    (of.size!.value as Vector2).set(photo.width, photo.height);
    (of.centre!.value as Vector2).set(centre[0], centre[1]);
    of.focal!.value = focal;
    of.k1!.value = k1;
    const paper = [1, 3, 5].map((i) => parseInt(ground.slice(i, i + 2), 16) / 255) as [number, number, number];
    (of.ground!.value as Vector3).set(...paper);
  });
  return (
    <>
      <hemisphereLight args={['#fffaf0', '#8d7b66', 1.3]} />
      <directionalLight intensity={1.9} color="#fff3dd" position={[photo.camera.at[0] - 300, photo.camera.at[1], photo.camera.at[2] + 900]} />
      {texture && (
        <mesh frustumCulled={false} renderOrder={-1} material={material}>
          <planeGeometry args={[2, 2]} />
        </mesh>
      )}
    </>
  );
}
