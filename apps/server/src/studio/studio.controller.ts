import { randomUUID } from 'node:crypto';
import { createWriteStream, mkdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { Transform, type TransformCallback } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { Controller, Get, HttpCode, Post, Req, Res } from '@nestjs/common';
import { ApiConsumes, ApiOperation, ApiTags } from '@nestjs/swagger';
import type { Request, Response } from 'express';
import { incomingFolder } from '../photos/incoming.js';
import { ProblemException, storeProblem } from '../problem.js';
import { Clock } from '../store/clock.service.js';
import { MOST_TOTAL } from './studio-file.js';
import { StudioService } from './studio.service.js';

/** Lets so many bytes through, and breaks off beyond. */
class AtMost extends Transform {
  private passed = 0;
  constructor(private readonly most: number) {
    super();
  }
  override _transform(part: Buffer, _encoding: BufferEncoding, done: TransformCallback): void {
    this.passed += part.length;
    if (this.passed > this.most)
      done(new ProblemException(413, { code: 'too-large', field: 'file', message: 'This file is larger than a studio ever is. Nothing was changed.' }));
    else done(null, part);
  }
}

@ApiTags('studio')
@Controller('api/studio')
export class StudioController {
  constructor(
    private readonly studio: StudioService,
    private readonly clock: Clock,
  ) {}

  @Get()
  @ApiOperation({ summary: 'Everything as one ZIP: trees with their records, photos, rack, benches' })
  async pack(@Res() response: Response): Promise<void> {
    const zip = await this.studio.pack();
    response.setHeader('Content-Type', 'application/zip');
    response.setHeader('Content-Disposition', `attachment; filename="ustle-studio-${this.clock.todayIso()}.zip"`);
    // Whoever goes away while it is sent breaks it off; there is nobody left to be told.
    await pipeline(zip.outputStream, response).catch(() => response.destroy());
  }

  @Post()
  @HttpCode(200)
  @ApiConsumes('application/zip')
  @ApiOperation({ summary: 'Take a studio in from such a ZIP (the body), where nothing is yet' })
  async restore(@Req() request: Request): Promise<{ trees: number; photos: number }> {
    const folder = incomingFolder();
    mkdirSync(folder, { recursive: true });
    const file = join(folder, `${randomUUID()}.zip`);
    try {
      await pipeline(request, new AtMost(MOST_TOTAL), createWriteStream(file)).catch((error: unknown) => {
        throw storeProblem(error) ?? error;
      });
      return await this.studio.restore(file);
    } finally {
      rmSync(file, { force: true });
    }
  }
}
