import { Controller, Get, Headers, StreamableFile, UseGuards } from '@nestjs/common';
import { SkipThrottle, ThrottlerGuard } from '@nestjs/throttler';
import type { HomeownerPage } from '@water-clock/core';
import { fileOf } from '../platform/files.ts';
import { Answers, WORK } from '../platform/openapi.ts';
import { WordQuery } from '../platform/parameters.ts';
import { Public } from '../platform/public.ts';
import { PAPERS, type Paper } from '../formats/page-pdf.ts';
import { PagesService } from './pages.service.ts';

/** `Bearer TOKEN`; the token is in no address, so it gets into no log and no browsing history. */
const tokenOf = (header: string | undefined) => header?.replace(/^Bearer /i, '') ?? '';

/** The page for anybody who has a link, without an account. It shows that page and nothing else. */
@Public()
@UseGuards(ThrottlerGuard)
@SkipThrottle({ address: true, account: true })
@Controller('page')
export class PagesController {
  constructor(private readonly pages: PagesService) {}

  @Answers({ schema: 'HomeownerPage', fails: ['not-found', 'too-many-tries'], open: true })
  @Get()
  page(@Headers('authorization') header?: string): Promise<HomeownerPage> {
    return this.pages.opened(tokenOf(header));
  }

  @Answers({
    mediaType: 'application/pdf',
    fails: ['malformed-request', 'not-found', 'too-many-tries', ...WORK],
    open: true,
  })
  @Get('pdf')
  async pdf(
    @WordQuery('paper', PAPERS) paper: Paper,
    @Headers('authorization') header?: string,
  ): Promise<StreamableFile> {
    const bytes = await this.pages.openedPdf(tokenOf(header), paper);
    return fileOf(bytes, 'application/pdf', 'watering.pdf');
  }
}
