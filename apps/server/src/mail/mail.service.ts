import { randomUUID } from 'node:crypto';
import type { Server } from 'node:http';
import {
  Injectable,
  Logger,
  type OnApplicationBootstrap,
  type OnApplicationShutdown,
} from '@nestjs/common';
import { HttpAdapterHost } from '@nestjs/core';
import { createTransport, type Transporter } from 'nodemailer';
import { DataSource, type EntityManager } from 'typeorm';
import { Settings } from '../platform/settings.ts';
import { Mail } from './mail.entity.ts';

const MOST_TRIES = 8;
const LOOK_EVERY_MS = 60_000;
const PATIENCE_MS = 20_000;
const PAGE = 50;

interface NewMail {
  readonly companyId: string;
  readonly recipient: string;
  readonly subject: string;
  readonly text: string;
}

export interface MailView {
  readonly id: string;
  /** ISO instant. */
  readonly at: string;
  readonly recipient: string;
  readonly subject: string;
  /** Empty once sent. */
  readonly text: string;
  /** `kept`: no mail server is configured, so owners read it here. */
  readonly state: 'sent' | 'waiting' | 'failed' | 'kept';
}

/** Writes mail in the transaction it belongs to and sends it afterwards. Without a mail server, owners can read it. */
@Injectable()
export class MailService implements OnApplicationBootstrap, OnApplicationShutdown {
  private readonly logger = new Logger('Mail');
  private readonly transport: Transporter | null;
  private looking: NodeJS.Timeout | undefined;

  constructor(
    private readonly database: DataSource,
    private readonly settings: Settings,
    private readonly host: HttpAdapterHost,
  ) {
    this.transport = settings.smtpUrl
      ? createTransport(
          { url: settings.smtpUrl, connectionTimeout: PATIENCE_MS, socketTimeout: PATIENCE_MS },
          { from: settings.mailFrom ?? '' },
        )
      : null;
  }

  onApplicationBootstrap(): void {
    if (this.transport) this.looking = setInterval(() => this.deliver(), LOOK_EVERY_MS);
  }

  onApplicationShutdown(): void {
    clearInterval(this.looking);
    this.transport?.close();
  }

  /** Address of a page of the application. Never taken from the request, whose sender could name another host. */
  address(place: string): string {
    const { publicUrl } = this.settings;
    if (publicUrl) return publicUrl.replace(/\/$/, '') + place;
    // Safe cast: the Express adapter on Node's server.
    const listening = (this.host.httpAdapter.getHttpServer() as Server).address();
    const port = typeof listening === 'object' ? listening?.port : undefined;
    return `http://localhost:${port ?? this.settings.port}${place}`;
  }

  async write(database: EntityManager, mail: NewMail): Promise<void> {
    const nextAt = this.transport ? new Date() : null;
    await database.insert(Mail, { ...mail, id: randomUUID(), nextAt });
  }

  /** Sends waiting mail; call it after the transaction. */
  deliver(): void {
    void this.sendWaiting().catch((error: unknown) => this.logger.warn(error));
  }

  private async sendWaiting(): Promise<void> {
    if (!this.transport) return;
    for (let mail = await this.claim(); mail; mail = await this.claim()) {
      const { companyId, id, recipient, subject, text } = mail;
      try {
        await this.transport.sendMail({ to: recipient, subject, text });
      } catch (error) {
        this.logger.warn(`a mail was not taken by the mail server: ${String(error)}`);
        continue;
      }
      const sent = { sentAt: new Date(), nextAt: null, text: '' };
      await this.database.manager.update(Mail, { companyId, id }, sent);
    }
  }

  /** Takes one that is due. It is locked for a while, and each attempt waits twice as long as the last. */
  private async claim(): Promise<Mail | undefined> {
    const [rows]: [Mail[], number] = await this.database.query(
      `update mails m set tries = m.tries + 1,
         next_at = case when m.tries + 1 < $1 then now() + make_interval(mins => (2 ^ m.tries)::int) end
       from (select company_id, id from mails where next_at <= now() order by next_at limit 1
         for update skip locked) due
       where m.company_id = due.company_id and m.id = due.id
       returning m.company_id as "companyId", m.id, m.recipient, m.subject, m.text`,
      [MOST_TRIES],
    );
    return rows[0];
  }

  /** The newest mails, for owners. */
  async list(companyId: string): Promise<readonly MailView[]> {
    const rows = await this.database.manager.find(Mail, {
      where: { companyId },
      order: { at: 'DESC', id: 'DESC' },
      take: PAGE,
    });
    return rows.map(({ id, at, recipient, subject, text, sentAt, nextAt, tries }) => ({
      id,
      at: at.toISOString(),
      recipient,
      subject,
      text,
      state: sentAt ? 'sent' : nextAt ? 'waiting' : tries > 0 ? 'failed' : 'kept',
    }));
  }
}
