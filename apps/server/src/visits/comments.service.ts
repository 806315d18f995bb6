import { say } from '@water-clock/core';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import type { Actor } from '../identity/actor.ts';
import { ApiError, notAccepted, notFound } from '../http/api-error.ts';
import type { CommentBody } from './comment-body.ts';
import { VisitComment } from './visit-comment.entity.ts';
import { VisitRow } from './visit.entity.ts';

export interface CommentView {
  readonly id: string;
  readonly by: string;
  readonly at: string;
  readonly text: string;
}

const MOST = 200;

const commentView = ({ id, person, at, text }: VisitComment): CommentView => ({
  id,
  by: person.name,
  at: at.toISOString(),
  text,
});

/** Colleagues' comments on closed visits. */
@Injectable()
export class CommentsService {
  constructor(private readonly database: DataSource) {}

  async list({ companyId }: Pick<Actor, 'companyId'>, visitId: string): Promise<CommentView[]> {
    await this.assertVisit(companyId, visitId);
    const rows = await this.database.manager.find(VisitComment, {
      where: { companyId, visitId },
      relations: { person: true },
      order: { at: 'asc', id: 'asc' },
    });
    return rows.map(commentView);
  }

  /** Sent again under its id, it appears once. */
  async add(
    { companyId, personId }: Actor,
    visitId: string,
    { id: given, text }: CommentBody,
  ): Promise<CommentView[]> {
    const id = given.toLowerCase();
    await this.assertVisit(companyId, visitId);
    const { manager } = this.database;
    if ((await manager.countBy(VisitComment, { companyId, visitId })) >= MOST)
      throw notAccepted([
        { code: 'too-many', path: 'text', message: say`a visit has at most ${MOST} comments` },
      ]);
    await manager
      .createQueryBuilder()
      .insert()
      .into(VisitComment)
      .values({ companyId, id, visitId, personId, text })
      .orIgnore()
      .execute();
    const row = await manager.findOneByOrFail(VisitComment, { companyId, id });
    if (row.visitId !== visitId || row.personId !== personId || row.text !== text)
      throw new ApiError({
        code: 'id-reused',
        message: 'another comment has this id; every comment needs an id of its own',
      });
    return this.list({ companyId }, visitId);
  }

  private async assertVisit(companyId: string, id: string): Promise<void> {
    if (!(await this.database.manager.existsBy(VisitRow, { companyId, id })))
      throw notFound('visit');
  }
}
