// Made-up photos that a tree of the studio is being measured by: as a hand-held camera takes them, with cards round the pot.
import sharp from 'sharp';
import { asItStands, dayOf, depthOf, isoOf, lengthOf, pointAt, project, seeded } from '@ustle/core';
import { focalGuessOf, loadVision } from '@ustle/vision';
import { FOCAL_ON_35MM, LAID_SIDE, photographOf } from '@ustle/vision/simulated';
import { jpegOf } from './photos.mjs';

const SIZE = { width: 1200, height: 900 };
/** Round the tree, and from above now and then: degrees round it, and down. */
const STANDS = Array.from({ length: 8 }, (_, i) => ({ bearing: i * 45, downDeg: i % 3 === 2 ? 40 : 12, cards: true }));
/** So many branches are drawn, in these of the photos, by a hand that is so steady (px). */
const DRAWN = 4;
const IN = [0, 2, 3, 6];
const HAND_PX = 1.5;
/** Wood shows from its parent's bark on, a share of the parent's thickness out from where its line begins. */
const OUT_OF_BARK = 0.2;

/** A tree with photos that it is being measured by, taken some days ago, and the pictures with the acts that tell of them. */
export async function withSight(tree, todayIso, ago, by) {
  const on = isoOf(dayOf(todayIso) - ago);
  const vision = await loadVision();
  const random = seeded(41);
  const shots = [];
  for (const [i, stand] of STANDS.entries()) {
    const taken = photographOf(asItStands(tree, dayOf(on)), stand, SIZE);
    // Cards are found in the picture as it is kept.
    const picture = await jpegOf(taken.picture);
    const { data } = await sharp(picture).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
    const photo = `${tree.name.toLowerCase()}-round-${i + 1}`;
    shots.push({ ...taken, photo, picture, bearing: stand.bearing, cards: vision.findCards({ ...SIZE, data: new Uint8Array(data) }) });
  }
  const unsteady = () => 2 * HAND_PX * (random() + random() - 1);
  const { placed } = shots[0];
  const longest = [...placed.branches].filter((b) => b.order === 1).sort((a, b) => lengthOf(b.line) - lengthOf(a.line)).slice(0, DRAWN); // prettier-ignore
  const wood = [
    { line: 'trunk', limb: placed.trunk, from: 0 },
    ...longest.map((b) => ({ line: b.branch.id, limb: b.line, from: OUT_OF_BARK * b.parentDiameter })),
  ];
  const drawn = wood.flatMap(({ line, limb, from }) =>
    IN.map((i) => {
      const { camera, photo } = shots[i];
      const spot = (share) => pointAt(limb, from + share * (lengthOf(limb) - from));
      const points = [0, 0.17, 0.34, 0.5, 0.67, 0.84, 1].map((share) => project(camera, spot(share).point).map((v) => Math.round(10 * (v + unsteady())) / 10));
      const widths = [0.12, 0.85].map((share) => {
        const { point, diameter } = spot(share);
        return [share, Math.max(1, Math.round(10 * ((diameter * camera.focal) / depthOf(camera, point) + unsteady() / 2)) / 10)];
      });
      return { line, photo, points, widths };
    }),
  );
  const photos = shots.map(({ photo, bearing, cards }) => ({ photo, bearing, ...SIZE, focalGuess: focalGuessOf(SIZE, FOCAL_ON_35MM), cards }));
  return {
    tree: { ...tree, sight: { on, cardSide: LAID_SIDE, photos, drawn } },
    photos: shots.map(({ photo, picture, bearing }) => ({
      act: { id: photo, on, kind: 'photo', photo, when: 'measuring', bearing, by },
      name: `${photo}.jpg`,
      picture,
    })),
  };
}
