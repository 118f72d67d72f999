import type { Stage } from '../stage';
import { settled } from './settled';
import { useWatchBench } from './bench';
import { WatchPanel } from './WatchPanel';

export const watch: Stage = {
  key: 'watch',
  name: 'Watch',
  settled,
  useBench: useWatchBench,
  Panel: WatchPanel,
};
