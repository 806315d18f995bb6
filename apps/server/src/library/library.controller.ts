import { Body, Controller, Get, HttpCode, Param, ParseEnumPipe, Post } from '@nestjs/common';
import type { Actor } from '../identity/actor.ts';
import { CurrentActor } from '../identity/access.ts';
import { notFound } from '../http/api-error.ts';
import { Answers, JSON_WRITE } from '../http/openapi.ts';
import { IdParam } from '../http/parameters.ts';
import { ChangeLibraryBody } from './library-body.ts';
import { SHELVES, type Shelf } from './library-entry.entity.ts';
import { LibraryService, type LibraryView } from './library.service.ts';

const shelfPipe = new ParseEnumPipe(Object.fromEntries(SHELVES.map((one) => [one, one])), {
  exceptionFactory: () => notFound('library section'),
});

@Controller('library')
export class LibraryController {
  constructor(private readonly library: LibraryService) {}

  @Answers({ schema: ['LibraryEntry'], fails: ['not-found'] })
  @Get(':shelf')
  list(
    @CurrentActor() actor: Actor,
    @Param('shelf', shelfPipe) shelf: Shelf,
  ): Promise<LibraryView[]> {
    return this.library.list(actor, shelf);
  }

  @Answers({
    schema: 'Version',
    fails: [...JSON_WRITE, 'not-found', 'stale-version', 'id-reused', 'not-accepted'],
  })
  @Post(':shelf/:id/changes')
  @HttpCode(200)
  change(
    @CurrentActor() actor: Actor,
    @Param('shelf', shelfPipe) shelf: Shelf,
    @IdParam('document') id: string,
    @Body() body: ChangeLibraryBody,
  ): Promise<{ version: number }> {
    return this.library.change(actor, shelf, id, body);
  }
}
