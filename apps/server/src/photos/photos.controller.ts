import { Controller, Get, HttpCode, Param, Put, Req, Res } from '@nestjs/common';
import type { Request, Response } from 'express';
import type { Actor } from '../people/actor.ts';
import { CurrentActor } from '../people/session.guard.ts';
import { parseId } from '../platform/validation.ts';
import { PhotosService, type PhotoView } from './photos.service.ts';

@Controller('photos')
export class PhotosController {
  constructor(private readonly photos: PhotosService) {}

  /** The body is the photo itself, whatever its Content-Type says. */
  @Put(':id')
  @HttpCode(200)
  keep(
    @CurrentActor() actor: Actor,
    @Param('id') id: string,
    @Req() request: Request,
  ): Promise<PhotoView> {
    return this.photos.keep(actor, parseId(id, 'photo'), request.body);
  }

  @Get(':id')
  async one(
    @CurrentActor() actor: Actor,
    @Param('id') id: string,
    @Res() response: Response,
  ): Promise<void> {
    const { mediaType, bytes } = await this.photos.one(actor, parseId(id, 'photo'));
    response.setHeader('Cache-Control', 'private, max-age=31536000, immutable');
    response.setHeader('Content-Disposition', 'inline');
    response.type(mediaType).send(bytes);
  }
}
