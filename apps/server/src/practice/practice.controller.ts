import { Body, Controller, Get, HttpCode, Post } from '@nestjs/common';
import type { Actor } from '../identity/actor.ts';
import { May } from '../identity/rights.ts';
import { CurrentActor } from '../identity/access.ts';
import { Answers, JSON_WRITE } from '../http/openapi.ts';
import { PracticeBody } from './practice-body.ts';
import { PracticeService, type PracticeView } from './practice.service.ts';

@Controller('practice')
export class PracticeController {
  constructor(private readonly practice: PracticeService) {}

  /** Results of bench tasks: one's own, and everyone's for people who look after sites. */
  @Answers({ schema: ['Practice'], fails: [] })
  @Get()
  list(@CurrentActor() actor: Actor): Promise<PracticeView[]> {
    return this.practice.list(actor);
  }

  @May('own')
  @Answers({ schema: ['Practice'], fails: [...JSON_WRITE, 'id-reused'] })
  @Post()
  @HttpCode(200)
  add(@CurrentActor() actor: Actor, @Body() body: PracticeBody): Promise<PracticeView[]> {
    return this.practice.add(actor, body);
  }
}
