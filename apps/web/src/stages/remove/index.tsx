import type { Stage } from '../stage';
import { settled } from './settled';
import { useRemoveKit } from './kit';
import { RemovePanel } from './RemovePanel';

export const remove: Stage = {
  key: 'remove',
  name: 'Remove',
  first: 'open a branch, read what speaks against it, and press what shall become of it; nothing is cut yet.',
  settled,
  useKit: useRemoveKit,
  Panel: RemovePanel,
};
