import { Controller, Get, HttpCode, Put, Req, StreamableFile } from '@nestjs/common';
import type { Request } from 'express';
import type { Actor } from '../identity/actor.ts';
import { Fresh, May } from '../identity/rights.ts';
import { CurrentActor } from '../identity/access.ts';
import { fileOf } from '../http/files.ts';
import { Answers, BytesBody, WORK, WRITE } from '../http/openapi.ts';
import { IdParam } from '../http/parameters.ts';
import { ArchiveService } from './archive.service.ts';

@Controller()
export class ArchiveController {
  constructor(private readonly archive: ArchiveService) {}

  /** One site with its timers, logbook and photos, as a ZIP of open documents. */
  @Answers({ mediaType: 'application/zip', fails: ['not-found', ...WORK] })
  @Get('sites/:id/archive')
  async export(@CurrentActor() actor: Actor, @IdParam('site') id: string): Promise<StreamableFile> {
    const { name, bytes } = await this.archive.write(actor, id);
    return fileOf(bytes, 'application/zip', `${name}.zip`);
  }

  /** The whole company as one ZIP: its library and the archive of each site. */
  @May('company')
  @Fresh()
  @Answers({ mediaType: 'application/zip', fails: ['not-allowed'] })
  @Get('company/archive')
  async company(@CurrentActor() actor: Actor): Promise<StreamableFile> {
    return new StreamableFile(await this.archive.writeCompany(actor), {
      type: 'application/zip',
      disposition: 'attachment; filename="company.zip"',
    });
  }

  /** Creates a site from an archive in the request body. Repeating the request with the same id is harmless. */
  @BytesBody('application/zip')
  @Answers({
    schema: 'ImportedSite',
    fails: [...WRITE, 'not-found', 'too-large', 'id-reused', ...WORK],
  })
  @Put('sites/:id/archive')
  @HttpCode(200)
  import(
    @CurrentActor() actor: Actor,
    @IdParam('site') id: string,
    @Req() request: Request,
  ): Promise<{ siteId: string; timerIds: string[] }> {
    return this.archive.read(actor, id, request.body);
  }
}
