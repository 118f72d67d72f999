import { isTrunkMeasured } from '@ustle/core';
import type { Stage } from '../stage';
import { useMeasureKit } from './kit';
import { MeasurePanel } from './MeasurePanel';

export const measure: Stage = {
  key: 'measure',
  name: 'Measure',
  settled: (tree) => tree.branches.length > 0 && isTrunkMeasured(tree),
  useKit: useMeasureKit,
  Panel: MeasurePanel,
  wide: true,
};
