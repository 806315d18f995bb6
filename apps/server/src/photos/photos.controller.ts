import { Controller, Get, Header, HttpCode, Put, Req, StreamableFile } from '@nestjs/common';
import type { Request } from 'express';
import type { Actor } from '../identity/actor.ts';
import { May } from '../identity/rights.ts';
import { CurrentActor } from '../identity/access.ts';
import { fileOf } from '../http/files.ts';
import { Answers, BytesBody, WRITE } from '../http/openapi.ts';
import { IdParam } from '../http/parameters.ts';
import { MEDIA_TYPES } from './photo-content.ts';
import { PhotosService, type PhotoView } from './photos.service.ts';

@Controller('photos')
export class PhotosController {
  constructor(private readonly photos: PhotosService) {}

  /** The body is the photo itself, whatever its Content-Type. */
  @BytesBody(...MEDIA_TYPES)
  @Answers({
    schema: 'Photo',
    fails: [...WRITE, 'not-found', 'too-large', 'id-reused', 'not-accepted'],
  })
  @May('propose')
  @Put(':id')
  @HttpCode(200)
  keep(
    @CurrentActor() actor: Actor,
    @IdParam('photo') id: string,
    @Req() request: Request,
  ): Promise<PhotoView> {
    return this.photos.keep(actor, id, request.body);
  }

  @Answers({ mediaType: 'image/*', fails: ['not-found'] })
  @Get(':id')
  @Header('Cache-Control', 'private, max-age=31536000, immutable')
  async one(@CurrentActor() actor: Actor, @IdParam('photo') id: string): Promise<StreamableFile> {
    const { mediaType, bytes } = await this.photos.one(actor, id);
    return fileOf(bytes, mediaType, 'photo', 'inline');
  }
}
