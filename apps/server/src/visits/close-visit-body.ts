import { IsInt, IsUUID, Matches, Min } from 'class-validator';

/** Closes the visit that is under way. The id becomes that of the logbook's entry. */
export class CloseVisitBody {
  @IsUUID(undefined, { message: 'id must be a UUID made by the client' })
  id: string;

  @Min(1, { message: 'baseVersion is a whole number, 1 or more' })
  @IsInt({ message: 'baseVersion is a whole number, 1 or more' })
  baseVersion: number;

  /** By the house's clocks. */
  @Matches(/^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}$/, {
    message: 'closed is a moment by the house’s clocks, YYYY-MM-DDTHH:MM',
  })
  closed: string;
}
