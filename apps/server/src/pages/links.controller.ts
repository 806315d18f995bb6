import { Body, Controller, Get, HttpCode, Post, StreamableFile } from '@nestjs/common';
import type { HomeownerPage, Language } from '@water-clock/core';
import type { Actor } from '../identity/actor.ts';
import { CurrentActor } from '../identity/access.ts';
import { fileOf } from '../http/files.ts';
import { Answers, JSON_WRITE, WORK, WRITE } from '../http/openapi.ts';
import { IdParam, LanguageQuery, WordQuery } from '../http/parameters.ts';
import { CARD_PAPERS, type CardPaper } from '../formats/card-pdf.ts';
import { MakeLinkBody } from './make-link-body.ts';
import { PAPERS, type Paper } from '../formats/page-pdf.ts';
import { PagesService, type LinkView } from './homeowner-pages.service.ts';

/** The homeowner's page as the company sees it, and its links. */
@Controller('timers/:id')
export class LinksController {
  constructor(private readonly pages: PagesService) {}

  @Answers({ schema: 'HomeownerPage', fails: ['malformed-request', 'not-found', ...WORK] })
  @Get('page')
  page(
    @CurrentActor() actor: Actor,
    @IdParam('timer') id: string,
    @LanguageQuery() language: Language | null,
  ): Promise<HomeownerPage> {
    return this.pages.pageOf(actor.companyId, id, language);
  }

  @Answers({ mediaType: 'application/pdf', fails: ['malformed-request', 'not-found', ...WORK] })
  @Get('page.pdf')
  async pdf(
    @CurrentActor() actor: Actor,
    @IdParam('timer') id: string,
    @WordQuery('paper', PAPERS) paper: Paper,
    @LanguageQuery() language: Language | null,
  ): Promise<StreamableFile> {
    const bytes = await this.pages.pdfOf(actor.companyId, id, paper, language);
    return fileOf(bytes, 'application/pdf', 'watering.pdf', 'inline');
  }

  /** For the inside of the timer door. */
  @Answers({ mediaType: 'application/pdf', fails: ['malformed-request', 'not-found', ...WORK] })
  @Get('card.pdf')
  async card(
    @CurrentActor() actor: Actor,
    @IdParam('timer') id: string,
    @WordQuery('paper', CARD_PAPERS) paper: CardPaper,
    @LanguageQuery() language: Language | null,
  ): Promise<StreamableFile> {
    const bytes = await this.pages.cardOf(actor, id, paper, language);
    return fileOf(bytes, 'application/pdf', 'card.pdf', 'inline');
  }

  @Answers({ schema: ['Link'], fails: ['not-found'] })
  @Get('links')
  links(@CurrentActor() actor: Actor, @IdParam('timer') id: string): Promise<LinkView[]> {
    return this.pages.links(actor, id);
  }

  @Answers({
    schema: 'Link',
    fails: [...JSON_WRITE, 'not-found', 'id-reused'],
  })
  @Post('links')
  @HttpCode(200)
  make(
    @CurrentActor() actor: Actor,
    @IdParam('timer') id: string,
    @Body() body: MakeLinkBody,
  ): Promise<LinkView> {
    return this.pages.make(actor, id, body);
  }

  /** Revoking twice is harmless. */
  @Answers({ schema: 'Link', fails: [...WRITE, 'not-found'] })
  @Post('links/:link/withdraw')
  @HttpCode(200)
  withdraw(
    @CurrentActor() actor: Actor,
    @IdParam('timer') id: string,
    @IdParam('link', 'link') link: string,
  ): Promise<LinkView> {
    return this.pages.withdraw(actor, id, link);
  }
}
