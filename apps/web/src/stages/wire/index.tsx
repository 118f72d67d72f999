import type { Stage } from '../stage';
import { settled } from './settled';
import { useWireKit } from './kit';
import { WirePanel } from './WirePanel';

export const wire: Stage = {
  key: 'wire',
  name: 'Wire',
  settled,
  useKit: useWireKit,
  Panel: WirePanel,
};
