import { Body, Controller, Post, Sse, type MessageEvent } from '@nestjs/common';
import { ApiBody, ApiOperation, ApiTags } from '@nestjs/swagger';
import { CaliperPressBody } from '@ustle/contract/bodies';
import { filter, map, type Observable } from 'rxjs';
import { bodyOf } from '../api-docs.js';
import { readingOf } from './line-port.js';
import { SimulatedCaliper } from './simulated-caliper.js';

@ApiTags('devices')
@Controller('api/devices')
export class DevicesController {
  private readonly caliper = new SimulatedCaliper();

  @Sse('caliper')
  @ApiOperation({ summary: 'The readings of the caliper as they come (server-sent events)' })
  readings(): Observable<MessageEvent> {
    return this.caliper.lines.pipe(
      map(readingOf),
      filter((reading) => reading !== null),
      map((data) => ({ data })),
    );
  }

  @Post('caliper/press')
  @ApiBody(bodyOf(CaliperPressBody))
  @ApiOperation({ summary: 'Press the button of the simulated caliper' })
  press(@Body() { near }: CaliperPressBody): void {
    this.caliper.press(near);
  }
}
