import { Body, Controller, Post, Sse, type MessageEvent } from '@nestjs/common';
import { ApiBody, ApiOperation, ApiTags } from '@nestjs/swagger';
import { CaliperPressBody, ScalePressBody } from '@ustle/contract/bodies';
import { filter, map, type Observable } from 'rxjs';
import { bodyOf } from '../api-docs.js';
import { readingOf, type LinePort } from './line-port.js';
import { simulatedCaliper, simulatedScale } from './simulated.js';

const readingsOf = ({ lines }: LinePort): Observable<MessageEvent> =>
  lines.pipe(
    map(readingOf),
    filter((reading) => reading !== null),
    map((data) => ({ data })),
  );

@ApiTags('devices')
@Controller('api/devices')
export class DevicesController {
  private readonly caliper = simulatedCaliper();
  private readonly scale = simulatedScale();

  @Sse('caliper')
  @ApiOperation({ summary: 'The readings of the caliper as they come, mm (server-sent events)' })
  thicknesses(): Observable<MessageEvent> {
    return readingsOf(this.caliper);
  }

  @Post('caliper/press')
  @ApiBody(bodyOf(CaliperPressBody))
  @ApiOperation({ summary: 'Press the button of the simulated caliper' })
  press(@Body() { near }: CaliperPressBody): void {
    this.caliper.press(near);
  }

  @Sse('scale')
  @ApiOperation({ summary: 'The readings of the scale as they come, g (server-sent events)' })
  weights(): Observable<MessageEvent> {
    return readingsOf(this.scale);
  }

  @Post('scale/press')
  @ApiBody(bodyOf(ScalePressBody))
  @ApiOperation({ summary: 'Lay something on the simulated scale' })
  weigh(@Body() { near }: ScalePressBody): void {
    this.scale.press(near);
  }
}
