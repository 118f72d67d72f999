import { ACT, type Act, type FileFault } from '@ustle/core';
import { shapeFaults } from './shape-faults.js';

/** A list of acts from a parsed value, or every fault of it by its path. */
export function checkActs(value: unknown): { acts: Act[] } | { faults: FileFault[] } {
  if (!Array.isArray(value)) return { faults: [{ path: '/', code: 'type', message: 'A file of acts is a list.' }] };
  const faults = value.flatMap((act, i) => shapeFaults(ACT, act).map((f) => ({ ...f, path: `/${i}${f.path === '/' ? '' : f.path}` })));
  return faults.length ? { faults } : { acts: value as Act[] };
}
