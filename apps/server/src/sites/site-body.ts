import {
  ArrayMaxSize,
  ArrayUnique,
  IsArray,
  IsDefined,
  IsIn,
  IsInt,
  IsLatitude,
  IsLongitude,
  IsNotEmpty,
  IsOptional,
  IsString,
  IsTimeZone,
  IsUUID,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';
import { Type } from 'class-transformer';
import {
  SUPPLIES,
  WEEKDAYS,
  type ClockStyle,
  type Supply,
  type UnitSystem,
  type Weekday,
} from '@water-clock/core';

const UNIT_SYSTEMS = ['metric', 'us'] as const;
const CLOCK_STYLES = ['12', '24'] as const;
const MOST_PEOPLE = 12;

/** Somebody at the house. */
export class ContactFields {
  @MaxLength(80, { message: 'a name has at most 80 characters' })
  @IsNotEmpty({ message: 'give the person a name' })
  @IsString({ message: 'the name must be text' })
  name: string;

  @MaxLength(80, { message: 'what they are has at most 80 characters' })
  @IsString({ message: 'what they are must be text' })
  role: string;

  @MaxLength(40, { message: 'a telephone number has at most 40 characters' })
  @IsString({ message: 'the telephone number must be text' })
  phone: string;
}

/** What is noted of a house. */
export class SiteFields {
  @MaxLength(120, { message: 'a name has at most 120 characters' })
  @IsNotEmpty({ message: 'give the site a name' })
  @IsString({ message: 'the name must be text' })
  name: string;

  @MaxLength(40, { message: 'a house number has at most 40 characters' })
  @IsString({ message: 'the house number must be text' })
  @IsOptional()
  houseNumber: string | null;

  @IsTimeZone({ message: 'name a time zone of the IANA list, such as Europe/Lisbon' })
  timeZone: string;

  @IsLatitude({ message: 'latitude is a number of degrees, -90 to 90' })
  @IsOptional()
  latitude: number | null;

  @IsLongitude({ message: 'longitude is a number of degrees, -180 to 180' })
  @IsOptional()
  longitude: number | null;

  @IsIn(SUPPLIES, { message: `the supply is one of ${SUPPLIES.join(', ')}, or null` })
  @IsOptional()
  supply: Supply | null;

  @ArrayUnique({ message: 'each mowing day may stand once' })
  @IsIn(WEEKDAYS, { each: true, message: `mowing days are of ${WEEKDAYS.join(', ')}` })
  @IsArray({ message: 'the mowing days are a list of weekdays' })
  @IsOptional()
  mowing: Weekday[] | null;

  @MaxLength(2000, { message: 'notes have at most 2000 characters' })
  @IsString({ message: 'the notes must be text' })
  @IsOptional()
  notes: string | null;

  @Type(() => ContactFields)
  @ValidateNested({ each: true })
  @ArrayMaxSize(MOST_PEOPLE, { message: `at most ${MOST_PEOPLE} people are kept` })
  @IsArray({ message: 'the people are a list' })
  @IsOptional()
  people: ContactFields[] | null;

  @IsIn(UNIT_SYSTEMS, { message: `units are one of ${UNIT_SYSTEMS.join(', ')}, or null` })
  @IsOptional()
  units: UnitSystem | null;

  @IsIn(CLOCK_STYLES, { message: `the clock is one of ${CLOCK_STYLES.join(', ')}, or null` })
  @IsOptional()
  clockStyle: ClockStyle | null;

  @MaxLength(80, { message: 'a place is named by at most 80 characters' })
  @IsString({ message: 'the place must be text' })
  @IsOptional()
  place: string | null;

  @IsUUID(undefined, { message: 'rulesId must be the id of rules, or null' })
  @IsOptional()
  rulesId: string | null;

  @IsUUID(undefined, { message: 'minutesId must be the id of a table of minutes, or null' })
  @IsOptional()
  minutesId: string | null;
}

/** A new site with its first timer; the ids are made by the client, and repeating the request is harmless. */
export class NewSiteBody {
  @IsUUID(undefined, { message: 'siteId must be a UUID made by the client' })
  siteId: string;

  @IsUUID(undefined, { message: 'timerId must be a UUID made by the client' })
  timerId: string;

  @Type(() => SiteFields)
  @ValidateNested()
  @IsDefined({ message: 'site is missing: name, time zone and place' })
  site: SiteFields;

  /** A plan document, read by core. */
  @IsDefined({ message: 'plan is missing: a plan document' })
  plan: unknown;
}

export class ChangeSiteBody {
  @IsUUID(undefined, { message: 'id must be a UUID made by the client' })
  id: string;

  @Min(1, { message: 'baseVersion is a whole number, 1 or more' })
  @IsInt({ message: 'baseVersion is a whole number, 1 or more' })
  baseVersion: number;

  @Type(() => SiteFields)
  @ValidateNested()
  @IsDefined({ message: 'site is missing: name, time zone and place' })
  site: SiteFields;
}
