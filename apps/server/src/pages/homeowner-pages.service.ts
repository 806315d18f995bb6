import { Injectable } from '@nestjs/common';
import {
  NO_OFFICE,
  OFFICE_ID,
  SHIPPED_KINDS,
  type HomeownerPage,
  type Language,
  type Office,
  type PageSources,
  type Plan,
  type TimerKind,
  say,
} from '@water-clock/core';
import { LRUCache } from 'lru-cache';
import { DataSource, IsNull } from 'typeorm';
import { LibraryEntry } from '../library/library-entry.entity.ts';
import { AuditService } from '../audit/audit.service.ts';
import type { Actor } from '../identity/actor.ts';
import { Company } from '../identity/company.entity.ts';
import { ApiError, notFound } from '../http/api-error.ts';
import { rulesOfCompany } from '../sites/site-rules.ts';
import { todayIn } from '../sites/today.ts';
import { hashOfToken } from '../platform/token.ts';
import { Timer } from '../sites/timer.entity.ts';
import { VisitRow } from '../visits/visit.entity.ts';
import { WorkService } from '../work/work.service.ts';
import type { MakeLinkBody } from './make-link-body.ts';
import { PageLink } from './page-link.entity.ts';
import type { CardPaper } from '../formats/card-pdf.ts';
import type { Paper } from '../formats/page-pdf.ts';

export interface LinkView {
  readonly id: string;
  readonly madeAt: string;
  readonly expiresAt: string;
  readonly withdrawnAt: string | null;
}

const DAY_MS = 86_400_000;
const MOST_PRINTED_BYTES = 20_000_000;

const linkView = ({ id, at, expiresAt, withdrawnAt }: PageLink): LinkView => ({
  id,
  madeAt: at.toISOString(),
  expiresAt: expiresAt.toISOString(),
  withdrawnAt: withdrawnAt?.toISOString() ?? null,
});

@Injectable()
export class PagesService {
  /** The last PDF, by content. */
  private readonly printed = new LRUCache<string, Buffer>({
    maxSize: MOST_PRINTED_BYTES,
    sizeCalculation: ({ length }) => length,
  });

  constructor(
    private readonly database: DataSource,
    private readonly work: WorkService,
    private readonly audit: AuditService,
  ) {}

  /**
   * A timer's page: from the open visit if its settings are saved as left, otherwise from the last closed visit, otherwise from the current
   * settings.
   */
  async pageOf(
    companyId: string,
    timerId: string,
    language: Language | null,
  ): Promise<HomeownerPage> {
    const sources = await this.sourcesOf(companyId, timerId, language);
    return this.work.run(companyId, 'homeownerPage', sources);
  }

  /** The timer card for the same state, with the name of whoever prints it. */
  async cardOf(
    { companyId, personName }: Actor,
    timerId: string,
    paper: CardPaper,
    language: Language | null,
  ): Promise<Buffer> {
    const common = await this.sourcesOf(companyId, timerId, language);
    const sources = { ...common, author: personName };
    return this.print(['card', sources, paper], () =>
      this.work.run(companyId, 'cardPdf', { sources, paper }),
    );
  }

  /** @param language of the page; null: the site's */
  private async sourcesOf(
    companyId: string,
    timerId: string,
    language: Language | null,
  ): Promise<PageSources> {
    const { manager } = this.database;
    const timer = await manager.findOne(Timer, {
      where: { companyId, id: timerId },
      relations: { site: true },
    });
    if (!timer) throw notFound('timer');
    const { site, survey } = timer;
    const company = await manager.findOneByOrFail(Company, { id: companyId });
    const plan =
      survey.visit?.asLeft?.plan ?? (await this.lastLeft(companyId, timerId)) ?? timer.plan;
    const rules = (await rulesOfCompany(manager, companyId)).get(site.rulesId);
    return {
      plan,
      survey,
      kind: await this.kindOf(companyId, plan),
      house: site.name,
      houseNumber: site.houseNumber,
      company: company.name,
      office: await this.officeOf(companyId),
      allowed: rules ? { rules, house: site } : null,
      today: todayIn(site.timeZone, new Date()),
      clock: site.clockStyle ?? '12',
      language: language ?? site.language ?? 'en',
    };
  }

  async pdfOf(
    companyId: string,
    timerId: string,
    paper: Paper,
    language: Language | null,
  ): Promise<Buffer> {
    const sources = await this.sourcesOf(companyId, timerId, language);
    return this.print(['page', sources, paper], () =>
      this.work.run(companyId, 'pagePdf', { sources, paper }),
    );
  }

