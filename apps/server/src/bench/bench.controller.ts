import { Controller, Get, Header, Req, Res } from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';
import { writeCalendar } from '@ustle/files';
import type { Request, Response } from 'express';
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

  @Get('season.ics')
  @Header('Content-Type', 'text/calendar; charset=utf-8')
  @Header('Content-Disposition', 'attachment; filename="ustle-season.ics"')
  @ApiOperation({ summary: 'The same as an iCalendar file' })
  async calendar(): Promise<string> {
    const dated = (await this.bench.due()).filter((d) => d.kind !== 'plan');
    const days = dated.map((d) => ({ uid: `${d.tree}-${d.kind}-${d.branches.join('+')}`, on: d.on, title: `${d.treeName}: ${d.title}`, text: d.text }));
    return writeCalendar('Ustle: wire and trees', days, this.clock.todayIso());
  }
}
