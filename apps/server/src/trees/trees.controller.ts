import { Body, Controller, Delete, Get, Header, Headers, HttpCode, Param, Post, Put, Query, Req, Res } from '@nestjs/common';
import { ApiBody, ApiOperation, ApiTags } from '@nestjs/swagger';
import { DESK_HEADER, fileName, type Side, type StoredTree } from '@ustle/contract';
import { AsideBody, MadeUpBody, NewTreeBody } from '@ustle/contract/bodies';
import { blankTree, dayOf, findSpecies, generateTree, sizeAtAge, type Known, type PlanDocument, type Silhouette } from '@ustle/core';
import { writeBranchCsv, writeRecordCsv, writeTreeFile } from '@ustle/files';
import type { Request, Response } from 'express';
import { bodyOf } from '../api-docs.js';
import { ComputeService } from '../plans/compute.service.js';
import { KnownService } from '../known/known.service.js';
import { whileWaiting } from '../waiting.js';
import { ProblemException } from '../problem.js';
import { Clock } from '../store/clock.service.js';
import { TreesService } from './trees.service.js';

function knownSpecies(key: string): string {
  if (!findSpecies(key)) throw new ProblemException(400, { code: 'unknown-species', field: 'species', message: `No species is called "${key}".` });
  return key;
}

const YEAR_S = 31_536_000;

@ApiTags('trees')
@Controller('api/trees')
export class TreesController {
  constructor(
    private readonly trees: TreesService,
    private readonly compute: ComputeService,
    private readonly known: KnownService,
    private readonly clock: Clock,
  ) {}

  @Post('import')
  @ApiOperation({ summary: 'Take in a tree file (the body is its text); refused whole when it is not sound' })
  import(@Body() text: string, @Query('id') id?: string): Promise<StoredTree> {
    if (id !== undefined && !/^[A-Za-z0-9._-]{1,64}$/.test(id))
      throw new ProblemException(400, { code: 'id', field: 'id', message: 'id must be made of letters, digits, dot, dash and underscore.' });
    return this.trees.importText(typeof text === 'string' ? text : '', id);
  }

  @Post()
  @ApiOperation({ summary: 'Begin a tree to be measured' })
  @ApiBody(bodyOf(NewTreeBody))
  begin(@Body() { id, name, species }: NewTreeBody): Promise<StoredTree> {
    return this.trees.add(blankTree(name, knownSpecies(species)), id);
  }

  @Post('made-up')
  @ApiOperation({ summary: 'Add a tree made up by the program, to try things on' })
  @ApiBody(bodyOf(MadeUpBody))
  madeUp(@Body() { id, name, species, seed, age = 30, form = 'upright', faults = ['bar', 'blind', 'hanging'] }: MadeUpBody): Promise<StoredTree> {
    return this.trees.add(generateTree({ seed, name, species: knownSpecies(species), ...sizeAtAge(species, age), form, secondaries: 3, faults }), id);
  }

  @Get(':id')
  @ApiOperation({ summary: 'One tree with plan, record and revision; with what the device named in x-ustle-desk did last' })
  get(@Param('id') id: string, @Headers(DESK_HEADER) desk?: string): Promise<StoredTree> {
    return this.trees.get(id, desk ?? null);
  }

  @Put(':id/aside')
  @ApiBody(bodyOf(AsideBody))
  @ApiOperation({ summary: 'Put a tree aside, or back on the bench; its wire stays in the season' })
  aside(@Param('id') id: string, @Body() { aside }: AsideBody): ReturnType<TreesService['putAside']> {
    return this.trees.putAside(id, aside);
  }

  @Delete(':id')
  @HttpCode(204)
  @ApiOperation({ summary: 'Delete a tree for good, with its record' })
  forget(@Param('id') id: string): Promise<void> {
    return this.trees.forget(id);
  }

  @Get(':id/file')
  @Header('Content-Type', 'application/json')
  @ApiOperation({ summary: 'The tree as a tree file' })
  async file(@Param('id') id: string, @Res({ passthrough: true }) response: Response): Promise<string> {
    const { tree } = await this.trees.tree(id);
    response.setHeader('Content-Disposition', `attachment; filename="${fileName(tree.name)}.ustle.json"`);
    return writeTreeFile(tree);
  }

  @Get(':id/kept')
  @Header('Content-Type', 'application/json')
  @ApiOperation({ summary: 'What is kept of a tree as it is kept, also where it cannot be read' })
  async kept(@Param('id') id: string, @Res({ passthrough: true }) response: Response): Promise<string> {
    const { name, text } = await this.trees.asKept(id);
    response.setHeader('Content-Disposition', `attachment; filename="${fileName(name)}-as-kept.json"`);
    return text;
  }

  @Get(':id/silhouette')
  @ApiOperation({ summary: 'A small picture from its front as it stands, as paths; revision and lines of the record in the address let it be kept' })
  async silhouette(@Param('id') id: string, @Res({ passthrough: true }) response: Response): Promise<Silhouette> {
    const { tree } = await this.trees.tree(id);
    response.setHeader('Cache-Control', `private, max-age=${YEAR_S}, immutable`);
    return this.compute.silhouetteOf(tree, this.clock.today());
  }

  @Get(':id/sides/:quarters')
  @ApiOperation({ summary: 'Its picture from so many quarter turns to the right of its front, with the outlines of some branches (?of=ID,ID)' })
  async side(
    @Param('id') id: string,
    @Param('quarters') side: string,
    @Query('of') of: string | undefined,
    @Res({ passthrough: true }) response: Response,
  ): Promise<Side> {
    const quarters = Number(side);
    if (![0, 1, 2, 3].includes(quarters))
      throw new ProblemException(400, { code: 'side', field: 'quarters', message: `"${side}" is no side: 0 to 3 quarter turns.` });
    const { tree } = await this.trees.tree(id);
    response.setHeader('Cache-Control', `private, max-age=${YEAR_S}, immutable`);
    return this.compute.sideOf(tree, this.clock.today(), quarters, String(of ?? '').split(','));
  }

  @Get(':id/plan')
  @ApiOperation({ summary: 'The whole plan on a day (?on=YYYY-MM-DD), as the command line prints it' })
  async plan(@Param('id') id: string, @Req() request: Request, @Query('on') on?: string): Promise<PlanDocument> {
    const day = on === undefined ? this.clock.today() : dayOf(on);
    if (!Number.isFinite(day)) throw new ProblemException(400, { code: 'date', field: 'on', message: `"${on}" is not a date such as 2026-03-01.` });
    const gone = whileWaiting(request.res);
    const { tree } = await this.trees.tree(id);
    return this.compute.planOf(tree, day, await this.known.of(id), gone);
  }

  @Get(':id/known')
  @ApiOperation({ summary: 'What is taken of a tree from others of its kind here, and from the weather' })
  knownOf(@Param('id') id: string): Promise<Known> {
    return this.known.of(id);
  }

  @Get(':id/branches.csv')
  @Header('Content-Type', 'text/csv; charset=utf-8')
  @ApiOperation({ summary: 'The branches as CSV, for a spreadsheet' })
  async branchCsv(@Param('id') id: string): Promise<string> {
    return writeBranchCsv((await this.trees.tree(id)).tree.branches);
  }

  @Get(':id/record.csv')
  @Header('Content-Type', 'text/csv; charset=utf-8')
  @ApiOperation({ summary: 'The record as CSV: a line each, with what it says in words' })
  async recordCsv(@Param('id') id: string): Promise<string> {
    return writeRecordCsv([(await this.trees.tree(id)).tree]);
  }
}