  /** The same content is printed once. */
  private async print(
    content: readonly unknown[],
    work: () => Promise<Uint8Array>,
  ): Promise<Buffer> {
    const key = hashOfToken(JSON.stringify(content));
    const before = this.printed.get(key);
    if (before) return before;
    const bytes = Buffer.from(await work());
    this.printed.set(key, bytes);
    return bytes;
  }

  async links({ companyId }: Actor, timerId: string): Promise<LinkView[]> {
    const found = await this.database.manager.find(PageLink, {
      where: { companyId, timerId },
      order: { at: 'desc' },
    });
    return found.map(linkView);
  }

  async make(
    { companyId, personId }: Actor,
    timerId: string,
    body: MakeLinkBody,
  ): Promise<LinkView> {
    const id = body.id.toLowerCase();
    const tokenHash = hashOfToken(body.token);
    const expiresAt = new Date(Date.now() + body.days * DAY_MS);
    return this.database.transaction(async (database) => {
      if (!(await database.existsBy(Timer, { companyId, id: timerId }))) throw notFound('timer');
      const made = await database
        .createQueryBuilder()
        .insert()
        .into(PageLink)
        .values({
          ...{ companyId, id, timerId, personId, tokenHash, expiresAt },
          ...{ withdrawnAt: null, language: body.language ?? null },
        })
        .orIgnore()
        .returning('id')
        .execute();
      const link = await database.findOneBy(PageLink, { companyId, id });
      if (link?.tokenHash !== tokenHash || link.timerId !== timerId)
        throw new ApiError({
          code: 'id-reused',
          message: 'another link has this id or this token; every link needs its own',
        });
      // Safe cast: one row if it was inserted, none if it existed.
      if ((made.raw as readonly unknown[]).length > 0)
        await this.audit.note(
          { companyId, personId, what: 'link-made', subjectId: timerId },
          database,
        );
      return linkView(link);
    });
  }

  async withdraw({ companyId, personId }: Actor, timerId: string, id: string): Promise<LinkView> {
    return this.database.transaction(async (database) => {
      const key = { companyId, timerId, id };
      const now = { withdrawnAt: new Date() };
      const done = await database.update(PageLink, { ...key, withdrawnAt: IsNull() }, now);
      const link = await database.findOneBy(PageLink, key);
      if (!link) throw notFound('link');
      if (done.affected)
        await this.audit.note(
          { companyId, personId, what: 'link-withdrawn', subjectId: timerId },
          database,
        );
      return linkView(link);
    });
  }

  async opened(token: string, address: string, language: Language | null): Promise<HomeownerPage> {
    const link = await this.linked(token);
    const { companyId, timerId } = link;
    await this.audit.note({ companyId, what: 'link-opened', subjectId: timerId, address });
    return this.pageOf(companyId, timerId, language ?? link.language);
  }

  async openedPdf(token: string, paper: Paper, language: Language | null): Promise<Buffer> {
    const link = await this.linked(token);
    return this.pdfOf(link.companyId, link.timerId, paper, language ?? link.language);
  }

  /** The link of a token. The error is the same for one that never existed, has expired or was revoked. */
  private async linked(token: string): Promise<PageLink> {
    const link = await this.database.manager.findOneBy(PageLink, {
      tokenHash: hashOfToken(token),
      withdrawnAt: IsNull(),
    });
    if (!link || link.expiresAt.getTime() <= Date.now())
      throw new ApiError({
        code: 'not-found',
        message: say`this link is wrong or has expired; ask your technician for a new one`,
      });
    return link;
  }

  private async lastLeft(companyId: string, timerId: string): Promise<Plan | null> {
    const [last] = await this.database.manager.find(VisitRow, {
      where: { companyId, timerId },
      order: { began: 'desc', at: 'desc' },
      take: 1,
    });
    return last?.document.asLeft.plan ?? null;
  }

  private async officeOf(companyId: string): Promise<Office> {
    const entry = await this.database.manager.findOneBy(LibraryEntry, { companyId, id: OFFICE_ID });
    // Safe cast: only documents accepted by `readOffice` are on this shelf.
    return (entry?.document as Office | null | undefined) ?? NO_OFFICE;
  }

  /** A timer kind by name, the company's own first. */
  private async kindOf(companyId: string, { timer }: Plan): Promise<TimerKind | null> {
    const entries = await this.database.manager.find(LibraryEntry, {
      where: { companyId, shelf: 'kinds' },
    });
    // Safe cast: only documents accepted by `readTimerKind` are on this shelf.
    const own = entries
      .map(({ document }) => document as TimerKind | null)
      .find((kind) => kind?.timer.name === timer.name);
    return own ?? SHIPPED_KINDS.find(({ kind }) => kind.timer.name === timer.name)?.kind ?? null;
  }
}
