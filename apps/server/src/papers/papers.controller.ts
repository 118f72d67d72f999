import { Controller, Get, Param, Res } from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';
import { fileName } from '@ustle/contract';
import { paperOf, PAPERS } from '@ustle/core';
import type { Response } from 'express';
import { KnownService } from '../known/known.service.js';
import { PhotoFiles } from '../photos/photo-files.js';
import { ComputeService } from '../plans/compute.service.js';
import { notFound } from '../problem.js';
import { Clock } from '../store/clock.service.js';
import { TreesService } from '../trees/trees.service.js';
import { WorkService } from '../work/work.service.js';
import { asPdf } from './as-pdf.js';

@ApiTags('papers')
@Controller('api/trees')
export class PapersController {
  constructor(
    private readonly trees: TreesService,
    private readonly compute: ComputeService,
    private readonly known: KnownService,
    private readonly work: WorkService,
    private readonly photos: PhotoFiles,
    private readonly clock: Clock,
  ) {}

  @Get(':id/papers/:kind.pdf')
  @ApiOperation({ summary: 'A paper as PDF: proposal, report, or sheet (the work, to be ticked)' })
  async paper(@Param('id') id: string, @Param('kind') kind: string, @Res() response: Response): Promise<void> {
    const asked = PAPERS.find((p) => p === kind);
    if (!asked) throw notFound('This paper', 'kind');
    const { tree } = await this.trees.tree(id);
    const today = this.clock.today();
    const gone = new AbortController();
    response.once('close', () => gone.abort());
    const plan = await this.compute.planOf(tree, today, await this.known.of(id), gone.signal);
    const paper = paperOf(asked, tree, plan, today, await this.work.pace());
    const pdf = await asPdf(paper, process.env.USTLE_NAME ?? 'Ustle', (photo) => (this.photos.has(photo) ? this.photos.path(photo, 'small') : null));
    response.setHeader('Content-Disposition', `inline; filename="${fileName(tree.name)}-${asked}.pdf"`);
    response.type('application/pdf').send(pdf);
  }
}
