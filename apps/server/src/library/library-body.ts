import { ApiProperty } from '@nestjs/swagger';
import { IsInt, IsUUID, Min, ValidateIf, IsObject } from 'class-validator';

/** A library document to save, or null to delete it. */
export class ChangeLibraryBody {
  @ApiProperty({ format: 'uuid' })
  @IsUUID(undefined, { message: 'id must be a UUID made by the client' })
  id: string;

  @ApiProperty({ minimum: 0 })
  @Min(0, { message: 'baseVersion must be a whole number, 0 for a new document' })
  @IsInt({ message: 'baseVersion must be a whole number, 0 for a new document' })
  baseVersion: number;

  /** In the format of its shelf, read by core. */
  @ApiProperty({ type: Object, nullable: true })
  @IsObject({ message: 'document must be an object of the format of its shelf, or null' })
  @ValidateIf(({ document }: ChangeLibraryBody) => document !== null)
  document: object | null;
}
