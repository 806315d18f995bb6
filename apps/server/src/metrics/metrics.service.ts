import { Injectable } from '@nestjs/common';
import type { NextFunction, Request, Response } from 'express';
import { collectDefaultMetrics, Gauge, Histogram, Registry } from 'prom-client';
import { DataSource } from 'typeorm';
import { WorkService } from '../work/work.service.ts';

/** Seconds. */
const BUCKETS = [0.005, 0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1, 2, 5, 10];

/** The part of the driver's pool that is measured. */
interface ConnectionPool {
  readonly totalCount: number;
  readonly idleCount: number;
  readonly waitingCount: number;
}

/** Prometheus metrics: requests, durations, heavy work, connections, event loop delay and the process. */
@Injectable()
export class MetricsService {
  readonly registry = new Registry();
  private readonly durations: Histogram<'method' | 'route' | 'status'>;

  constructor(database: DataSource, work: WorkService) {
    const registers = [this.registry];
    collectDefaultMetrics({ register: this.registry });
    this.durations = new Histogram({
      name: 'water_clock_request_seconds',
      help: 'Requests by route and status, with how long they took',
      labelNames: ['method', 'route', 'status'],
      buckets: BUCKETS,
      registers,
    });
    const load = new Gauge({
      name: 'water_clock_work',
      help: 'Pieces of heavy work that run and that wait',
      labelNames: ['state'],
      registers,
      collect: () => {
        load.set({ state: 'running' }, work.load.running);
        load.set({ state: 'waiting' }, work.load.waiting);
      },
    });
    const connections = new Gauge({
      name: 'water_clock_database_connections',
      help: 'Connections to the database, and requests that wait for one',
      labelNames: ['state'],
      registers,
      collect: () => {
        // Safe cast: the PostgreSQL driver keeps its pool there.
        const { master } = database.driver as unknown as { readonly master: ConnectionPool };
        connections.set({ state: 'idle' }, master.idleCount);
        connections.set({ state: 'used' }, master.totalCount - master.idleCount);
        connections.set({ state: 'waited for' }, master.waitingCount);
      },
    });
  }

  /** Counts an answered request by route pattern, so that no id gets into the metrics. */
  readonly count = (request: Request, response: Response, next: NextFunction): void => {
    const end = this.durations.startTimer();
    response.once('finish', () => {
      // The cast names what Express leaves open.
      const route = request.route as { readonly path?: unknown } | undefined;
      const path = typeof route?.path === 'string' ? route.path : 'other';
      end({ method: request.method, route: path, status: String(response.statusCode) });
    });
    next();
  };
}
