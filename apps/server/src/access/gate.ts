import { paths, type Problem } from '@ustle/contract';
import { parse } from 'cookie';
import type { NextFunction, Request, RequestHandler, Response } from 'express';
import type { AccessService } from './access.service.js';

const HERE = new Set(['127.0.0.1', '::1', '::ffff:127.0.0.1']);
export const COOKIE = 'ustle';

/** Whether a request comes from this machine itself; behind a proxy nobody does. */
export const isHere = (request: Request): boolean =>
  HERE.has(request.socket.remoteAddress ?? '') && !request.headers['x-forwarded-for'] && !request.headers.forwarded;

export const tokenOf = (request: Request): string | undefined => parse(request.headers.cookie ?? '')[COOKIE];

/** What a device may ask before it is let in. */
const OPEN = new Set<string>([paths.access, paths.enter]);

/** Other devices of the network see no data before they gave the passphrase; the pages themselves hold none. */
export const gate =
  (access: AccessService): RequestHandler =>
  (request: Request, response: Response, next: NextFunction) => {
    if (!request.path.startsWith('/api/') || OPEN.has(request.path) || isHere(request)) return next();
    const mayPass = async (): Promise<boolean> =>
      (await access.isInside(tokenOf(request))) ||
      (request.path === paths.calendar && request.method === 'GET' && request.query.key === (await access.feedKey()));
    mayPass().then(
      (in_) => {
        if (in_) return next();
        const problem: Problem = { code: 'passphrase', message: 'This device is not let in yet: give the passphrase of the yard.' };
        return void response.status(401).json(problem);
      },
      (error: unknown) => next(error),
    );
  };
