import { lazy, Suspense } from 'react';
import { isTrunkMeasured } from '@ustle/core';
import type { Stage } from '../stage';
import { useMeasure, useMeasureKit } from './kit';
import { DrawOver } from './DrawOver';
import { MeasurePanel } from './MeasurePanel';

const PhotoTable = lazy(() => import('./photographs/PhotoTable').then((m) => ({ default: m.PhotoTable })));

function Over() {
  const { onPhotos, photographs } = useMeasure();
  if (!onPhotos) return <DrawOver />;
  return (
    <Suspense>
      <PhotoTable photographs={photographs} />
    </Suspense>
  );
}

export const measure: Stage = {
  key: 'measure',
  name: 'Measure',
  first: 'the trunk, then its branches from below; a few numbers will do, and what is worth measuring next is told.',
  settled: (tree) => tree.branches.length > 0 && isTrunkMeasured(tree),
  useKit: useMeasureKit,
  Panel: MeasurePanel,
  Over,
  wide: true,
};
