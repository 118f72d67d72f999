import { Body, Controller, Get, HttpCode, Injectable, Post, Req, Res, UseGuards } from '@nestjs/common';
import { ApiBody, ApiOperation, ApiTags } from '@nestjs/swagger';
import { Throttle, ThrottlerGuard } from '@nestjs/throttler';
import type { AccessView } from '@ustle/contract';
import { EnterBody, PassphraseBody } from '@ustle/contract/bodies';
import type { Request, Response } from 'express';
import { bodyOf } from '../api-docs.js';
import { ProblemException } from '../problem.js';
import { AccessService, SESSION_DAYS } from './access.service.js';
import { COOKIE, OpenTo, tokenOf } from './gate.js';
import { comesFrom, inLink, isHandedOn, isHere, isLoopback, listeningFrom, ownAddresses } from './listening.js';

const DAY_MS = 86_400_000;
const MINUTE_MS = 60_000;
const TRIES_A_MINUTE = 5;

/** Tries are counted by where they come from, behind a proxy too. */
@Injectable()
class Tries extends ThrottlerGuard {
  protected override getTracker(request: Request): Promise<string> {
    return Promise.resolve(comesFrom(request));
  }
}

/** Whether the proxy was reached by an encrypted address: then the cookie is sent by no other. */
const isEncrypted = (request: Request): boolean => isHandedOn(request) && request.headers['x-forwarded-proto'] === 'https';

@ApiTags('access')
@Controller('api/access')
export class AccessController {
  constructor(private readonly access: AccessService) {}

  @Get()
  @OpenTo('anyone')
  @ApiOperation({ summary: 'Whether the one who asks is let in, and the addresses by which a phone reaches the yard' })
  async view(@Req() request: Request): Promise<AccessView> {
    const here = isHere(request);
    const inside = here || (await this.access.isInside(tokenOf(request)));
    const listening = listeningFrom(process.env);
    const open = !isLoopback(listening.host) || listening.proxy !== null;
    const named = (listening.proxy?.names ?? []).map((name) => `https://${name}`);
    const own = isHandedOn(request) ? [] : ownAddresses(listening).map((a) => `http://${inLink(a)}:${request.socket.localPort}`);
    const addresses = inside ? [...named, ...own] : [];
    return { open, passphrase: await this.access.hasPassphrase(), inside, here, addresses };
  }

  @Post('passphrase')
  @HttpCode(204)
  @ApiBody(bodyOf(PassphraseBody))
  @ApiOperation({ summary: 'Set the passphrase; only on the machine itself' })
  async set(@Body() { passphrase }: PassphraseBody, @Req() request: Request): Promise<void> {
    if (!isHere(request)) throw new ProblemException(403, { code: 'not-here', message: 'The passphrase is set on the machine where Ustle runs.' });
    await this.access.setPassphrase(passphrase);
  }

  @Post('enter')
  @OpenTo('anyone')
  @HttpCode(204)
  @UseGuards(Tries)
  @Throttle({ default: { limit: TRIES_A_MINUTE, ttl: MINUTE_MS } })
  @ApiBody(bodyOf(EnterBody))
  @ApiOperation({ summary: 'Give the passphrase; the answer is a cookie' })
  async enter(@Body() { passphrase }: EnterBody, @Req() request: Request, @Res({ passthrough: true }) response: Response): Promise<void> {
    if (!(await this.access.hasPassphrase()))
      throw new ProblemException(403, { code: 'no-passphrase', message: 'No passphrase is set yet. Set one on the machine where Ustle runs: Bench, Phone.' });
    const token = await this.access.enter(passphrase);
    if (!token) throw new ProblemException(401, { code: 'wrong', field: 'passphrase', message: 'That is not the passphrase of the yard.' });
    response.cookie(COOKIE, token, { httpOnly: true, sameSite: 'strict', maxAge: SESSION_DAYS * DAY_MS, path: '/', secure: isEncrypted(request) });
  }

  @Post('leave')
  @HttpCode(204)
  @ApiOperation({ summary: 'This device is no longer let in' })
  async leave(@Req() request: Request, @Res({ passthrough: true }) response: Response): Promise<void> {
    const token = tokenOf(request);
    if (token) await this.access.leave(token);
    response.clearCookie(COOKIE, { path: '/' });
  }
}
