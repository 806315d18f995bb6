import { Body, Controller, Get, HttpCode, Param, Post } from '@nestjs/common';
import type { Actor } from '../people/actor.ts';
import { CurrentActor } from '../people/session.guard.ts';
import { notFound } from '../platform/api-error.ts';
import { parseId } from '../platform/validation.ts';
import { ChangeLibraryBody } from './library-body.ts';
import { SHELVES, type Shelf } from './library-entry.entity.ts';
import { LibraryService, type LibraryView } from './library.service.ts';

function parseShelf(text: string): Shelf {
  const shelf = SHELVES.find((one) => one === text);
  if (!shelf) throw notFound('shelf');
  return shelf;
}

@Controller('library')
export class LibraryController {
  constructor(private readonly library: LibraryService) {}

  @Get(':shelf')
  list(@CurrentActor() actor: Actor, @Param('shelf') shelf: string): Promise<LibraryView[]> {
    return this.library.list(actor, parseShelf(shelf));
  }

  @Post(':shelf/:id/changes')
  @HttpCode(200)
  change(
    @CurrentActor() actor: Actor,
    @Param('shelf') shelf: string,
    @Param('id') id: string,
    @Body() body: ChangeLibraryBody,
  ): Promise<{ version: number }> {
    return this.library.change(actor, parseShelf(shelf), parseId(id, 'document'), body);
  }
}
