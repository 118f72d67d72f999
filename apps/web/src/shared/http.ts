import type { Problem } from '@ustle/contract';

/** A refusal by the server, in its own words; status 0: it did not answer. */
export class ApiError extends Error {
  constructor(
    readonly status: number,
    readonly problem: Problem,
  ) {
    super(problem.message);
  }
}

/** Refusals that are of the moment and of everything: nobody answers, this device is not let in, it asks too often, the disk is full. */
const OF_THE_MOMENT = new Set([0, 401, 408, 429, 502, 503, 504, 507]);
export const isAway = (error: unknown): boolean => error instanceof ApiError && OF_THE_MOMENT.has(error.status);

/** What becomes of something sent that was not taken: all waits, this one waits and what stands behind it goes on, or it is refused for good. */
export function fateOf(error: unknown): 'away' | 'later' | 'refused' {
  if (!(error instanceof ApiError) || isAway(error)) return 'away';
  // A day that has not come yet in the yard comes.
  return error.status >= 500 || error.problem.code === 'not-yet' ? 'later' : 'refused';
}

/** Longer than this no answer is waited for. */
const PATIENCE_MS = 30_000;

const AWAY = (): ApiError => new ApiError(0, { code: 'away', message: 'The server does not answer.' });

/** An answer that is no refusal. */
async function answered(path: string, init?: RequestInit): Promise<Response> {
  let response: Response;
  try {
    response = await fetch(path, { signal: AbortSignal.timeout(PATIENCE_MS), ...init });
  } catch {
    throw AWAY();
  }
  if (response.ok) return response;
  const problem = (await response.json().catch(() => null)) as Problem | null;
  throw new ApiError(response.status, problem ?? { code: 'refused', message: `The server said ${response.status}.` });
}

export async function ask<T>(path: string, init?: RequestInit): Promise<T> {
  const response = await answered(path, init);
  try {
    const text = await response.text();
    return (text ? JSON.parse(text) : null) as T;
  } catch {
    // An answer that broke off on its way is none.
    throw AWAY();
  }
}

/** A file from the server. */
export const askFile = async (path: string): Promise<Blob> => (await answered(path)).blob();

export const send = <T>(path: string, body: unknown, method: 'POST' | 'PUT' = 'POST'): Promise<T> =>
  ask<T>(path, { method, headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(body) });
