import type { Response } from 'express';

/** A signal that tells when nobody waits for an answer any more. */
export function whileWaiting(response: Response | undefined): AbortSignal {
  const gone = new AbortController();
  response?.once('close', () => gone.abort());
  return gone.signal;
}
