import { Body, Controller, Get, Header, Param, Post, Put, Query, Res } from '@nestjs/common';
import { ApiBody, ApiOperation, ApiTags } from '@nestjs/swagger';
import {
  DecisionBody,
  EitherBody,
  FrontBody,
  MadeUpBody,
  MeasuredBody,
  NewTreeBody,
  PinnedBody,
  ReadingBody,
  Revised,
  RulesBody,
  SessionBody,
  type TreeSummary,
  type TreeView,
} from '@ustle/contract';
import {
  blankTree,
  chooseFront,
  chooseRules,
  dayOf,
  decide,
  measure,
  noteReading,
  putOff,
  toggleEither,
  togglePinned,
  MEASURED,
  findSpecies,
  generateTree,
  sizeAtAge,
  type PlanDocument,
  type Tree,
} from '@ustle/core';
import { readBranchCsv, readCylinderCsv, writeBranchCsv, writeTreeFile } from '@ustle/files';
import type { Response } from 'express';
import { bodyOf } from '../api-docs.js';
import { notFound, ProblemException, refused } from '../problem.js';
import { PlansService } from '../plans/plans.service.js';
import { Clock } from '../store/clock.service.js';
import { SummaryService } from './summary.service.js';
import { TreesService } from './trees.service.js';

function knownSpecies(key: string): string {
  if (!findSpecies(key)) throw new ProblemException(400, { code: 'unknown-species', field: 'species', message: `No species is called "${key}".` });
  return key;
}

function needBranch(tree: Tree, id: string, field: string): void {
  if (!tree.branches.some((b) => b.id === id)) throw notFound(`Branch "${id}"`, field);
}

/** The tree, when a decision's details fit it. */
function possible(tree: Tree, id: string, { length, toShoot, untilSet }: DecisionBody): Tree {
  needBranch(tree, id, 'branch');
  const branch = tree.branches.find((b) => b.id === id)!;
  const refuse = (field: string, message: string): never => {
    throw new ProblemException(400, { code: 'value', field, message });
  };
  if (length && length >= branch.length) refuse('length', `${id} is ${branch.length} mm long: what is left must be shorter; it is ${length} mm.`);
  if (toShoot && !tree.branches.some((b) => b.id === toShoot && b.parent === id)) refuse('toShoot', `"${toShoot}" does not grow on ${id}.`);
  if (untilSet) needBranch(tree, untilSet, 'untilSet');
  if (untilSet === id) refuse('untilSet', 'A branch cannot wait for its own bend.');
  return tree;
}

@ApiTags('trees and their plans')
@Controller('api/trees')
export class TreesController {
  constructor(
    private readonly trees: TreesService,
    private readonly summaries: SummaryService,
    private readonly plans: PlansService,
    private readonly clock: Clock,
  ) {}

  @Get()
  @ApiOperation({ summary: 'All trees, the one that needs a hand first on top' })
  list(): Promise<TreeSummary[]> {
    return this.summaries.bench();
  }

  @Post('import')
  @ApiOperation({ summary: 'Take in a tree file (the body is its text); refused whole when it is not sound' })
  import(@Body() text: string): Promise<TreeView> {
    return this.trees.importText(typeof text === 'string' ? text : '');
  }

  @Post()
  @ApiOperation({ summary: 'Begin a tree to be measured' })
  @ApiBody(bodyOf(NewTreeBody))
  begin(@Body() { name, species }: NewTreeBody): Promise<TreeView> {
    return this.trees.add(blankTree(name, knownSpecies(species)));
  }

  @Post('made-up')
  @ApiOperation({ summary: 'Add a tree made up by the program, to try things on' })
  @ApiBody(bodyOf(MadeUpBody))
  madeUp(@Body() { name, species, seed, age = 30, form = 'upright', faults = ['bar', 'blind', 'hanging'] }: MadeUpBody): Promise<TreeView> {
    return this.trees.add(generateTree({ seed, name, species: knownSpecies(species), ...sizeAtAge(species, age), form, secondaries: 3, faults }));
  }

  @Get(':id')
  @ApiOperation({ summary: 'One tree with plan, record and revision' })
  get(@Param('id') id: string): Promise<TreeView> {
    return this.trees.get(id);
  }

  @Get(':id/file')
  @Header('Content-Type', 'application/json')
  @ApiOperation({ summary: 'The tree as a tree file' })
  async file(@Param('id') id: string, @Res({ passthrough: true }) response: Response): Promise<string> {
    const { tree } = await this.trees.get(id);
    const name =
      tree.name
        .toLowerCase()
        .replace(/[^a-z0-9]+/g, '-')
        .replace(/^-+|-+$/g, '') || 'tree';
    response.setHeader('Content-Disposition', `attachment; filename="${name}.ustle.json"`);
    return writeTreeFile(tree);
  }

  @Get(':id/plan')
  @ApiOperation({ summary: 'The whole plan on a day (?on=YYYY-MM-DD), as the command line prints it' })
  async plan(@Param('id') id: string, @Query('on') on?: string): Promise<PlanDocument> {
    const day = on === undefined ? this.clock.today() : dayOf(on);
    if (!Number.isFinite(day)) throw new ProblemException(400, { code: 'date', field: 'on', message: `"${on}" is not a date such as 2026-03-01.` });
    return this.plans.planOf((await this.trees.get(id)).tree, day);
  }

