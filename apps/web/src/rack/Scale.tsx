import { useCallback } from 'react';
import { paths } from '@ustle/contract';
import { Device } from '../shared/Device';
import { pressScale } from './queries';

/** The scale beside a weight: lay the roll on it, and what it shows when it rests is taken. */
export function Scale({ near, onGrams }: { near: number | undefined; onGrams: (grams: number) => void }) {
  const press = useCallback(() => pressScale(near), [near]);
  return <Device name="Scale" unit="g" title="This scale is simulated." stream={paths.scale} press={press} onValue={(grams) => grams > 0 && onGrams(grams)} />;
}
