import type { Server } from 'node:http';
import {
  Injectable,
  type BeforeApplicationShutdown,
  type OnApplicationShutdown,
} from '@nestjs/common';
import { HttpAdapterHost } from '@nestjs/core';
import type { NextFunction, Request, Response } from 'express';
import { Settings } from '../platform/settings.ts';

const LOOK_EVERY_MS = 50;

/** Shutdown: finish requests in progress, close idle connections, then exit. */
@Injectable()
export class Drain implements BeforeApplicationShutdown, OnApplicationShutdown {
  isDraining = false;
  private readonly timers: NodeJS.Timeout[] = [];

  constructor(
    private readonly host: HttpAdapterHost,
    private readonly settings: Settings,
  ) {}

  readonly mark = (_request: Request, response: Response, next: NextFunction): void => {
    if (this.isDraining) response.setHeader('Connection', 'close');
    next();
  };

  beforeApplicationShutdown(): void {
    this.isDraining = true;
    // Safe cast: the Express adapter on Node's server.
    const server = this.host.httpAdapter.getHttpServer() as Server;
    this.timers.push(
      setInterval(() => server.closeIdleConnections(), LOOK_EVERY_MS),
      setTimeout(() => server.closeAllConnections(), this.settings.drainSeconds * 1000),
    );
  }

  onApplicationShutdown(): void {
    for (const timer of this.timers) clearInterval(timer);
  }
}
