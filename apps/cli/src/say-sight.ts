import type { Sight, Vec } from '@ustle/core';
import type { FileFault } from '@ustle/files';

const to = (x: number, places: number): number => Math.round(x * 10 ** places) / 10 ** places;
const at = (p: Vec): number[] => p.map((v) => to(v, 1));

/** A solved set as it is printed for other programs. */
export const sightDocument = (found: Sight): object => ({
  rmsPx: to(found.rmsPx, 3),
  focal: to(found.focal, 1),
  k1: to(found.k1, 5),
  cameras: [
    ...found.cameras.map((c) => ({ photo: c.photo, at: at(c.at), bearing: to(c.bearing, 1), found: true })),
    ...found.left.map(({ photo, why }) => ({ photo, found: false, why })),
  ],
  lines: found.lines.map((l) => ({
    line: l.line,
    start: at(l.start),
    end: at(l.end),
    length: to(l.length, 1),
    bearing: to(l.bearing, 1),
    elevation: to(l.elevation, 1),
    d: l.d === null ? null : to(l.d, 1),
    tipD: l.tipD === null ? null : to(l.tipD, 1),
    sd: { angleDeg: to(l.sd.angleDeg, 2), length: to(l.sd.length, 1), d: to(l.sd.d, 2) },
    rmsPx: to(l.rmsPx, 2),
  })),
  notes: [...found.notes, ...found.without.map((w) => `${w.line}: ${w.why}`)],
});

/** The same in words. */
export const sightSummary = (found: Sight): string[] => [
  `${found.cameras.length} photos stand to ${found.rmsPx.toFixed(2)} px; focal length ${found.focal.toFixed(0)} px.`,
  ...found.left.map((l) => `  ${l.photo} is not used. ${l.why}`),
  ...found.lines.map(
    (l) =>
      `  ${l.line}: ${l.length.toFixed(0)} mm towards ${l.bearing.toFixed(0)}°, slope ${l.elevation.toFixed(0)}° (± ${l.sd.angleDeg.toFixed(1)}°)${l.d === null ? '' : `, ${l.d.toFixed(1)} mm thick`}.`,
  ),
  ...found.without.map((w) => `  ${w.line}: ${w.why}`),
  ...found.notes,
];

export const faultOfPhoto = ({ photo, why }: { photo: string; why: string }): FileFault => ({ path: `/photos/${photo}`, code: 'not-used', message: why });
