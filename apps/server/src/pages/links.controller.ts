import { Body, Controller, Get, HttpCode, Param, Post, Query, Res } from '@nestjs/common';
import type { HomeownerPage } from '@water-clock/core';
import type { Response } from 'express';
import type { Actor } from '../people/actor.ts';
import { CurrentActor } from '../people/session.guard.ts';
import { parseId } from '../platform/validation.ts';
import { MakeLinkBody } from './make-link-body.ts';
import { paperOf } from './page-pdf.ts';
import { PagesService, type LinkView } from './pages.service.ts';

/** The homeowner's page as its company sees it, and the links to it. */
@Controller('timers/:id')
export class LinksController {
  constructor(private readonly pages: PagesService) {}

  @Get('page')
  page(@CurrentActor() actor: Actor, @Param('id') id: string): Promise<HomeownerPage> {
    return this.pages.pageOf(actor.companyId, parseId(id, 'timer'));
  }

  @Get('page.pdf')
  async pdf(
    @CurrentActor() actor: Actor,
    @Param('id') id: string,
    @Res() response: Response,
    @Query('paper') paper?: string,
  ): Promise<void> {
    const bytes = await this.pages.pdfOf(actor.companyId, parseId(id, 'timer'), paperOf(paper));
    response
      .type('application/pdf')
      .setHeader('Content-Disposition', 'inline; filename="watering.pdf"');
    response.send(bytes);
  }

  @Get('links')
  links(@CurrentActor() actor: Actor, @Param('id') id: string): Promise<LinkView[]> {
    return this.pages.links(actor, parseId(id, 'timer'));
  }

  @Post('links')
  @HttpCode(200)
  make(
    @CurrentActor() actor: Actor,
    @Param('id') id: string,
    @Body() body: MakeLinkBody,
  ): Promise<LinkView> {
    return this.pages.make(actor, parseId(id, 'timer'), body);
  }

  /** Withdrawing twice is harmless. */
  @Post('links/:link/withdraw')
  @HttpCode(200)
  withdraw(
    @CurrentActor() actor: Actor,
    @Param('id') id: string,
    @Param('link') link: string,
  ): Promise<LinkView> {
    return this.pages.withdraw(actor, parseId(id, 'timer'), parseId(link, 'link'));
  }
}
