import type { Stage } from '../stage';
import { settled } from './settled';
import { useWatchKit } from './kit';
import { WatchPanel } from './WatchPanel';

export const watch: Stage = {
  key: 'watch',
  name: 'Watch',
  first: 'open a coil, look at it on the tree, and press what you see; the days of the others move with it.',
  settled,
  useKit: useWatchKit,
  Panel: WatchPanel,
};
