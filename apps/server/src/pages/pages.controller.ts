import { Controller, Get, Headers, Ip, StreamableFile } from '@nestjs/common';
import type { HomeownerPage, Language } from '@water-clock/core';
import { fileOf } from '../http/files.ts';
import { Answers, WORK } from '../http/openapi.ts';
import { LanguageQuery, WordQuery } from '../http/parameters.ts';
import { Public } from '../http/public.ts';
import { PAPERS, type Paper } from '../formats/page-pdf.ts';
import { bearer } from '../platform/token.ts';
import { Tries } from '../auth/tries.ts';
import { PagesService } from './homeowner-pages.service.ts';

/** The page for anyone with a link, without an account. The link shows this page and nothing else. */
@Public()
@Controller('page')
export class PagesController {
  constructor(
    private readonly pages: PagesService,
    private readonly tries: Tries,
  ) {}

  @Answers({
    schema: 'HomeownerPage',
    fails: ['malformed-request', 'not-found', 'too-many-tries', ...WORK],
    open: true,
  })
  @Get()
  async page(
    @Ip() address: string,
    @LanguageQuery() language: Language | null,
    @Headers('authorization') header?: string,
  ): Promise<HomeownerPage> {
    await this.tries.openPage(address);
    return this.pages.opened(bearer(header), address, language);
  }

  @Answers({
    mediaType: 'application/pdf',
    fails: ['malformed-request', 'not-found', 'too-many-tries', ...WORK],
    open: true,
  })
  @Get('pdf')
  async pdf(
    @Ip() address: string,
    @WordQuery('paper', PAPERS) paper: Paper,
    @LanguageQuery() language: Language | null,
    @Headers('authorization') header?: string,
  ): Promise<StreamableFile> {
    await this.tries.openPage(address);
    const bytes = await this.pages.openedPdf(bearer(header), paper, language);
    return fileOf(bytes, 'application/pdf', 'watering.pdf');
  }
}
