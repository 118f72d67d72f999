import type { PlanPose, PoseMovement, PoseSource, Worsening, Crack, Sound } from '@ustle/core';

type Bend = PlanPose['bends'][number];

export { sayDeg as deg } from '@ustle/core';

const KINDS: Record<Bend['kind'], string> = { drop: 'at the shoulder', movement: 'on its way', arc: 'an arc', tip: 'the tip up' };
/** Which bend of a branch, in words. */
export const bendName = (b: Bend, i: number): string => `bend ${i + 1}, ${KINDS[b.kind]}`;

/** What moves a branch, in a word or two. */
export const SOURCES: Record<PoseSource, string> = {
  plan: 'yours',
  habit: 'by its kind',
  curve: 'your curve',
  first: 'first branch',
  back: 'for depth',
  eye: 'out of your eye',
  gap: 'closes a gap',
  layer: 'for light',
  fan: 'fanned flat',
  trunk: 'the trunk',
};

export const BANDS: Record<string, string> = {
  calm: 'calm',
  careful: 'careful',
  heavy: 'heavy for this wood',
  no: 'more than this wood takes in one season',
};

export const PROTECTIONS: Record<string, string> = {
  none: '',
  raffia: 'wrap it with wet raffia or tape first',
  parallel: 'lay three parallel wires first',
  both: 'wrap it with wet raffia and lay three parallel wires first',
};

export const MOVEMENT_NAMES: { value: PoseMovement; name: string }[] = [
  { value: 'calm', name: 'calm' },
  { value: 'moderate', name: 'some' },
  { value: 'lively', name: 'lively' },
];

export const WORSE_NAMES: { value: Worsening; name: string }[] = [
  { value: 'wound', name: 'an old wound on the outside of the bend' },
  { value: 'dry', name: 'the wood is dry' },
  { value: 'frozen', name: 'it is frozen' },
  { value: 'bent-before', name: 'it was bent the other way before' },
  { value: 'bark-in-crotch', name: 'there is bark in its crotch' },
];

/** What is heard and seen while bending, with what each means at that moment. */
export const SOUNDS: { value: Sound; name: string; means: string }[] = [
  { value: 'none', name: 'nothing', means: 'Hold it a moment, then go on.' },
  { value: 'bark', name: 'bark', means: 'Go on slowly; look at the bark first.' },
  { value: 'fibre', name: 'fibre', means: 'Stop here. Hold it, bind it, and go no further for weeks.' },
];
export const CRACKS: { value: Crack; name: string; means: string }[] = [
  { value: 'none', name: 'none', means: '' },
  { value: 'along', name: 'along the fibre', means: 'That heals: bind it tight, seal it, and leave it.' },
  { value: 'across', name: 'across the fibre', means: 'What lies beyond may die: bind it, shade and water the tree, wait. No further bend.' },
];
