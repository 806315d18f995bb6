import { NestFactory } from '@nestjs/core';
import type { NestExpressApplication } from '@nestjs/platform-express';
import compression from 'compression';
import cookieParser from 'cookie-parser';
import helmet from 'helmet';
import { Logger } from 'nestjs-pino';
import { AppModule } from './app.module.ts';
import { sessionFirst } from './people/session.guard.ts';
import { SessionService } from './people/session.service.ts';
import { readBodies, sameOrigin } from './platform/body.ts';
import { apiMark } from './platform/api-mark.ts';
import { serveOpenApi } from './platform/openapi.ts';
import type { Settings } from './platform/settings.ts';

/** The whole server, ready to listen. Migrations have run, and in demo mode the demo data is there. */
export async function createApplication(settings: Settings): Promise<NestExpressApplication> {
  const app = await NestFactory.create<NestExpressApplication>(AppModule.with(settings), {
    bufferLogs: true,
    bodyParser: false,
    // An open page asks every few seconds and would keep the server running forever.
    forceCloseConnections: true,
  });
  app.useLogger(app.get(Logger));
  app.setGlobalPrefix('api');
  app.use(
    helmet({
      contentSecurityPolicy: {
        directives: {
          defaultSrc: ["'self'"],
          // The component library writes its styles into the page.
          styleSrc: ["'self'", "'unsafe-inline'"],
          imgSrc: ["'self'", 'data:', 'blob:'],
          workerSrc: ["'self'"],
          // The application is served over plain HTTP on loopback.
          upgradeInsecureRequests: null,
        },
      },
    }),
    apiMark,
    compression(),
    cookieParser(),
    sameOrigin,
  );
  readBodies(app, sessionFirst(app.get(SessionService)));
  serveOpenApi(app);
  app.enableShutdownHooks();
  await app.init();
  return app;
}
