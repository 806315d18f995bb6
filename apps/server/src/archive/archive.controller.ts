import { Controller, Get, HttpCode, Param, Put, Req, Res } from '@nestjs/common';
import type { Request, Response } from 'express';
import type { Actor } from '../people/actor.ts';
import { CurrentActor } from '../people/session.guard.ts';
import { parseId } from '../platform/validation.ts';
import { ArchiveService } from './archive.service.ts';

@Controller('sites')
export class ArchiveController {
  constructor(private readonly archive: ArchiveService) {}

  /** A whole site with its timers, its logbook and its photos, as one ZIP of open documents. */
  @Get(':id/archive')
  async export(
    @CurrentActor() actor: Actor,
    @Param('id') id: string,
    @Res() response: Response,
  ): Promise<void> {
    const { name, bytes } = await this.archive.write(actor, parseId(id, 'site'));
    response.attachment(`${name.replaceAll(/[/\\]/g, '-')}.zip`);
    response.type('application/zip').send(bytes);
  }

  /** Makes a site of such a ZIP, which is the body. The id is that of the new site; sending it again is harmless. */
  @Put(':id/archive')
  @HttpCode(200)
  import(
    @CurrentActor() actor: Actor,
    @Param('id') id: string,
    @Req() request: Request,
  ): Promise<{ siteId: string; timerIds: string[] }> {
    return this.archive.read(actor, parseId(id, 'site'), request.body);
  }
}
