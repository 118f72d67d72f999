import type { Stage } from '../stage';
import { useMeasureKit } from './kit';
import { MeasurePanel } from './MeasurePanel';

export const measure: Stage = {
  key: 'measure',
  name: 'Measure',
  settled: (tree) => tree.branches.length > 0,
  useKit: useMeasureKit,
  Panel: MeasurePanel,
  wide: true,
};
