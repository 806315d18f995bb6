import type { ServerResponse } from 'node:http';
import { Module, type DynamicModule } from '@nestjs/common';
import { APP_FILTER, APP_GUARD, APP_PIPE } from '@nestjs/core';
import { ServeStaticModule } from '@nestjs/serve-static';
import { ThrottlerModule } from '@nestjs/throttler';
import { TypeOrmModule } from '@nestjs/typeorm';
import { LoggerModule } from 'nestjs-pino';
import { DemoService } from './demo/demo.service.ts';
import { SessionController } from './people/session.controller.ts';
import { SessionGuard } from './people/session.guard.ts';
import { SessionService } from './people/session.service.ts';
import { ApiErrorFilter } from './platform/api-error.filter.ts';
import { CONFIG, type Config } from './platform/config.ts';
import { databaseOptions } from './platform/database.ts';
import { LibraryController } from './library/library.controller.ts';
import { LibraryService } from './library/library.service.ts';
import { PhotosController } from './photos/photos.controller.ts';
import { PhotosService } from './photos/photos.service.ts';
import { HealthController } from './platform/health.controller.ts';
import { validationPipe } from './platform/validation.ts';
import { SitesController } from './sites/sites.controller.ts';
import { SitesService } from './sites/sites.service.ts';
import { TimersController } from './timers/timers.controller.ts';
import { TimersService } from './timers/timers.service.ts';
import { SimulatedWeather } from './weather/simulated-weather.ts';
import { DueController } from './due/due.controller.ts';
import { DueService } from './due/due.service.ts';
import { ArchiveController } from './archive/archive.controller.ts';
import { ArchiveService } from './archive/archive.service.ts';
import { LinksController } from './pages/links.controller.ts';
import { PagesController } from './pages/pages.controller.ts';
import { PagesService } from './pages/pages.service.ts';
import { VisitsController } from './visits/visits.controller.ts';
import { VisitsService } from './visits/visits.service.ts';
import { WeatherController } from './weather/weather.controller.ts';
import { WeatherFeed } from './weather/weather-feed.ts';

const MINUTE_MS = 60_000;
/** Built files carry a hash in their names, so a browser may keep them. */
const ASSET_CACHE = 'public, max-age=31536000, immutable';

function accountOf(request: Record<string, unknown>): string {
  const body = request['body'] as { email?: unknown } | undefined;
  return typeof body?.email === 'string' ? body.email.trim().toLowerCase() : '';
}

@Module({})
export class AppModule {
  static with(config: Config): DynamicModule {
    const limit = config.signInTriesPerMinute;
    return {
      module: AppModule,
      imports: [
        LoggerModule.forRoot({
          pinoHttp: {
            level: config.logLevel,
            redact: ['req.headers.cookie', 'req.headers.authorization', 'res.headers'],
          },
        }),
        TypeOrmModule.forRoot(databaseOptions(config.databaseUrl)),
        ThrottlerModule.forRoot([
          { name: 'address', ttl: MINUTE_MS, limit },
          { name: 'account', ttl: MINUTE_MS, limit, getTracker: accountOf },
          // A page is opened and printed now and then; who guesses at links wants many.
          { name: 'page', ttl: MINUTE_MS, limit: config.pageTriesPerMinute },
        ]),
        ...(config.webRoot === null
          ? []
          : [
              ServeStaticModule.forRoot({
                rootPath: config.webRoot,
                exclude: ['/api/{*rest}', '/assets/{*rest}'],
                serveStaticOptions: {
                  setHeaders: (response: ServerResponse, path: string) => {
                    const hashed = path.includes('/assets/');
                    response.setHeader('Cache-Control', hashed ? ASSET_CACHE : 'no-cache');
                  },
                },
              }),
            ]),
      ],
      controllers: [
        HealthController,
        SessionController,
        SitesController,
        TimersController,
        LibraryController,
        PhotosController,
        WeatherController,
        VisitsController,
        DueController,
        LinksController,
        PagesController,
        ArchiveController,
      ],
      providers: [
        { provide: CONFIG, useValue: config },
        { provide: APP_GUARD, useClass: SessionGuard },
        { provide: APP_FILTER, useClass: ApiErrorFilter },
        { provide: APP_PIPE, useFactory: validationPipe },
        SessionService,
        SitesService,
        TimersService,
        LibraryService,
        PhotosService,
        VisitsService,
        DueService,
        PagesService,
        ArchiveService,
        { provide: WeatherFeed, useClass: SimulatedWeather },
        DemoService,
      ],
    };
  }
}
