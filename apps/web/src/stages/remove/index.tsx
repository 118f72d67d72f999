import type { Stage } from '../stage';
import { settled } from './settled';
import { useRemoveKit } from './kit';
import { RemovePanel } from './RemovePanel';

export const remove: Stage = {
  key: 'remove',
  name: 'Remove',
  settled,
  useKit: useRemoveKit,
  Panel: RemovePanel,
};
