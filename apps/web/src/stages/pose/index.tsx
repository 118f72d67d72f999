import type { Stage } from '../stage';
import { usePoseKit } from './kit';
import { PoseOver } from './PoseOver';
import { PosePanel } from './PosePanel';
import { settled } from './settled';

export const pose: Stage = {
  key: 'pose',
  name: 'Pose',
  first: 'look at the tree as posed, accept all as shown, then open single branches and change them.',
  settled,
  useKit: usePoseKit,
  Panel: PosePanel,
  Over: PoseOver,
};
