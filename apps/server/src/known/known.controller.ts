import { Body, Controller, Get, Put } from '@nestjs/common';
import { ApiBody, ApiOperation, ApiTags } from '@nestjs/swagger';
import type { LearnedView, WeatherView } from '@ustle/contract';
import { WeatherBody } from '@ustle/contract/bodies';
import { bodyOf } from '../api-docs.js';
import { KnownService } from './known.service.js';

@ApiTags('learning')
@Controller('api')
export class KnownController {
  constructor(private readonly known: KnownService) {}

  @Get('learned')
  @ApiOperation({ summary: 'By kinds, how the trees of the yard grow, and how good past forecasts were' })
  learned(): Promise<LearnedView[]> {
    return this.known.learned();
  }

  @Get('weather')
  @ApiOperation({ summary: 'What the station measured, and how far the season is ahead' })
  weather(): Promise<WeatherView> {
    return this.known.weather();
  }

  @Put('weather')
  @ApiBody(bodyOf(WeatherBody))
  @ApiOperation({ summary: 'Count growth by the warmth that the station measured, or by the calendar' })
  count(@Body() body: WeatherBody): Promise<WeatherView> {
    return this.known.countWarmth(body);
  }
}
