import type { Stage } from '../stage';
import { usePoseKit } from './kit';
import { PoseOver } from './PoseOver';
import { PosePanel } from './PosePanel';
import { settled } from './settled';

export const pose: Stage = { key: 'pose', name: 'Pose', settled, useKit: usePoseKit, Panel: PosePanel, Over: PoseOver };
