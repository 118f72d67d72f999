import { Body, Controller, Get, Put } from '@nestjs/common';
import { ApiBody, ApiOperation, ApiTags } from '@nestjs/swagger';
import { PeopleBody } from '@ustle/contract/bodies';
import type { Pace } from '@ustle/core';
import { bodyOf } from '../api-docs.js';
import { WorkService } from './work.service.js';

@ApiTags('work')
@Controller('api')
export class WorkController {
  constructor(private readonly work: WorkService) {}

  @Get('pace')
  @ApiOperation({ summary: 'How long steps of each kind took here, against what they were reckoned at' })
  pace(): Promise<Pace> {
    return this.work.pace();
  }

  @Get('people')
  @ApiOperation({ summary: 'Those who work in the yard, by the names it gives them' })
  people(): Promise<string[]> {
    return this.work.people();
  }

  @Put('people')
  @ApiBody(bodyOf(PeopleBody))
  @ApiOperation({ summary: 'Name those who work in the yard' })
  name(@Body() { people }: PeopleBody): Promise<string[]> {
    return this.work.name(people);
  }
}
