import { inTheirLanguage } from './http/language.ts';
import { NestFactory } from '@nestjs/core';
import type { NestExpressApplication } from '@nestjs/platform-express';
import compression from 'compression';
import cookieParser from 'cookie-parser';
import { Logger } from 'nestjs-pino';
import type { DestinationStream } from 'pino';
import { AppModule } from './app.module.ts';
import { MetricsService } from './metrics/metrics.service.ts';
import { sessionFirst } from './auth/session.guard.ts';
import { Who } from './auth/who.ts';
import { readBodies, sameOrigin } from './http/body.ts';
import { apiMark } from './http/api-mark.ts';
import { Drain } from './http/drain.ts';
import { logOf, requestLog } from './platform/logging.ts';
import { serveOpenApi } from './http/openapi.ts';
import { contentRules, makeNonce, serveShell } from './http/shell.ts';
import type { Settings } from './platform/settings.ts';

/**
 * The whole server, ready to listen. Migrations have run; in demo mode the demo data is loaded.
 *
 * @param logTo stream for the log; standard output by default.
 */
export async function createApplication(
  settings: Settings,
  logTo?: DestinationStream,
): Promise<NestExpressApplication> {
  const log = logOf(settings.logLevel, logTo);
  const app = await NestFactory.create<NestExpressApplication>(AppModule.with(settings, log), {
    bufferLogs: true,
    bodyParser: false,
  });
  app.useLogger(app.get(Logger));
  app.setGlobalPrefix('api', { exclude: ['metrics'] });
  const { trustProxy } = settings;
  if (trustProxy !== null)
    app.set('trust proxy', /^\d$/.test(trustProxy) ? Number(trustProxy) : trustProxy);
  app.use(
    requestLog(log),
    app.get(MetricsService).count,
    app.get(Drain).mark,
    makeNonce,
    contentRules(settings),
    apiMark,
    compression(),
    serveShell(settings.webRoot),
    cookieParser(),
    sameOrigin,
  );
  readBodies(app, sessionFirst(app.get(Who)));
  // After the body parsers, which would lose the request's async context.
  app.use(inTheirLanguage);
  serveOpenApi(app);
  app.enableShutdownHooks();
  await app.init();
  return app;
}
