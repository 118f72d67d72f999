import type { Stage } from '../stage';
import { settled } from './settled';
import { useWireKit } from './kit';
import { WirePanel } from './WirePanel';

export const wire: Stage = {
  key: 'wire',
  name: 'Wire',
  first: 'open a piece, wind it on from the shoulder outwards, and note that it is on.',
  settled,
  useKit: useWireKit,
  Panel: WirePanel,
};
