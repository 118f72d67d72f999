import type { Stage } from '../stage';
import { settled } from './settled';
import { useRemoveBench } from './bench';
import { RemovePanel } from './RemovePanel';

export const remove: Stage = {
  key: 'remove',
  name: 'Remove',
  settled,
  useBench: useRemoveBench,
  Panel: RemovePanel,
};
