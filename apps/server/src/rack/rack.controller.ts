import { Body, Controller, Get, HttpCode, Param, Post, Req } from '@nestjs/common';
import { ApiBody, ApiOperation, ApiTags } from '@nestjs/swagger';
import type { PieceView, RackView } from '@ustle/contract';
import { RackLineBody } from '@ustle/contract/bodies';
import type { Request } from 'express';
import { bodyOf } from '../api-docs.js';
import { KnownService } from '../known/known.service.js';
import { ComputeService } from '../plans/compute.service.js';
import { Clock } from '../store/clock.service.js';
import { TreesService } from '../trees/trees.service.js';
import { RackService } from './rack.service.js';

@ApiTags('rack')
@Controller('api/rack')
export class RackController {
  constructor(
    private readonly rack: RackService,
    private readonly trees: TreesService,
    private readonly compute: ComputeService,
    private readonly known: KnownService,
    private readonly clock: Clock,
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
  async pieces(@Param('tree') id: string, @Req() request: Request): Promise<PieceView[]> {
    const { tree } = await this.trees.tree(id);
    const gone = new AbortController();
    request.res?.once('close', () => gone.abort());
    const pieces = await this.compute.piecesOf(tree, this.clock.today(), await this.known.of(id), gone.signal);
    return pieces.map((piece) => ({ ...piece, tree: id }));
  }
}
