import type { Stage } from '../stage';
import { useMeasureBench } from './bench';
import { MeasurePanel } from './MeasurePanel';

export const measure: Stage = {
  key: 'measure',
  name: 'Measure',
  settled: (tree) => tree.branches.length > 0,
  useBench: useMeasureBench,
  Panel: MeasurePanel,
  wide: true,
};
