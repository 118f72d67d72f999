import type { NextFunction, Request, RequestHandler, Response } from 'express';
import { paths, type Problem } from '@ustle/contract';
import { answersTo, type Listening } from './access/listening.js';

/** Where pictures are sent to. */
export const PHOTOS = /^\/api\/trees\/[^/]+\/photos$/;
const SAFE = new Set(['GET', 'HEAD', 'OPTIONS']);

const refuse = (response: Response, status: number, problem: Problem): void => void response.status(status).json(problem);

function foreign(request: Request): boolean {
  const site = request.headers['sec-fetch-site'];
  if (typeof site === 'string' && site !== 'same-origin' && site !== 'none') return true;
  const { origin } = request.headers;
  if (!origin) return false;
  return !URL.canParse(origin) || new URL(origin).host !== request.headers.host;
}

/** Nobody else gets in: no other host's name, no change from another page, no body that a form could send. */
export const door =
  (listening: Listening): RequestHandler =>
  (request: Request, response: Response, next: NextFunction) => {
    if (!answersTo(listening, request)) {
      return refuse(response, 403, {
        code: 'host',
        message: 'This address is not the one that Ustle was started for. If it is yours, set USTLE_HOST to it, or USTLE_PROXY_NAME where a proxy leads here.',
      });
    }
    if (SAFE.has(request.method)) return next();
    if (foreign(request)) return refuse(response, 403, { code: 'origin', message: 'Another page may not change anything here.' });
    const hasBody = request.headers['content-length'] !== '0' && (request.headers['content-length'] ?? request.headers['transfer-encoding']) !== undefined;
    // Pictures and the file of a whole studio have addresses of their own, and types that no form of another page can send.
    const taken = PHOTOS.test(request.path)
      ? ['image/*', 'application/octet-stream']
      : request.path === paths.studio
        ? ['zip', 'application/octet-stream']
        : ['json', 'application/*+json'];
    if (hasBody && !request.is(taken))
      return refuse(response, 415, {
        code: 'not-json',
        field: '/',
        message: `The body of a request is JSON (Content-Type: application/json); for a tree file too: ${paths.importTree()}.`,
      });
    return next();
  };
