import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { Site } from './site.entity.ts';
import { Timer } from './timer.entity.ts';
import { SitesController } from './sites.controller.ts';
import { SitesService } from './sites.service.ts';

/** Houses, and the timers at them. */
@Module({
  imports: [TypeOrmModule.forFeature([Site, Timer])],
  controllers: [SitesController],
  providers: [SitesService],
})
export class SitesModule {}
