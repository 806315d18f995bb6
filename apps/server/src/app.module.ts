import type { ServerResponse } from 'node:http';
import { Module, type DynamicModule } from '@nestjs/common';
import { APP_FILTER, APP_PIPE } from '@nestjs/core';
import { ServeStaticModule } from '@nestjs/serve-static';
import { TypeOrmModule } from '@nestjs/typeorm';
import { LoggerModule } from 'nestjs-pino';
import type { Logger as PinoLogger } from 'pino';
import { AuditModule } from './audit/audit.module.ts';
import { AuthModule } from './auth/auth.module.ts';
import { ArchiveModule } from './archive/archive.module.ts';
import { CalendarModule } from './calendar/calendar.module.ts';
import { ChangesModule } from './changes/changes.module.ts';
import { databaseOptions, openDatabase } from './database/database.ts';
import { DemoModule } from './demo/demo.module.ts';
import { RetentionModule } from './retention/retention.module.ts';
import { EventsModule } from './events/events.module.ts';
import { CompanyModule } from './company/company.module.ts';
import { HealthModule } from './health/health.module.ts';
import { HousesModule } from './houses/houses.module.ts';
import { LibraryModule } from './library/library.module.ts';
import { MailModule } from './mail/mail.module.ts';
import { MetricsModule } from './metrics/metrics.module.ts';
import { PagesModule } from './pages/pages.module.ts';
import { PhotosModule } from './photos/photos.module.ts';
import { ApiErrorFilter } from './http/api-error.filter.ts';
import { ProposalsModule } from './proposals/proposals.module.ts';
import { PracticeModule } from './practice/practice.module.ts';
import { ReportsModule } from './reports/reports.module.ts';
import { ReplansModule } from './replans/replans.module.ts';
import { SettingsModule } from './platform/settings.module.ts';
import { PreferencesModule } from './preferences/preferences.module.ts';
import type { Settings } from './platform/settings.ts';
import { validationPipe } from './http/validation.ts';
import { SitesModule } from './sites/sites.module.ts';
import { TimerStatusModule } from './timer-status/timer-status.module.ts';
import { TimersModule } from './timers/timers.module.ts';
import { VisitsModule } from './visits/visits.module.ts';
import { WorkModule } from './work/work.module.ts';
import { WeatherModule } from './weather/weather.module.ts';

/** Built file names contain a hash, so browsers may cache them. */
const ASSET_CACHE = 'public, max-age=31536000, immutable';

const webAt = (rootPath: string) =>
  ServeStaticModule.forRoot({
    rootPath,
    exclude: ['/api/{*rest}', '/assets/{*rest}', '/metrics'],
    serveStaticOptions: {
      setHeaders: (response: ServerResponse, path: string) => {
        const hashed = path.includes('/assets/');
        response.setHeader('Cache-Control', hashed ? ASSET_CACHE : 'no-cache');
      },
    },
  });

@Module({})
export class AppModule {
  static with(settings: Settings, logger: PinoLogger): DynamicModule {
    return {
      module: AppModule,
      imports: [
        SettingsModule.with(settings),
        LoggerModule.forRoot({ pinoHttp: { logger }, useExisting: true }),
        TypeOrmModule.forRootAsync({
          useFactory: () => databaseOptions(settings),
          dataSourceFactory: openDatabase,
        }),
        WorkModule,
        HealthModule,
        MetricsModule,
        AuthModule,
        AuditModule,
        CompanyModule,
        MailModule,
        PreferencesModule,
        ChangesModule,
        SitesModule,
        // Routes for all timers must come before routes for one.
        TimerStatusModule,
        TimersModule,
        ProposalsModule,
        ReplansModule,
        PracticeModule,
        ReportsModule,
        HousesModule,
        EventsModule,
        LibraryModule,
        PhotosModule,
        WeatherModule,
        VisitsModule,
        CalendarModule,
        PagesModule,
        ArchiveModule,
        RetentionModule,
        DemoModule.when(settings.demo),
        ...(settings.webRoot === null ? [] : [webAt(settings.webRoot)]),
      ],
      providers: [
        { provide: APP_FILTER, useClass: ApiErrorFilter },
        { provide: APP_PIPE, useFactory: validationPipe },
      ],
    };
  }
}
