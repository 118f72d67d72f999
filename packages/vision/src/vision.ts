import opencv from '@techstark/opencv-js';
import type { Px, SeenCard } from '@ustle/core';
import { centred, cutoutOf, drawnTo, fewer, lengthOf, smoothed, unlikeWood, widthsAlong } from './follow.js';

/** A picture as its pixels, four bytes each (red, green, blue, opacity). */
export interface Picture {
  width: number;
  height: number;
  data: Uint8ClampedArray | Uint8Array;
}

/** A line along wood, as few points, and how wide the wood is at two shares of it, px. */
export interface Followed {
  points: Px[];
  widths: [share: number, px: number][];
}

export interface Vision {
  /** The way along the wood of a picture from a shoulder to a tip; where it is known from other pictures how it runs, that is drawn to these ends. */
  follow: (picture: Picture, from: Px, to: Px, known?: readonly Px[] | null) => Followed;
  /** The cards in a picture with their corners, px from its upper left corner, clockwise from each card's own upper left. */
  findCards: (picture: Picture) => SeenCard[];
}

/** What is used of the library: it is loaded as a whole, and its types do not know its detector. */
interface Library {
  CV_32FC1: number;
  CV_32FC2: number;
  CV_8UC1: number;
  segmentation_IntelligentScissorsMB: new () => Scissors;
  matFromArray: (rows: number, columns: number, type: number, values: ArrayLike<number>) => Matrix;
  Point: new (x: number, y: number) => object;
  Mat: new () => Matrix;
  MatVector: new () => { size: () => number; get: (i: number) => Matrix; delete: () => void };
  matFromImageData: (picture: Picture) => Matrix;
  cvtColor: (from: Matrix, to: Matrix, how: number) => void;
  COLOR_RGBA2GRAY: number;
  DICT_4X4_50: number;
  CORNER_REFINE_SUBPIX: number;
  getPredefinedDictionary: (which: number) => unknown;
  aruco_DetectorParameters: new () => { cornerRefinementMethod: number };
  aruco_RefineParameters: new (distance: number, errors: number, all: boolean) => unknown;
  aruco_ArucoDetector: new (
    dictionary: unknown,
    parameters: unknown,
    refine: unknown,
  ) => {
    detectMarkers: (picture: Matrix, corners: object, ids: Matrix) => void;
  };
}
interface Scissors {
  setWeights: (nonEdge: number, direction: number, magnitude: number) => void;
  applyImageFeatures: (nonEdge: Matrix, direction: Matrix, magnitude: Matrix, picture: Matrix) => void;
  buildMap: (from: object) => void;
  getContour: (to: object, line: Matrix) => void;
  delete: () => void;
}
interface Matrix {
  rows: number;
  data32S: Int32Array;
  data32F: Float32Array;
  delete: () => void;
}

/** Ready once it can be asked. It calls itself a promise, so that it is never waited for itself. */
function ready(): Promise<{ library: Library }> {
  const found = opencv as unknown as Library & { onRuntimeInitialized?: () => void };
  return new Promise((done) => {
    if ('Mat' in found && found.Mat) done({ library: found });
    else found.onRuntimeInitialized = () => done({ library: found });
  });
}

/** Pixels are counted from their middles by the library. */
const HALF = 0.5;
/** The cards that are printed. */
const CARDS = 12;

/** What is not wood costs so many times as much to cross. */
const BESIDE = 1;
const ON_WOOD = 0.06;
/** Wood that is so far aside of the straight way, as a share of it, costs twice. */
const ASIDE = 0.12;
/** A line is kept within so many px by its fewer points. */
const WITHIN = 1.6;
/** Wood is at most so wide, as a share of its line's length, and no wider than so many px are looked at. */
const WIDEST = { share: 0.4, px: 160, least: 24 };

