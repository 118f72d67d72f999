import { Body, Controller, Get, HttpCode, Param, Put } from '@nestjs/common';
import { ApiBody, ApiOperation, ApiTags } from '@nestjs/swagger';
import type { WalkView } from '@ustle/contract';
import { BenchesBody, LineBody, StandsBody } from '@ustle/contract/bodies';
import type { Bench } from '@ustle/core';
import { bodyOf } from '../api-docs.js';
import { BenchService } from '../bench/bench.service.js';
import { BenchesService } from './benches.service.js';

@ApiTags('walk')
@Controller('api')
export class WalkController {
  constructor(
    private readonly bench: BenchService,
    private readonly benches: BenchesService,
  ) {}

  @Get('walk')
  @ApiOperation({ summary: 'All that wants looks in the yard, with the walk that takes it along' })
  walk(): Promise<WalkView> {
    return this.bench.walk();
  }

  @Get('benches')
  @ApiOperation({ summary: 'The benches of the yard, in walking order' })
  list(): Promise<Bench[]> {
    return this.benches.list();
  }

  @Put('benches')
  @ApiBody(bodyOf(BenchesBody))
  @ApiOperation({ summary: 'Name the benches and their order' })
  order(@Body() { benches }: BenchesBody): Promise<Bench[]> {
    return this.benches.order(benches);
  }

  @Put('benches/:id/trees')
  @HttpCode(204)
  @ApiBody(bodyOf(LineBody))
  @ApiOperation({ summary: 'Say in which order trees stand along a bench' })
  line(@Param('id') id: string, @Body() { trees }: LineBody): Promise<void> {
    return this.benches.line(id, trees);
  }

  @Put('trees/:id/bench')
  @HttpCode(204)
  @ApiBody(bodyOf(StandsBody))
  @ApiOperation({ summary: 'Say on which bench a tree stands' })
  put(@Param('id') id: string, @Body() { bench }: StandsBody): Promise<void> {
    return this.benches.put(id, bench);
  }
}
