import { timingSafeEqual } from 'node:crypto';
import { Controller, Get, Header, Req } from '@nestjs/common';
import type { Request } from 'express';
import { notFound } from '../http/api-error.ts';
import { Answers } from '../http/openapi.ts';
import { Public } from '../http/public.ts';
import { Settings } from '../platform/settings.ts';
import { MetricsService } from './metrics.service.ts';

const LOOPBACK = /^(127\.|::1$|::ffff:127\.)/;

/** With a configured token: anyone who sends it. Without: a program on this machine, not through a proxy. */
function mayRead({ headers, socket }: Request, token: string | null): boolean {
  if (token === null)
    return (
      LOOPBACK.test(socket.remoteAddress ?? '') &&
      headers['x-forwarded-for'] === undefined &&
      headers.forwarded === undefined
    );
  const given = Buffer.from(headers.authorization ?? '');
  const wanted = Buffer.from(`Bearer ${token}`);
  return given.length === wanted.length && timingSafeEqual(given, wanted);
}

@Controller('metrics')
export class MetricsController {
  constructor(
    private readonly metrics: MetricsService,
    private readonly settings: Settings,
  ) {}

  /** For Prometheus. Everyone else gets 404. */
  @Answers({ mediaType: 'text/plain', fails: ['not-found'], open: true })
  @Public()
  @Get()
  @Header('Content-Type', 'text/plain; version=0.0.4; charset=utf-8')
  all(@Req() request: Request): Promise<string> {
    if (!mayRead(request, this.settings.metricsToken)) throw notFound('page');
    return this.metrics.registry.metrics();
  }
}
