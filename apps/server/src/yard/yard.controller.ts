import { randomUUID } from 'node:crypto';
import { rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Controller, Get, Res } from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';
import type { YardView } from '@ustle/contract';
import { allSpecies, type Species } from '@ustle/core';
import type { Response } from 'express';
import { Clock } from '../store/clock.service.js';
import { Store } from '../store/store.service.js';
import { yardMoney, yardName } from './yard-name.js';

@ApiTags('yard')
@Controller('api')
export class YardController {
  constructor(
    private readonly clock: Clock,
    private readonly store: Store,
  ) {}

  @Get('yard')
  @ApiOperation({ summary: 'The name of the place, and what day it is there' })
  yard(): YardView {
    return { name: yardName('Your yard'), today: this.clock.todayIso(), money: yardMoney() };
  }

  @Get('backup')
  @ApiOperation({ summary: 'A copy of everything, as one file that "ustle restore" takes' })
  async backup(@Res() response: Response): Promise<void> {
    const file = join(tmpdir(), `ustle-${randomUUID()}.sqlite`);
    const remove = (): void => rmSync(file, { force: true });
    try {
      await this.store.copyTo(file);
    } catch (error) {
      remove();
      throw error;
    }
    response.download(file, `ustle-${this.clock.todayIso()}.sqlite`, remove);
  }

  @Get('species')
  @ApiOperation({ summary: 'Every species with its figures, units and confidence' })
  species(): readonly Species[] {
    return allSpecies();
  }
}
