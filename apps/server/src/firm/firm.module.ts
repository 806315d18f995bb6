import { Module } from '@nestjs/common';
import { FirmController } from './firm.controller.ts';
import { FirmService } from './firm.service.ts';
import { FoundingController } from './founding.controller.ts';
import { FoundingService } from './founding.service.ts';

/** A firm: how it comes to be, and its own settings. */
@Module({
  controllers: [FirmController, FoundingController],
  providers: [FirmService, FoundingService],
})
export class FirmModule {}
