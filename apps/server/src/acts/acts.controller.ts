import { Body, Controller, HttpCode, Param, Post } from '@nestjs/common';
import { ApiBody, ApiOperation, ApiTags } from '@nestjs/swagger';
import type { ActAnswer, StoredTree } from '@ustle/contract';
import { ActBody, StepBody } from '@ustle/contract/bodies';
import { bodyOf } from '../api-docs.js';
import { TreesService } from '../trees/trees.service.js';

@ApiTags('acts')
@Controller('api/trees/:id')
export class ActsController {
  constructor(private readonly trees: TreesService) {}

  @Post('acts')
  @HttpCode(200)
  @ApiBody(bodyOf(ActBody))
  @ApiOperation({ summary: 'Do an act: the one way to change a tree. Sent twice by the same id, it is done once' })
  act(@Param('id') id: string, @Body() { act, revision }: ActBody): Promise<ActAnswer> {
    return this.trees.act(id, act, revision);
  }

  @Post('steps')
  @HttpCode(200)
  @ApiBody(bodyOf(StepBody))
  @ApiOperation({ summary: 'Take the newest act of a device back, or make it again' })
  step(@Param('id') id: string, @Body() { revision, ...step }: StepBody): Promise<StoredTree> {
    return this.trees.step(id, step, revision);
  }
}
