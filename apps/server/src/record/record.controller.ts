import { Body, Controller, Param, Post } from '@nestjs/common';
import { ApiBody, ApiOperation, ApiTags } from '@nestjs/swagger';
import { CutBody, EntryBody, WiredBody, type TreeView } from '@ustle/contract';
import { afterCut, agreedBranches, cutEntries, isCutting, type Tree } from '@ustle/core';
import { bodyOf } from '../api-docs.js';
import { notFound, ProblemException } from '../problem.js';
import { runFor, wiredEntry } from './wired.js';
import { TreesService } from '../trees/trees.service.js';

/** The tree, when each of these branches is decided to be cut, and on a client's tree agreed to be. */
function cuttable(tree: Tree, branches: readonly string[]): Tree {
  const decided = new Set(tree.plan.decisions.filter(isCutting).map((d) => d.branch));
  const agreed = agreedBranches(tree);
  for (const id of branches) {
    if (!tree.branches.some((b) => b.id === id)) throw notFound(`Branch "${id}"`, 'branches');
    if (!decided.has(id))
      throw new ProblemException(409, { code: 'not-decided', field: 'branches', message: `It is not decided to cut ${id}. Decide that first.` });
    if (agreed && !agreed.has(id)) {
      throw new ProblemException(409, {
        code: 'not-agreed',
        field: 'branches',
        message: `This tree belongs to ${tree.client}: note first who agreed to cut ${id}, and when.`,
      });
    }
  }
  return tree;
}

@ApiTags('record')
@Controller('api/trees/:id/record')
export class RecordController {
  constructor(private readonly trees: TreesService) {}

  @Post('wired')
  @ApiBody(bodyOf(WiredBody))
  @ApiOperation({ summary: 'A coil was put on: the plan takes its run, the record a line' })
  async wired(@Param('id') id: string, @Body() body: WiredBody): Promise<TreeView> {
    return this.trees.revise(
      id,
      body.revision,
      `wire ${body.branch}`,
      (tree) => {
        if (!tree.branches.some((b) => b.id === body.branch)) throw notFound(`Branch "${body.branch}"`, 'branch');
        return { ...tree, plan: runFor(tree, body).plan };
      },
      (tree) => [wiredEntry(runFor(tree, body).id, body)],
    );
  }

  @Post('cut')
  @ApiBody(bodyOf(CutBody))
  @ApiOperation({ summary: 'Branches were cut as the plan decided: the measured tree moves on, the record keeps the wood as it was' })
  async cut(@Param('id') id: string, @Body() { revision, on, branches }: CutBody): Promise<TreeView> {
    return this.trees.revise(
      id,
      revision,
      `cut ${branches.join(', ')}`,
      (tree) => afterCut(cuttable(tree, branches), branches),
      (tree) => cutEntries(tree, branches, on),
    );
  }

  @Post()
  @ApiBody(bodyOf(EntryBody))
  @ApiOperation({ summary: 'Add a line to the record; it is never changed, only corrected by a further one' })
  add(@Param('id') id: string, @Body() body: EntryBody): Promise<TreeView> {
    return this.trees.record(id, { ...body });
  }
}
