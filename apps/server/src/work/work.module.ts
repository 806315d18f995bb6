import { Global, Module } from '@nestjs/common';
import { WorkService } from './work.service.ts';

/** Heavy work of every part of the server, in threads. */
@Global()
@Module({ providers: [WorkService], exports: [WorkService] })
export class WorkModule {}
