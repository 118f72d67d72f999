import { Body, Controller, Get, Param, Post, Query, Res, Sse, type MessageEvent } from '@nestjs/common';
import { ApiBody, ApiOperation, ApiTags } from '@nestjs/swagger';
import { asItStands } from '@ustle/core';
import { CaliperPressBody, ScalePressBody } from '@ustle/contract/bodies';
import type { Response } from 'express';
import { filter, map, type Observable } from 'rxjs';
import { bodyOf } from '../api-docs.js';
import { ProblemException } from '../problem.js';
import { Clock } from '../store/clock.service.js';
import { TreesService } from '../trees/trees.service.js';
import { simulatedCamera } from './camera.js';
import { readingOf, type LinePort } from './line-port.js';
import { simulatedCaliper, simulatedScale } from './simulated.js';

const readingsOf = ({ lines }: LinePort): Observable<MessageEvent> =>
  lines.pipe(
    map(readingOf),
    filter((reading) => reading !== null),
    map((data) => ({ data })),
  );

/** A tree is seen from about the height of its branches, degrees above the level. */
const LEVEL_ENOUGH = 12;

@ApiTags('devices')
@Controller('api/devices')
export class DevicesController {
  private readonly caliper = simulatedCaliper();
  private readonly scale = simulatedScale();
  private readonly camera = simulatedCamera();

  constructor(
    private readonly trees: TreesService,
    private readonly clock: Clock,
  ) {}

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

  @Get('camera/:tree')
  @ApiOperation({
    summary:
      'Turn the table with a tree to a bearing (?bearing=0 to 359, degrees round its pot) and take its picture with the simulated camera, looking so far down (&down=0 to 70, degrees), with cards round the pot (&cards=1) or without; a JPEG file',
  })
  async picture(
    @Param('tree') id: string,
    @Query('bearing') asked: string | undefined,
    @Query('down') askedDown: string | undefined,
    @Query('cards') cards: string | undefined,
    @Res() response: Response,
  ): Promise<void> {
    const bearing = asked ? Number(asked) : NaN;
    if (!(bearing >= 0 && bearing < 360))
      throw new ProblemException(400, { code: 'bearing', field: 'bearing', message: 'The bearing is from 0 to 359 degrees round the pot.' });
    const downDeg = askedDown ? Number(askedDown) : LEVEL_ENOUGH;
    if (!(downDeg >= 0 && downDeg <= 70))
      throw new ProblemException(400, { code: 'down', field: 'down', message: 'The camera looks down by 0 to 70 degrees.' });
    const { tree } = await this.trees.tree(id);
    response
      .setHeader('Cache-Control', 'no-store')
      .type('image/jpeg')
      .send(await this.camera.take(asItStands(tree, this.clock.today()), { bearing, downDeg, cards: cards === '1' }));
  }
}
