import type { Stage } from '../stage';
import { GuyPanel } from './GuyPanel';
import { settled } from './settled';
import { useGuyBench } from './bench';

export const guy: Stage = { key: 'guy', name: 'Guy', settled, useBench: useGuyBench, Panel: GuyPanel };
