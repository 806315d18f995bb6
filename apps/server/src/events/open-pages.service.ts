import { randomUUID } from 'node:crypto';
import { Injectable, Logger, type OnApplicationBootstrap } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { tell, type Told, type ToldOfTimer } from '../changes/tell.ts';
import type { Actor } from '../identity/actor.ts';
import { ApiError } from '../http/api-error.ts';
import { TimersService } from '../timers/timers.service.ts';
import { Listener } from './listener.service.ts';

/** Most pages of one person at once. */
const MOST_PAGES = 24;
/** A page that has not announced itself for this long counts as closed. */
const FORGOTTEN_AFTER_MS = 45_000;

/** What a page receives: the saved version, who else has the timer open, and that suggestions changed. */
export type PageEvent =
  | { readonly kind: 'version'; readonly version: number; readonly by: string | null }
  | { readonly kind: 'looking'; readonly people: readonly string[] }
  | { readonly kind: 'proposals' };

interface Page {
  readonly id: string;
  readonly actor: Actor;
  readonly timerId: string;
  readonly send: (event: PageEvent) => void;
  readonly end: () => void;
  /** The last announcement, in order: otherwise leaving could be heard before looking. */
  said: Promise<void>;
}

interface Looker {
  readonly personId: string;
  readonly name: string;
  readonly until: number;
}

const keyOf = ({ companyId, timerId }: Pick<ToldOfTimer, 'companyId' | 'timerId'>) =>
  `${companyId} ${timerId}`;

/** Pages of timers open on this server, and who has which timer open on all servers. */
@Injectable()
export class OpenPages implements OnApplicationBootstrap {
  private readonly logger = new Logger('OpenPages');
  private readonly pages = new Map<string, Page>();
  private readonly lookers = new Map<string, Map<string, Looker>>();

  constructor(
    private readonly database: DataSource,
    private readonly timers: TimersService,
    private readonly listener: Listener,
  ) {}

  onApplicationBootstrap(): void {
    this.listener.told.subscribe({
      next: (told) => (told ? this.hear(told) : this.tellAll()),
      complete: () => {
        for (const { end } of [...this.pages.values()]) end();
      },
    });
  }

  get count(): number {
    return this.pages.size;
  }

  /**
   * Subscribes a page.
   *
   * @returns a function to call on closing
   * @throws ApiError 404, 503 `busy`
   */
  async open(actor: Actor, timerId: string, page: Pick<Page, 'send' | 'end'>): Promise<Page> {
    const own = [...this.pages.values()].filter(
      (one) => one.actor.companyId === actor.companyId && one.actor.personId === actor.personId,
    );
    if (own.length >= MOST_PAGES)
      throw new ApiError({
        code: 'busy',
        message: `at most ${MOST_PAGES} pages of one person are kept up to date at once; close some`,
      });
    const made: Page = { ...page, id: randomUUID(), actor, timerId, said: Promise.resolve() };
    // Subscribe before the first query, so that changes in between are not missed.
    this.pages.set(made.id, made);
    try {
      const { version, by } = await this.timers.lastChange(actor, timerId);
      made.send({ kind: 'version', version, by });
    } catch (error) {
      this.pages.delete(made.id);
      throw error;
    }
    this.look(made, true);
    return made;
  }

  close(page: Page): void {
    const { id, actor, timerId } = page;
    this.pages.delete(id);
    this.say(page, { kind: 'left', companyId: actor.companyId, timerId, pageId: id });
  }

  /** Announces that a page is still open. */
  look(page: Page, isNew = false): void {
    const { id, actor, timerId } = page;
    const { companyId, personId, personName: name } = actor;
    this.say(page, {
      ...{ kind: 'looking', companyId, timerId, pageId: id, personId, name, isNew },
    });
  }

  private say(page: Page, told: Told): void {
    page.said = page.said
      .then(() => tell(this.database.manager, told))
      .catch((error: unknown) => this.logger.warn(error));
  }

  private pagesOf(told: Pick<ToldOfTimer, 'companyId' | 'timerId'>): Page[] {
    return [...this.pages.values()].filter(
      ({ actor, timerId }) => actor.companyId === told.companyId && timerId === told.timerId,
    );
  }

  private hear(told: Told): void {
    if (!('timerId' in told)) return;
    const pages = this.pagesOf(told);
    switch (told.kind) {
      case 'changed':
        for (const { send } of pages) send({ kind: 'version', version: told.version, by: told.by });
        break;
      case 'proposals':
        for (const { send } of pages) send({ kind: 'proposals' });
        break;
      case 'looking':
        this.noteLooker(told);
        if (told.isNew) for (const page of pages) if (page.id !== told.pageId) this.look(page);
        break;
      case 'left':
        if (this.lookers.get(keyOf(told))?.delete(told.pageId)) this.tellLookers(told);
    }
  }

  private noteLooker(told: Extract<ToldOfTimer, { kind: 'looking' }>): void {
    const now = Date.now();
    const key = keyOf(told);
    const lookers = this.lookers.get(key) ?? new Map<string, Looker>();
    this.lookers.set(key, lookers);
    const gone = [...lookers].filter(([, { until }]) => until < now).map(([id]) => id);
    for (const id of gone) lookers.delete(id);
    const isKnown = lookers.has(told.pageId);
    const { personId, name } = told;
    lookers.set(told.pageId, { personId, name, until: now + FORGOTTEN_AFTER_MS });
    if (!isKnown || gone.length > 0) this.tellLookers(told);
  }

  private tellLookers(told: Pick<ToldOfTimer, 'companyId' | 'timerId'>): void {
    const lookers = this.lookers.get(keyOf(told));
    if (lookers?.size === 0) this.lookers.delete(keyOf(told));
    for (const { actor, send } of this.pagesOf(told)) {
      const others = [...(lookers?.values() ?? [])].filter(
        ({ personId }) => personId !== actor.personId,
      );
      send({ kind: 'looking', people: [...new Set(others.map(({ name }) => name))].sort() });
    }
  }

  /** Notifications may have been lost, so each page gets the current state. */
  private tellAll(): void {
    for (const { actor, timerId, send } of this.pages.values())
      this.timers.lastChange(actor, timerId).then(
        ({ version, by }) => {
          send({ kind: 'version', version, by });
          send({ kind: 'proposals' });
        },
        (error: unknown) => this.logger.warn(error),
      );
  }
}
