import { Controller, Get, Header, Headers, Query, Res, UseGuards } from '@nestjs/common';
import { SkipThrottle, ThrottlerGuard } from '@nestjs/throttler';
import type { HomeownerPage } from '@water-clock/core';
import type { Response } from 'express';
import { Public } from '../people/session.guard.ts';
import { paperOf } from './page-pdf.ts';
import { PagesService } from './pages.service.ts';

/** `Bearer TOKEN`; the token stands in no address, so that it is in no log and no list of pages visited. */
const tokenOf = (header: string | undefined) => header?.replace(/^Bearer /i, '') ?? '';

/** The page for who holds a link, without an account. It shows that page and nothing else. */
@Public()
@UseGuards(ThrottlerGuard)
@SkipThrottle({ address: true, account: true })
@Controller('page')
export class PagesController {
  constructor(private readonly pages: PagesService) {}

  @Get()
  @Header('Cache-Control', 'no-store')
  page(@Headers('authorization') header?: string): Promise<HomeownerPage> {
    return this.pages.opened(tokenOf(header));
  }

  @Get('pdf')
  @Header('Cache-Control', 'no-store')
  async pdf(
    @Res() response: Response,
    @Headers('authorization') header?: string,
    @Query('paper') paper?: string,
  ): Promise<void> {
    const bytes = await this.pages.openedPdf(tokenOf(header), paperOf(paper));
    response.type('application/pdf').send(bytes);
  }
}
