import { ApiProperty } from '@nestjs/swagger';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsObject,
  IsUUID,
  ValidateNested,
} from 'class-validator';
import { Part } from '../http/fields.ts';
import { SiteBody } from '../sites/site-body.ts';

/** Most sites in one request; larger lists are imported in parts, so that others do not wait. */
const MOST_AT_ONCE = 100;

/** A site with an empty timer of some kind. */
export class ImportedSite {
  @ApiProperty({ format: 'uuid' })
  @IsUUID(undefined, { message: 'siteId must be a UUID made by the client' })
  siteId: string;

  @ApiProperty({ format: 'uuid' })
  @IsUUID(undefined, { message: 'timerId must be a UUID made by the client' })
  timerId: string;

  @ApiProperty({ format: 'uuid' })
  @IsUUID(undefined, { message: 'kindId must be the id of a kind of timer' })
  kindId: string;

  @Part(() => SiteBody, 'site must be an object with at least a name and a time zone')
  site: SiteBody;
}

export class ImportSitesBody {
  @ApiProperty({ format: 'uuid' })
  @IsUUID(undefined, { message: 'id must be a UUID made by the client' })
  id: string;

  @ApiProperty({ type: [ImportedSite], maxItems: MOST_AT_ONCE })
  @Type(() => ImportedSite)
  @ValidateNested({ each: true })
  @IsObject({ each: true, message: 'each of the sites is an object' })
  @ArrayMaxSize(MOST_AT_ONCE, { message: `at most ${MOST_AT_ONCE} sites are brought at once` })
  @ArrayMinSize(1, { message: 'there is no site to bring' })
  @IsArray({ message: 'the sites are a list' })
  sites: ImportedSite[];
}
