import opencv from '@techstark/opencv-js';
import type { Px, SeenCard } from '@ustle/core';

/** A picture as its pixels, four bytes each (red, green, blue, opacity). */
export interface Picture {
  width: number;
  height: number;
  data: Uint8ClampedArray | Uint8Array;
}

export interface Vision {
  /** The cards in a picture with their corners, px from its upper left corner, clockwise from each card's own upper left. */
  findCards: (picture: Picture) => SeenCard[];
}

/** What is used of the library: it is loaded as a whole, and its types do not know its detector. */
interface Library {
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

/** The vision library, in Node or in a worker of the browser: loaded once, and only where it is asked for. */
export async function loadVision(): Promise<Vision> {
  const { library: cv } = await ready();
  const parameters = new cv.aruco_DetectorParameters();
  parameters.cornerRefinementMethod = cv.CORNER_REFINE_SUBPIX;
  const detector = new cv.aruco_ArucoDetector(cv.getPredefinedDictionary(cv.DICT_4X4_50), parameters, new cv.aruco_RefineParameters(10, 3, true));
  return {
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
