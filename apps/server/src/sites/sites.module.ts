import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { Site } from './site.entity.ts';
import { Timer } from './timer.entity.ts';
import { SitesController } from './sites.controller.ts';
import { SitesService } from './sites.service.ts';

/** Sites and their timers. */
@Module({
  imports: [TypeOrmModule.forFeature([Site, Timer])],
  controllers: [SitesController],
  providers: [SitesService],
})
export class SitesModule {}
