import { Controller, Get, Header, HttpCode, Post, Query, Req, Res } from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';
import { paths } from '@ustle/contract';
import { writeCalendar } from '@ustle/files';
import type { Request, Response } from 'express';
import { AccessService } from '../access/access.service.js';
import { OpenTo } from '../access/gate.js';
import { Clock } from '../store/clock.service.js';
import { BenchService } from './bench.service.js';
import { Packed } from './packed.js';

@ApiTags('bench and season')
@Controller('api')
export class BenchController {
  private readonly packed = new Packed();

  constructor(
    private readonly bench: BenchService,
    private readonly clock: Clock,
    private readonly access: AccessService,
  ) {}

  @Get('trees')
  @ApiOperation({ summary: 'All trees, the one that needs a hand first on top' })
  async list(@Req() request: Request, @Res() response: Response): Promise<void> {
    this.packed.send(request, response, await this.bench.bench());
  }

  @Get('season')
  @ApiOperation({ summary: 'What is due, by day' })
  async season(): Promise<{ from: string; days: Awaited<ReturnType<BenchService['due']>> }> {
    return { from: this.clock.todayIso(), days: await this.bench.due() };
  }

  @Get('feed')
  @ApiOperation({ summary: 'The address by which a calendar program follows the season' })
  async feed(): Promise<{ path: string }> {
    return { path: `${paths.calendar}?key=${await this.access.feedKey()}` };
  }

  @Post('feed')
  @HttpCode(200)
  @ApiOperation({ summary: 'Give the calendar another address; the one before leads nowhere' })
  async renewFeed(): Promise<{ path: string }> {
    return { path: `${paths.calendar}?key=${await this.access.renewFeedKey()}` };
  }

  @Get('season.ics')
  @OpenTo('feed key')
  @Header('Content-Type', 'text/calendar; charset=utf-8')
  @ApiOperation({ summary: 'The same as an iCalendar file; with the key of the feed it is one to subscribe to' })
  async calendar(@Query('key') key: string | undefined, @Res({ passthrough: true }) response: Response): Promise<string> {
    response.setHeader('Content-Disposition', `${key ? 'inline' : 'attachment'}; filename="ustle-season.ics"`);
    const dated = (await this.bench.due()).filter((d) => d.kind !== 'plan');
    const days = dated.map((d) => ({
      uid: [d.tree, d.kind, d.branches.join('+'), d.line].filter((x) => x !== undefined).join('-'),
      on: d.on,
      title: `${d.treeName}: ${d.title}`,
      text: d.text,
    }));
    return writeCalendar('Ustle: wire and trees', days, this.clock.todayIso());
  }
}
