import { Body, Controller, Get, HttpCode, Param, Post, Req } from '@nestjs/common';
import { ApiBody, ApiOperation, ApiTags } from '@nestjs/swagger';
import type { PieceView, RackView } from '@ustle/contract';
import { RackLineBody } from '@ustle/contract/bodies';
import type { Request } from 'express';
import { bodyOf } from '../api-docs.js';
import { whileWaiting } from '../waiting.js';
import { PiecesService } from './pieces.service.js';
import { RackService } from './rack.service.js';

@ApiTags('rack')
@Controller('api/rack')
export class RackController {
  constructor(
    private readonly rack: RackService,
    private readonly planned: PiecesService,
  ) {}

  @Get()
  @ApiOperation({ summary: 'Rolls and offcuts with what is left of them, and the wire that settled plans have spoken for' })
  view(): Promise<RackView> {
    return this.rack.rack();
  }

  @Post('lines')
  @HttpCode(200)
  @ApiBody(bodyOf(RackLineBody))
  @ApiOperation({ summary: "Add a line to the rack's history: wire came, was weighed, measured, annealed, is gone, or a line is taken back" })
  add(@Body() { line }: RackLineBody): Promise<RackView> {
    return this.rack.add(line);
  }

  @Get('pieces/:tree')
  @ApiOperation({ summary: 'The pieces that the plan of a tree cuts, those that are on left out' })
  pieces(@Param('tree') id: string, @Req() request: Request): Promise<PieceView[]> {
    return this.planned.of(id, whileWaiting(request.res));
  }
}
