import { Controller, Get, Req, Res } from '@nestjs/common';
import type { Response } from 'express';
import type { Actor } from '../identity/actor.ts';
import { CurrentActor, type SignedInRequest } from '../identity/access.ts';
import { Who } from '../auth/who.ts';
import { Answers } from '../http/openapi.ts';
import { IdParam } from '../http/parameters.ts';
import { OpenPages, type PageEvent } from './open-pages.service.ts';

/** Often enough that proxies keep the connection open and a removed person is cut off soon. */
const BEAT_MS = 15_000;

/** Live events of a timer while a page of it is open. */
@Controller('timers/:id/events')
export class EventsController {
  constructor(
    private readonly pages: OpenPages,
    private readonly who: Who,
  ) {}

  /** Server-sent events: the saved version and its author, who else has the timer open, and changed suggestions. */
  @Answers({ mediaType: 'text/event-stream', fails: ['not-found', 'busy'] })
  @Get()
  async stream(
    @CurrentActor() actor: Actor,
    @IdParam('timer') id: string,
    @Req() request: SignedInRequest,
    @Res() response: Response,
  ): Promise<void> {
    const waiting: PageEvent[] = [];
    const write = ({ kind, ...data }: PageEvent) =>
      response.write(`event: ${kind}\ndata: ${JSON.stringify(data)}\n\n`);
    const page = await this.pages.open(actor, id, {
      send: (event) => (response.headersSent ? write(event) : waiting.push(event)),
      end: () => response.end(),
    });
    response.writeHead(200, {
      'Content-Type': 'text/event-stream',
      // Compression would delay events.
      'Cache-Control': 'no-store, no-transform',
      'X-Accel-Buffering': 'no',
    });
    waiting.forEach(write);
    const beat = setInterval(() => {
      response.write(': still here\n\n');
      this.who
        .asks(request)
        .then((still) => {
          if (still) this.pages.look(page);
          else response.end();
        })
        // Unknown while the database is away; the next heartbeat asks again.
        .catch(() => undefined);
    }, BEAT_MS);
    response.once('close', () => {
      clearInterval(beat);
      this.pages.close(page);
    });
  }
}
