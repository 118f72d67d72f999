import { isTrunkMeasured } from '@ustle/core';
import type { Stage } from '../stage';
import { useMeasure, useMeasureKit } from './kit';
import { DrawOver } from './DrawOver';
import { MeasurePanel } from './MeasurePanel';
import { PhotoTable } from './photographs/PhotoTable';

function Over() {
  const { onPhotos, photographs } = useMeasure();
  return onPhotos ? <PhotoTable photographs={photographs} /> : <DrawOver />;
}

export const measure: Stage = {
  key: 'measure',
  name: 'Measure',
  settled: (tree) => tree.branches.length > 0 && isTrunkMeasured(tree),
  useKit: useMeasureKit,
  Panel: MeasurePanel,
  Over,
  wide: true,
};
