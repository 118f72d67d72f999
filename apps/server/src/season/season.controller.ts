import { Controller, Get, Header } from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';
import type { DueView, SeasonView } from '@ustle/contract';
import { writeCalendar } from '@ustle/files';
import { Clock } from '../store/clock.service.js';
import { SummaryService } from '../trees/summary.service.js';

@ApiTags('season')
@Controller('api')
export class SeasonController {
  constructor(
    private readonly summaries: SummaryService,
    private readonly clock: Clock,
  ) {}

  private async dated(): Promise<DueView[]> {
    return (await this.summaries.due()).filter((d) => d.kind !== 'plan');
  }

  @Get('season')
  @ApiOperation({ summary: 'What is due, by day' })
  async season(): Promise<SeasonView> {
    return { from: this.clock.todayIso(), days: await this.summaries.due() };
  }

  @Get('season.ics')
  @Header('Content-Type', 'text/calendar; charset=utf-8')
  @Header('Content-Disposition', 'attachment; filename="ustle-season.ics"')
  @ApiOperation({ summary: 'The same as an iCalendar file' })
  async calendar(): Promise<string> {
    const days = (await this.dated()).map((d) => ({
      uid: `${d.tree}-${d.kind}-${d.branches.join('+')}`,
      on: d.on,
      title: `${d.treeName}: ${d.title}`,
      text: d.text,
    }));
    return writeCalendar('Ustle: wire and trees', days, this.clock.todayIso());
  }
}
