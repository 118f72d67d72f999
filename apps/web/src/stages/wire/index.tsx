import type { Stage } from '../stage';
import { settled } from './settled';
import { useWireBench } from './bench';
import { WirePanel } from './WirePanel';

export const wire: Stage = {
  key: 'wire',
  name: 'Wire',
  settled,
  useBench: useWireBench,
  Panel: WirePanel,
};
