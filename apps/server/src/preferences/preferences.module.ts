import { Module } from '@nestjs/common';
import { PreferencesController } from './preferences.controller.ts';
import { PreferencesService } from './preferences.service.ts';

/** Preferences, kept with the person and not with a device. */
@Module({
  controllers: [PreferencesController],
  providers: [PreferencesService],
})
export class PreferencesModule {}
