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

export const isAway = (error: unknown): boolean => error instanceof ApiError && (error.status === 0 || error.status === 502 || error.status === 503);

/** Longer than this no answer is waited for. */
const PATIENCE_MS = 30_000;

export async function ask<T>(path: string, init?: RequestInit): Promise<T> {
  let response: Response;
  try {
    response = await fetch(path, { signal: AbortSignal.timeout(PATIENCE_MS), ...init });
  } catch {
    throw new ApiError(0, { code: 'away', message: 'The server does not answer.' });
  }
  const body: unknown = await response.json().catch(() => null);
  if (!response.ok) throw new ApiError(response.status, (body as Problem | null) ?? { code: 'refused', message: `The server said ${response.status}.` });
  return body as T;
}

export const send = <T>(path: string, body: unknown, method: 'POST' | 'PUT' = 'POST'): Promise<T> =>
  ask<T>(path, { method, headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(body) });
