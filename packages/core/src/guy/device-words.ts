import type { DeviceKind } from '../tree/index.js';

/** What there is to know of a kind of device besides its figures. */
interface DeviceWords {
  name: string;
  /** What it is for. */
  does: string;
  /** What it would leave, and how that is kept small. */
  marks: string;
  /** What can hurt the people at it. */
  danger: string;
}

const STORED = 'stay out of its line, set and release it slowly, and protect your eyes.';

export const DEVICE_WORDS: Record<DeviceKind, DeviceWords> = {
  spreader: {
    name: 'spreader',
    does: 'A bar between two stems that holds them apart.',
    marks: 'Its ends press like a cushion: forked, with rubber between; between thick trunks it may stay five years and more.',
    danger: `Pressed between two stems a bar can jump out: ${STORED}`,
  },
  spacer: {
    name: 'spacer',
    does: 'A small block that keeps two branches from touching.',
    marks: 'It marks where it rubs: bind it to one of the two, and move it by its own width every few months.',
    danger: 'It holds little and falls out as the branches set: look for it in the pot.',
  },
  prop: {
    name: 'prop',
    does: 'A stick from the pot, a root or the trunk that holds a branch up or pushes it away.',
    marks: 'One forked, padded end on the bark; its foot on a plate, not in the roots.',
    danger: `A stick under load slips sideways: notch both ends and tie them; ${STORED}`,
  },
  bar: {
    name: 'short bar',
    does: 'A bar across two branches, tied at its middle: one pull moves both, and neither carries it alone.',
    marks: 'It lies on padded bark in two places, each with half of the pull.',
    danger: `The tie at its middle carries both branches: ${STORED}`,
  },
  stays: {
    name: 'pair of stays',
    does: 'Two doubled ties from one cushion to the rim, to either side of where they draw: drawn in by two hands and made taut by a twist, they pull between them, and neither lets it swing.',
    marks: 'One wide cushion under both, drawn in a little on one, a little on the other.',
    danger: `A stick let go strikes back: tie it fast when the stay is taut; ${STORED}`,
  },
  jack: {
    name: 'jack on a stay',
    does: 'A threaded stay that draws a trunk or a thick branch towards its anchor, turn by turn.',
    marks: 'A wide, padded sling on the bark, never a bare wire: the pull of a jack is far more than that of a windlass.',
    danger: `A jack stores more than any tie, and no hand feels how much: by someone who knows it; ${STORED}`,
  },
  clamp: {
    name: 'clamp',
    does: 'A bar along the trunk with a hook at each end and a screw in the middle: it presses one bend into a thick trunk.',
    marks: 'Presses in three places: rubber under both hooks and under the screw; looked at weekly, moved before the bark is flat.',
    danger: `A clamp breaks a trunk as easily as it bends it: a part of a turn at a time, listening; by someone who knows it; ${STORED}`,
  },
  frame: {
    name: 'frame on the pot',
    does: 'Rods fixed to the pot that stand round the tree: wood is drawn towards them from any side.',
    marks: 'Where its ties hold, a cushion as under any tie; the rods themselves touch no bark.',
    danger: `The whole pull goes into the pot: a cracked or light pot is wrapped or weighted first; ${STORED}`,
  },
};
