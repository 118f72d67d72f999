import { PanelHead } from '../../shared/parts';
import type { Stage } from '../stage';

const BENCH = { drawing: {} };

const Panel = () => (
  <PanelHead title="Guy">
    Not yet: ties that a tree file holds are kept, but not computed. What wire cannot hold is named under Wire, with the reason.
  </PanelHead>
);

export const guy: Stage = { key: 'guy', name: 'Guy', settled: () => false, useBench: () => BENCH, Panel };
