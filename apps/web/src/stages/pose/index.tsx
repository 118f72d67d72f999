import type { Stage } from '../stage';
import { usePoseBench } from './bench';
import { PoseOver } from './PoseOver';
import { PosePanel } from './PosePanel';
import { settled } from './settled';

export const pose: Stage = { key: 'pose', name: 'Pose', settled, useBench: usePoseBench, Panel: PosePanel, Over: PoseOver };
