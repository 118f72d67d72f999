import { Controller, Get, HttpCode, Param, Post, Query, Req, Res } from '@nestjs/common';
import { ApiConsumes, ApiOperation, ApiTags } from '@nestjs/swagger';
import type { ActAnswer } from '@ustle/contract';
import { ACT, type Act } from '@ustle/core';
import { shapeFaults } from '@ustle/files';
import type { Request, Response } from 'express';
import { notFound, ProblemException, refused } from '../problem.js';
import { TreesService } from '../trees/trees.service.js';
import { PhotoFiles, type PhotoSize } from './photo-files.js';
import { PHOTO_ID } from './photo-id.js';
import { readPhoto } from './read-photo.js';

const YEAR_S = 31_536_000;

/** The act that tells of a photo, as it stands in the address of the request that brings the picture. */
function photoAct(text: string | undefined): Extract<Act, { kind: 'photo' }> {
  let act: unknown;
  try {
    act = JSON.parse(text ?? '');
  } catch {
    throw new ProblemException(400, { code: 'not-json', field: 'act', message: 'act: what the photo shows is told by an act, as JSON.' });
  }
  const faults = shapeFaults(ACT, act);
  if (faults.length) throw refused(faults);
  const photo = act as Extract<Act, { kind: 'photo' }>;
  if (photo.kind !== 'photo' || !photo.photo || !PHOTO_ID.test(photo.photo))
    throw new ProblemException(400, { code: 'id', field: 'photo', message: 'photo: a photo needs an id of letters, digits, dash and underscore.' });
  return photo;
}

@ApiTags('photos')
@Controller('api')
export class PhotosController {
  constructor(
    private readonly trees: TreesService,
    private readonly files: PhotoFiles,
  ) {}

  @Post('trees/:id/photos')
  @HttpCode(200)
  @ApiConsumes('image/jpeg', 'image/png', 'image/webp')
  @ApiOperation({ summary: 'Add a photo (the body is the picture) with the act that tells of it; sent twice it is kept once' })
  async add(
    @Param('id') id: string,
    @Query('act') text: string | undefined,
    @Query('name') name: string | undefined,
    @Req() request: Request,
  ): Promise<ActAnswer> {
    const act = photoAct(text);
    await this.trees.tree(id);
    const photo = act.photo!;
    const known = this.files.has(photo);
    const read = known ? null : await readPhoto(Buffer.isBuffer(request.body) ? request.body : Buffer.alloc(0), name ?? '');
    if (read) this.files.save(photo, read);
    const size = read ? { width: read.width, height: read.height } : {};
    try {
      return await this.trees.act(id, { ...act, ...size }, undefined);
    } catch (error) {
      if (!known) this.files.remove(photo);
      throw error;
    }
  }

  @Get('photos/:photo')
  @ApiOperation({ summary: 'A photo; ?size=small for lists' })
  get(@Param('photo') photo: string, @Query('size') size: string | undefined, @Res() response: Response): void {
    const wanted: PhotoSize = size === 'small' ? 'small' : 'full';
    if (!this.files.has(photo)) throw notFound('This photo', 'photo');
    response.setHeader('Cache-Control', `private, max-age=${YEAR_S}, immutable`);
    response.type('image/jpeg').sendFile(this.files.path(photo, wanted), { dotfiles: 'allow' });
  }
}
