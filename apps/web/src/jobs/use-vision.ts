import { wrap, type Remote } from 'comlink';
import type { Seer } from './vision';

let started: Remote<Seer> | null = null;

/** The worker that looks at pictures, started when it is first asked. */
export const visionWorker = (): Remote<Seer> =>
  (started ??= wrap<Seer>(new Worker(new URL('./vision.worker.ts', import.meta.url), { type: 'module', name: 'vision' })));