/** The line that costs least along what looks as the wood at its ends. */
function wayAlong(cv: Library, picture: Picture, from: Px, to: Px): Px[] {
  const cut = cutoutOf(picture, from, to);
  const { width, height } = cut.picture;
  const inside = ([x, y]: Px): [number, number] => [
    Math.round(Math.min(width - 1, Math.max(0, (x - cut.x) / cut.step - HALF))),
    Math.round(Math.min(height - 1, Math.max(0, (y - cut.y) / cut.step - HALF))),
  ];
  const [a, b] = [inside(from), inside(to)];
  const chord = Math.hypot(b[0] - a[0], b[1] - a[1]) || 1;
  const cost = unlikeWood(cut.picture, a, b).map((v, i) => {
    const off = ((b[0] - a[0]) * (Math.floor(i / width) - a[1]) - (b[1] - a[1]) * ((i % width) - a[0])) / chord / (ASIDE * chord);
    return ON_WOOD * (1 + off * off) + (BESIDE - ON_WOOD) * v;
  });
  const used = [
    cv.matFromArray(height, width, cv.CV_8UC1, new Uint8Array(width * height)),
    cv.matFromArray(height, width, cv.CV_32FC2, new Float32Array(2 * width * height)),
    cv.matFromArray(height, width, cv.CV_32FC1, cost),
    cv.matFromArray(height, width, cv.CV_8UC1, new Uint8Array(width * height)),
    new cv.Mat(),
  ] as const;
  const scissors = new cv.segmentation_IntelligentScissorsMB();
  try {
    const [nonEdge, direction, magnitude, grey, line] = used;
    scissors.setWeights(0, 0, 1);
    scissors.applyImageFeatures(nonEdge, direction, magnitude, grey);
    scissors.buildMap(new cv.Point(...a));
    scissors.getContour(new cv.Point(...b), line);
    const way = Array.from({ length: line.rows }, (_, i): Px => [
      cut.x + (line.data32S[2 * i]! + HALF) * cut.step,
      cut.y + (line.data32S[2 * i + 1]! + HALF) * cut.step,
    ]);
    return smoothed(way.length < 2 ? [from, to] : [from, ...way.slice(1, -1), to], Math.max(2, Math.round(way.length / 24)));
  } finally {
    scissors.delete();
    for (const each of used) each.delete();
  }
}

function followed(cv: Library, picture: Picture, from: Px, to: Px, known?: readonly Px[] | null): Followed {
  const rough = known && known.length > 1 ? drawnTo(known, from, to) : wayAlong(cv, picture, from, to);
  const most = Math.max(WIDEST.least, Math.min(WIDEST.px, WIDEST.share * lengthOf(rough)));
  const points = fewer(centred(picture, rough, most), WITHIN);
  return { points: points.map(([x, y]): Px => [Math.round(10 * x) / 10, Math.round(10 * y) / 10]), widths: widthsAlong(picture, points, most) };
}

/** The vision library, in Node or in a worker of the browser: loaded once, and only where it is asked for. */
export async function loadVision(): Promise<Vision> {
  const { library: cv } = await ready();
  const parameters = new cv.aruco_DetectorParameters();
  parameters.cornerRefinementMethod = cv.CORNER_REFINE_SUBPIX;
  const detector = new cv.aruco_ArucoDetector(cv.getPredefinedDictionary(cv.DICT_4X4_50), parameters, new cv.aruco_RefineParameters(10, 3, true));
  return {
    follow: (picture, from, to, known) => followed(cv, picture, from, to, known),
    findCards: (picture) => {
      const [colour, grey, ids, corners] = [cv.matFromImageData(picture), new cv.Mat(), new cv.Mat(), new cv.MatVector()];
      try {
        cv.cvtColor(colour, grey, cv.COLOR_RGBA2GRAY);
        detector.detectMarkers(grey, corners, ids);
        return Array.from({ length: corners.size() }, (_, i): SeenCard => {
          const at = corners.get(i);
          const own = [0, 1, 2, 3].map((k): Px => [at.data32F[2 * k]! + HALF, at.data32F[2 * k + 1]! + HALF]);
          at.delete();
          return { card: ids.data32S[i]!, corners: own as unknown as SeenCard['corners'] };
        })
          .filter((c) => c.card < CARDS)
          .sort((a, b) => a.card - b.card);
      } finally {
        for (const used of [colour, grey, ids, corners]) used.delete();
      }
    },
  };
}
