import { turnDeg } from '../../units/index.js';
import { lengthOf, pointAt, stretch } from '../../space/index.js';
import { seenTrunk } from '../../tree/index.js';
import type { Draft } from '../finding.js';
import { percent, type Survey } from '../survey.js';

/** eye, hides-trunk: what troubles the chosen front. Nothing without one. */
export function fromFront(s: Survey): Draft[] {
  const { front, placed } = s;
  if (!front) return [];
  const eye = front.atEye.map((id): Draft => {
    const b = placed.byId.get(id)!;
    return {
      branch: id,
      rule: 'eye',
      severity: 2,
      evidence: { front: front.bearing, off: Math.round(Math.abs(turnDeg(front.bearing, s.slopeOf(b).bearing))) },
      advice: 'move',
      also: ['remove', 'shorten'],
      because: [
        'Points at the eye from the chosen front and hides the trunk behind it. Led to a side it can serve; where it cannot be moved, it may come off.',
      ],
      draw: () => ({ lines: [b.line.points], words: [{ at: pointAt(b.line, lengthOf(b.line)).point, text: 'at the eye' }] }),
    };
  });
  const low = seenTrunk(placed);
  const seen = lengthOf(low);
  const hides = front.hiding
    .filter((h) => placed.byId.has(h.branch) && h.share > s.profile.limits.hidesShare && !(s.profile.rules.eye && front.atEye.includes(h.branch)))
    .map((h): Draft => ({
      branch: h.branch,
      rule: 'hides-trunk',
      severity: 1,
      evidence: { share: Math.round(h.share * 100) / 100, limit: s.profile.limits.hidesShare },
      advice: 'move',
      also: ['shorten', 'remove'],
      because: [`Covers ${percent(h.share)} of the lower trunk from the chosen front.`],
      draw: () => ({
        // What it hides of a twin alone is not on the trunk's line: there the branch itself is shown.
        lines: [h.from > h.to ? placed.byId.get(h.branch)!.line.points : stretch(low, h.from * seen, Math.max(h.from + 0.02, h.to) * seen).points],
        words: [{ at: pointAt(low, ((h.from + h.to) / 2) * seen).point, text: `${s.short(h.branch)} hides ${percent(h.share)}` }],
      }),
    }));
  return [...eye, ...hides];
}
