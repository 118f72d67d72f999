import { Controller, Get } from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';
import type { YardView } from '@ustle/contract';
import { allSpecies, type Species } from '@ustle/core';
import { Clock } from '../store/clock.service.js';

@ApiTags('yard')
@Controller('api')
export class YardController {
  constructor(private readonly clock: Clock) {}

  @Get('yard')
  @ApiOperation({ summary: 'The name of the place, and what day it is there' })
  yard(): YardView {
    return { name: process.env.USTLE_NAME ?? 'Your yard', today: this.clock.todayIso() };
  }

  @Get('species')
  @ApiOperation({ summary: 'Every species with its figures, units and confidence' })
  species(): readonly Species[] {
    return allSpecies();
  }
}
