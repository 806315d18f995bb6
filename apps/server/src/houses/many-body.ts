import { ApiProperty } from '@nestjs/swagger';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  ArrayUnique,
  IsArray,
  IsBoolean,
  IsObject,
  IsOptional,
  IsUUID,
  ValidateNested,
} from 'class-validator';
import { Part } from '../http/fields.ts';
import { WriteBody } from '../http/write-body.ts';

const MOST = 5_000;

/** What to change on many sites: one of the three. Null: no rules, or no one. */
export class ManyTo {
  @ApiProperty({ type: String, format: 'uuid', nullable: true, required: false })
  @IsUUID(undefined, { message: 'rulesId must be the id of rules in your library, or null' })
  @IsOptional()
  rulesId?: string | null;

  @ApiProperty({ type: String, format: 'uuid', nullable: true, required: false })
  @IsUUID(undefined, { message: 'personId must be the id of a person, or null' })
  @IsOptional()
  personId?: string | null;

  @ApiProperty({ required: false })
  @IsBoolean({ message: 'isArchived must be true or false' })
  @IsOptional()
  isArchived?: boolean;
}

/** One write for many sites, each with its base version; all or none. */
export class ManyBody {
  @ApiProperty({ format: 'uuid' })
  @IsUUID(undefined, { message: 'id must be a UUID made by the client' })
  id: string;

  @ApiProperty({ type: [WriteBody], maxItems: MOST })
  @Type(() => WriteBody)
  @ValidateNested({ each: true })
  @IsObject({ each: true, message: 'each of the sites is an object' })
  @ArrayUnique(({ id }: WriteBody) => id, { message: 'a site stands there twice' })
  @ArrayMaxSize(MOST, { message: `at most ${MOST} sites are changed at once` })
  @ArrayMinSize(1, { message: 'there is no site to change' })
  @IsArray({ message: 'the sites are a list' })
  sites: WriteBody[];

  @Part(() => ManyTo, 'to must be an object')
  to: ManyTo;
}
