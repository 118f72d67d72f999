import { Body, Controller, Param, Post } from '@nestjs/common';
import { ApiBody, ApiOperation, ApiTags } from '@nestjs/swagger';
import { EntryBody, WiredBody, type TreeView } from '@ustle/contract';
import { bodyOf } from '../api-docs.js';
import { notFound } from '../problem.js';
import { runFor, wiredEntry } from './wired.js';
import { TreesService } from '../trees/trees.service.js';

@ApiTags('record')
@Controller('api/trees/:id/record')
export class RecordController {
  constructor(private readonly trees: TreesService) {}

  @Post('wired')
  @ApiBody(bodyOf(WiredBody))
  @ApiOperation({ summary: 'A coil was put on: the plan takes its run, the record a line' })
  async wired(@Param('id') id: string, @Body() body: WiredBody): Promise<TreeView> {
    const { tree } = await this.trees.get(id);
    if (!tree.branches.some((b) => b.id === body.branch)) throw notFound(`Branch "${body.branch}"`, 'branch');
    const run = runFor(tree, body);
    return this.trees.revise(id, body.revision, `wire ${body.branch}`, () => ({ ...tree, plan: run.plan }), [wiredEntry(run.id, body)]);
  }

  @Post()
  @ApiBody(bodyOf(EntryBody))
  @ApiOperation({ summary: 'Add a line to the record; it is never changed, only corrected by a further one' })
  add(@Param('id') id: string, @Body() body: EntryBody): Promise<TreeView> {
    return this.trees.record(id, [{ ...body }]);
  }
}
