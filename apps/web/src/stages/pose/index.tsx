import { PanelHead } from '../../shared/parts';
import type { Stage } from '../stage';

const BENCH = { drawing: {} };

const Panel = () => (
  <PanelHead title="Pose">
    Not yet: where each branch shall go is proposed by its species' habit alone for now, and shown under Wire. To set it by hand, write a pose into the tree
    file.
  </PanelHead>
);

export const pose: Stage = { key: 'pose', name: 'Pose', settled: () => false, useBench: () => BENCH, Panel };
