import { say } from '@water-clock/core';
import { Injectable } from '@nestjs/common';
import { DataSource, type EntityManager } from 'typeorm';
import type { Actor } from '../identity/actor.ts';
import { ApiError, notAccepted, notFound } from '../http/api-error.ts';
import { digestOf, NoPhoto, photoContent, type PhotoContent } from './photo-content.ts';
import { Photo } from './photo.entity.ts';

export interface PhotoView {
  readonly id: string;
  readonly width: number;
  readonly height: number;
}

/**
 * Stores a photo under an id. Sending the same photo again is harmless, as uploaded or as stored.
 *
 * @throws ApiError 409 `id-reused` if the id belongs to another photo
 */
export async function keepPhoto(
  database: EntityManager,
  { companyId, personId }: Actor,
  id: string,
  content: PhotoContent,
): Promise<PhotoView> {
  await database
    .createQueryBuilder()
    .insert()
    .into(Photo)
    .values({ companyId, id, personId, ...content })
    .orIgnore()
    .execute();
  const kept = await database.findOneByOrFail(Photo, { companyId, id });
  if (kept.source !== content.source && digestOf(kept.bytes) !== content.source)
    throw new ApiError({
      code: 'id-reused',
      message: `another photo was saved under the id ${id}; every photo needs an id of its own`,
    });
  return { id, width: kept.width, height: kept.height };
}

@Injectable()
export class PhotosService {
  constructor(private readonly database: DataSource) {}

  async keep(actor: Actor, id: string, bytes: unknown): Promise<PhotoView> {
    if (!Buffer.isBuffer(bytes) || bytes.length === 0)
      throw notAccepted([
        { code: 'not-a-photo', path: 'document', message: say`no photo was received` },
      ]);
    const content = await photoContent(bytes).catch((error: unknown) => {
      if (!(error instanceof NoPhoto)) throw error;
      throw notAccepted([{ code: 'not-a-photo', path: 'document', message: error.message }]);
    });
    return keepPhoto(this.database.manager, actor, id, content);
  }

  async one({ companyId }: Actor, id: string): Promise<Photo> {
    const photo = await this.database.manager.findOneBy(Photo, { companyId, id });
    if (!photo) throw notFound('photo');
    return photo;
  }
}
