import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import type { Actor } from '../people/actor.ts';
import { ApiError, notAccepted, notFound } from '../platform/api-error.ts';
import { photoContent } from './photo-content.ts';
import { Photo } from './photo.entity.ts';

export interface PhotoView {
  readonly id: string;
  readonly width: number;
  readonly height: number;
}

@Injectable()
export class PhotosService {
  constructor(private readonly database: DataSource) {}

  /** Keeps a photo. The same bytes under the same id again are harmless; different ones are refused. */
  async keep({ companyId, personId }: Actor, id: string, bytes: unknown): Promise<PhotoView> {
    if (!Buffer.isBuffer(bytes) || bytes.length === 0)
      throw notAccepted([{ code: 'not-a-photo', path: 'document', message: 'no photo was sent' }]);
    const content = photoContent(bytes);
    if (!content.ok)
      throw notAccepted([{ code: 'not-a-photo', path: 'document', message: content.reason }]);
    const { mediaType, width, height } = content;
    const { manager } = this.database;
    await manager
      .createQueryBuilder()
      .insert()
      .into(Photo)
      .values({ companyId, id, mediaType, bytes, width, height, personId })
      .orIgnore()
      .execute();
    const kept = await manager.findOneByOrFail(Photo, { companyId, id });
    if (!kept.bytes.equals(bytes))
      throw new ApiError({
        code: 'id-reused',
        message: 'another photo was saved under this id; every photo needs an id of its own',
      });
    return { id, width, height };
  }

  async one({ companyId }: Actor, id: string): Promise<Photo> {
    const photo = await this.database.manager.findOneBy(Photo, { companyId, id });
    if (!photo) throw notFound('photo');
    return photo;
  }
}
