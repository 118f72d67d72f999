import { Injectable, SetMetadata, type CanActivate, type ExecutionContext } from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import { parse } from 'cookie';
import type { NextFunction, Request, RequestHandler, Response } from 'express';
import { ProblemException } from '../problem.js';
import { AccessService } from './access.service.js';
import { isHere } from './listening.js';

export const COOKIE = 'ustle';
export const tokenOf = (request: Request): string | undefined => parse(request.headers.cookie ?? '')[COOKIE];

const OPEN = 'open';
/** What a device may ask before it is let in: by anyone, or with the key of the calendar in its address. */
export const OpenTo = (whom: 'anyone' | 'feed key') => SetMetadata(OPEN, whom);

const notIn = (): ProblemException =>
  new ProblemException(401, { code: 'passphrase', message: 'This device is not let in yet: give the passphrase of the yard.' });

/** Other devices see no data before they gave the passphrase, by whatever address a route was reached; the pages themselves hold none. */
@Injectable()
export class Gate implements CanActivate {
  constructor(
    private readonly access: AccessService,
    private readonly reflector: Reflector,
  ) {}

  async canActivate(context: ExecutionContext): Promise<boolean> {
    const request = context.switchToHttp().getRequest<Request>();
    const open = this.reflector.getAllAndOverride<string | undefined>(OPEN, [context.getHandler(), context.getClass()]);
    if (open === 'anyone' || isHere(request) || (await this.access.isInside(tokenOf(request)))) return true;
    if (open === 'feed key' && request.query.key === (await this.access.feedKey())) return true;
    throw notIn();
  }
}

/** A passphrase needs no more. */
const LITTLE_BYTES = 4096;

/** Of whoever is not let in no large body is read: it would be kept in memory before any route is asked. */
export const littleFromOutside =
  (access: AccessService): RequestHandler =>
  (request: Request, _response: Response, next: NextFunction) => {
    const length = Number(request.headers['content-length'] ?? (request.headers['transfer-encoding'] ? Infinity : 0));
    if (length <= LITTLE_BYTES || isHere(request)) return next();
    access.isInside(tokenOf(request)).then((inside) => next(inside ? undefined : notIn()), next);
  };
