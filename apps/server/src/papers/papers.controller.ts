import { Controller, Get, Param, Query, Res } from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';
import { fileName } from '@ustle/contract';
import { needsOf, paperOf, PAPERS, rackPaperOf, type Paper, type Piece } from '@ustle/core';
import type { Response } from 'express';
import { KnownService } from '../known/known.service.js';
import { PhotoFiles } from '../photos/photo-files.js';
import { ComputeService } from '../plans/compute.service.js';
import { notFound, ProblemException } from '../problem.js';
import { PiecesService } from '../rack/pieces.service.js';
import { RackService } from '../rack/rack.service.js';
import { Clock } from '../store/clock.service.js';
import { TreesService } from '../trees/trees.service.js';
import { whileWaiting } from '../waiting.js';
import { WorkService } from '../work/work.service.js';
import { yardMoney, yardName } from '../yard/yard-name.js';

/** More trees at once than anybody wires in a session. */
const MOST_TREES = 20;

@ApiTags('papers')
@Controller('api')
export class PapersController {
  constructor(
    private readonly trees: TreesService,
    private readonly compute: ComputeService,
    private readonly known: KnownService,
    private readonly work: WorkService,
    private readonly photos: PhotoFiles,
    private readonly rack: RackService,
    private readonly pieces: PiecesService,
    private readonly clock: Clock,
  ) {}

  @Get('trees/:id/papers/:kind.pdf')
  @ApiOperation({ summary: 'A paper as PDF: proposal, report, sheet (the work, to be ticked), cuts, or pieces (of wire, each laid straight)' })
  async paper(@Param('id') id: string, @Param('kind') kind: string, @Res() response: Response): Promise<void> {
    const asked = PAPERS.find((p) => p === kind);
    if (!asked) throw notFound('This paper', 'kind');
    const { tree } = await this.trees.tree(id);
    const today = this.clock.today();
    const plan = await this.compute.planOf(tree, today, await this.known.of(id), whileWaiting(response), asked === 'pieces');
    const { stock } = await this.rack.rack();
    await this.send(response, paperOf(asked, tree, plan, today, { pace: await this.work.pace(), stock }), `${tree.name}-${asked}`);
  }

  @Get('rack/cuts.pdf')
  @ApiOperation({ summary: 'What the plans of some trees (?trees=id,id) cut from the rack, as PDF' })
  async cuts(@Res() response: Response, @Query('trees') asked: string | undefined): Promise<void> {
    const ids = (asked ?? '').split(',').filter(Boolean);
    if (ids.length === 0 || ids.length > MOST_TREES)
      throw new ProblemException(400, { code: 'trees', field: 'trees', message: `Name one to ${MOST_TREES} trees to cut for.` });
    const gone = whileWaiting(response);
    const { stock, reserved } = await this.rack.rack();
    const pieces = (await Promise.all(ids.map((id) => this.pieces.of(id, gone)))).flat();
    // Wire settled for other trees is spoken for.
    const others = reserved.filter((p) => !ids.includes(p.tree));
    const names = new Map(
      await Promise.all([...new Set([...ids, ...others.map((p) => p.tree)])].map(async (id) => [id, (await this.trees.tree(id)).tree.name] as const)),
    );
    const called = (p: Piece): string => `${names.get(p.tree)}${'branches' in p ? `: ${p.branches}` : ', settled'}`;
    await this.send(response, rackPaperOf(needsOf([...pieces, ...others], stock), stock, yardMoney(), this.clock.today(), called), 'rack-cuts');
  }

  @Get('papers/cards.pdf')
  @ApiOperation({ summary: 'The cards that are laid round a pot to measure its tree by photos, at their size on A4; a PDF file' })
  async cards(@Res() response: Response): Promise<void> {
    const { cardsPdf } = await import('./cards-pdf.js');
    response.setHeader('Content-Disposition', 'inline; filename="cards.pdf"');
    response.type('application/pdf').send(await cardsPdf());
  }

  private async send(response: Response, paper: Paper, name: string): Promise<void> {
    // What sets a paper is large: it is loaded with the first one.
    const { asPdf } = await import('./as-pdf.js');
    const pdf = await asPdf(paper, yardName('Ustle'), (photo) => (this.photos.has(photo) ? this.photos.path(photo, 'small') : null));
    response.setHeader('Content-Disposition', `inline; filename="${fileName(name)}.pdf"`);
    response.type('application/pdf').send(pdf);
  }
}
