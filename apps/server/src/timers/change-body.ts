import { IsDefined, IsIn, IsInt, IsUUID, Min } from 'class-validator';
import { WAYS, type Way } from '../changes/change.entity.ts';

/** One change of a timer's record. The id makes repeating it harmless; the version tells what it was based on. */
export class ChangePlanBody {
  @IsUUID(undefined, { message: 'id must be a UUID made by the client' })
  id: string;

  @Min(1, { message: 'baseVersion is a whole number, 1 or more' })
  @IsInt({ message: 'baseVersion is a whole number, 1 or more' })
  baseVersion: number;

  @IsIn(WAYS, { message: `way is one of ${WAYS.join(', ')}` })
  way: Way;

  /** A `RecordChange`, read by core. */
  @IsDefined({ message: 'change is missing' })
  change: unknown;
}
