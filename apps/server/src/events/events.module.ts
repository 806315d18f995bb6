import { Module } from '@nestjs/common';
import { TimersModule } from '../timers/timers.module.ts';
import { EventsController } from './events.controller.ts';
import { Listener } from './listener.service.ts';
import { OpenPages } from './open-pages.service.ts';

/** Live events from colleagues, on whichever server. */
@Module({
  imports: [TimersModule],
  controllers: [EventsController],
  providers: [Listener, OpenPages],
  exports: [Listener],
})
export class EventsModule {}
