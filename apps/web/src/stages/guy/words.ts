import { percent, sayDate } from '../../shared/say';
import { sayDeg, type AnchorRef, type Band, type Names } from '@ustle/core';

/** What a tie is tied to, in words. */
export function sayAnchor(anchor: AnchorRef, names: Names): string {
  switch (anchor.kind) {
    case 'pot-hole':
      return `drainage hole ${(anchor.index ?? 0) + 1}, up through the soil`;
    case 'pot-rim':
      return `the rim of the pot at ${sayDeg(anchor.bearing ?? 0)}`;
    case 'root':
      return `surface root ${(anchor.index ?? 0) + 1}`;
    case 'trunk':
      return `the trunk, ${(anchor.at ?? 0).toFixed(0)} mm up, padded`;
    case 'screw':
      return `a hidden screw, ${(anchor.at ?? 0).toFixed(0)} mm up the trunk`;
    case 'jin':
      return `the dead wood of ${names(anchor.branch ?? '')}`;
    case 'branch':
      return `${names(anchor.branch ?? '')}, ${(anchor.at ?? 0).toFixed(0)} mm out, padded`;
    default:
      return anchor.kind;
  }
}

export const BANDS: Record<string, string> = {
  calm: 'The wood bears it easily.',
  careful: 'The wood bears it, if it is drawn slowly.',
  heavy: 'A heavy bend for this wood: in stages, wrapped.',
  no: 'More than this wood bears in one season.',
};

/** Checks as a few words, where they fail. */
export const FAILS: Record<string, string> = {
  wire: 'tie too thin',
  anchor: 'anchor too weak',
  cushion: 'presses the bark',
  clear: 'rubs on wood',
  watering: 'in the way of the can',
  pot: 'lifts the pot',
  seen: 'seen',
};

/** When a cushion may mark the bark, in words; by then it is moved along a little. */
export const sayMarks = (marks: string | null, today: string): string =>
  marks === null
    ? ''
    : marks <= today
      ? 'It may have begun to mark: move the cushion along a little.'
      : `One in ten such cushions marks from ${sayDate(marks)} on.`;

/** What wood is asked for while it is drawn. */
export const sayStrain = ({ strain, band }: { strain: number; band: Band }): string => `strain ${percent(strain)}, ${band === 'no' ? 'too much' : band}`;
