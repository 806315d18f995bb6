import { Module } from '@nestjs/common';
import { ClearingService } from './clearing.service.ts';
import { Nightly } from './nightly.ts';

/** The nightly clearing of what nobody can use any more. */
@Module({ providers: [ClearingService, Nightly] })
export class ClearingModule {}
