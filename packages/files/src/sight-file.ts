import { SIGHT_SET, type FileFault, type SightSet } from '@ustle/core';
import { shapeFaults } from './shape-faults.js';

/** Reads a set of photos as numbers; every fault with its path where it is none. */
export function checkSight(value: unknown): { set: SightSet } | { faults: FileFault[] } {
  const faults = shapeFaults(SIGHT_SET, value);
  if (faults.length) return { faults };
  const set = value as SightSet;
  const twice = set.photos.flatMap(({ photo }, i) => (set.photos.findIndex((p) => p.photo === photo) < i ? [{ path: `/photos/${i}/photo`, photo }] : []));
  if (twice.length) return { faults: twice.map(({ path, photo }) => ({ path, code: 'twice', message: `Two photos are called "${photo}".` })) };
  return { set };
}