  @Put(':id/plan/front')
  @ApiBody(bodyOf(FrontBody))
  @ApiOperation({ summary: 'Choose the front, or with null leave it open again' })
  front(@Param('id') id: string, @Body() { revision, front }: FrontBody): Promise<TreeView> {
    return this.trees.revise(id, revision, front ? `choose the front at ${front.bearing}°` : 'leave the front open', chooseFront(front));
  }

  @Put(':id/plan/decisions/:branch')
  @ApiBody(bodyOf(DecisionBody))
  @ApiOperation({ summary: 'Decide what becomes of a branch' })
  async decision(@Param('id') id: string, @Param('branch') branch: string, @Body() body: DecisionBody): Promise<TreeView> {
    const { revision, ...decision } = body;
    return this.trees.revise(id, revision, `${body.act} ${branch}`, (tree) => decide(branch, decision)(possible(tree, branch, body)));
  }

  @Put(':id/plan/sessions')
  @ApiBody(bodyOf(SessionBody))
  @ApiOperation({ summary: 'Leave cuts for a later session, or bring them back into this one' })
  sessions(@Param('id') id: string, @Body() { revision, branches, session, until }: SessionBody): Promise<TreeView> {
    const label = session > 1 ? `leave ${branches.join(', ')} for session ${session}` : `cut ${branches.join(', ')} in this session`;
    return this.trees.revise(id, revision, label, (tree) => {
      branches.forEach((b) => needBranch(tree, b, 'branches'));
      return putOff(branches, session, until)(tree);
    });
  }

  @Put(':id/plan/either')
  @ApiBody(bodyOf(EitherBody))
  @ApiOperation({ summary: 'Of two branches one goes, which one is open; said again, it is taken back' })
  either(@Param('id') id: string, @Body() { revision, a, b }: EitherBody): Promise<TreeView> {
    return this.trees.revise(id, revision, `either ${a} or ${b}`, (tree) => {
      needBranch(tree, a, 'a');
      needBranch(tree, b, 'b');
      if (a === b) throw new ProblemException(400, { code: 'choice', field: 'b', message: 'Either needs two branches; these are one.' });
      return toggleEither(a, b)(tree);
    });
  }

  @Put(':id/plan/rules')
  @ApiBody(bodyOf(RulesBody))
  @ApiOperation({ summary: 'Which rules look at the tree, and how strictly' })
  rules(@Param('id') id: string, @Body() { revision, ...rules }: RulesBody): Promise<TreeView> {
    return this.trees.revise(id, revision, `rules: ${rules.profile}`, chooseRules(rules));
  }

  @Put(':id/plan/pinned')
  @ApiBody(bodyOf(PinnedBody))
  @ApiOperation({ summary: 'Keep a view open beside the front, or let go of it again' })
  pinned(@Param('id') id: string, @Body() { revision, view }: PinnedBody): Promise<TreeView> {
    return this.trees.revise(id, revision, `keep ${view.bearing}° open`, togglePinned(view));
  }

  @Put(':id/plan/reading')
  @ApiBody(bodyOf(ReadingBody))
  @ApiOperation({ summary: 'Note the signs of strength and how far the year is' })
  reading(@Param('id') id: string, @Body() { revision, ...reading }: ReadingBody): Promise<TreeView> {
    return this.trees.revise(id, revision, 'note the signs', noteReading(reading));
  }

  @Put(':id/measured')
  @ApiBody(bodyOf(MeasuredBody))
  @ApiOperation({ summary: 'Measure anew: whole parts of the tree file, checked as a file is' })
  measured(@Param('id') id: string, @Body() { revision, measured }: MeasuredBody): Promise<TreeView> {
    const unknown = Object.keys(measured).find((key) => !(MEASURED as readonly string[]).includes(key));
    if (unknown)
      throw new ProblemException(400, {
        code: 'unknown-field',
        field: `measured.${unknown}`,
        message: `"${unknown}" is not among what measuring changes: ${MEASURED.join(', ')}.`,
      });
    return this.trees.revise(id, revision, 'measure', measure(measured));
  }

  @Put(':id/measured/:kind')
  @ApiOperation({ summary: 'Branches (CSV) or cylinders of a scan (CSV), in place of the measured ones; the body is the text' })
  async measuredCsv(@Param('id') id: string, @Param('kind') kind: string, @Query('revision') revision: string, @Body() text: string): Promise<TreeView> {
    const read = kind === 'cylinders' ? readCylinderCsv(text) : kind === 'branches' ? readBranchCsv(text) : null;
    if (!read) throw notFound(`"${kind}"`, 'kind');
    if ('faults' in read) throw refused(read.faults);
    return this.trees.revise(id, Number(revision), `bring in ${kind}`, measure(read.measured));
  }

  @Get(':id/branches.csv')
  @Header('Content-Type', 'text/csv; charset=utf-8')
  @ApiOperation({ summary: 'The branches as CSV, for a spreadsheet' })
  async branchCsv(@Param('id') id: string): Promise<string> {
    return writeBranchCsv((await this.trees.get(id)).tree.branches);
  }

  @Post(':id/undo')
  @ApiBody(bodyOf(Revised))
  @ApiOperation({ summary: 'Take back the last change to the plan' })
  undo(@Param('id') id: string, @Body() { revision }: Revised): Promise<TreeView> {
    return this.trees.step(id, revision, 'undo');
  }

  @Post(':id/redo')
  @ApiBody(bodyOf(Revised))
  @ApiOperation({ summary: 'Make the change again that was taken back' })
  redo(@Param('id') id: string, @Body() { revision }: Revised): Promise<TreeView> {
    return this.trees.step(id, revision, 'redo');
  }
}
