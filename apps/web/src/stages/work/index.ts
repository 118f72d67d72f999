import type { Stage } from '../stage';
import { useWorkBench } from './bench';
import { settled } from './settled';
import { WorkPanel } from './WorkPanel';

export const work: Stage = { key: 'work', name: 'Work', settled, useBench: useWorkBench, Panel: WorkPanel, wide: true };
