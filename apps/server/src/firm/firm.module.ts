import { Module } from '@nestjs/common';
import { FirmController } from './firm.controller.ts';
import { FirmService } from './firm.service.ts';

/** The firm's own settings. */
@Module({
  controllers: [FirmController],
  providers: [FirmService],
})
export class FirmModule {}
