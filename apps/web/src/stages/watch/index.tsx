import type { Stage } from '../stage';
import { settled } from './settled';
import { useWatchKit } from './kit';
import { WatchPanel } from './WatchPanel';

export const watch: Stage = {
  key: 'watch',
  name: 'Watch',
  settled,
  useKit: useWatchKit,
  Panel: WatchPanel,
};
