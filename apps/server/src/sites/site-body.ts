import {
  ArrayMaxSize,
  ArrayUnique,
  IsArray,
  IsDefined,
  IsIn,
  IsLatitude,
  IsLongitude,
  IsNotEmpty,
  IsNumber,
  IsObject,
  IsOptional,
  IsPositive,
  IsString,
  IsTimeZone,
  IsUUID,
  Max,
  MaxLength,
  ValidateNested,
} from 'class-validator';
import { ApiProperty } from '@nestjs/swagger';
import { Type } from 'class-transformer';
import {
  CLOCK_STYLES,
  LANGUAGES,
  SUPPLIES,
  UNIT_SYSTEMS,
  WEEKDAYS,
  type ClockStyle,
  type GivenSite,
  type Language,
  type Supply,
  type UnitSystem,
  type Weekday,
  say,
} from '@water-clock/core';
import { Choice, Line, Part } from '../http/fields.ts';
import { WriteBody } from '../http/write-body.ts';

const MOST_PEOPLE = 12;
/** Litres a minute; ten times what a house has. */
const MOST_FLOW = 1000;

/** A person at the site. */
export class ContactFields {
  @ApiProperty({ maxLength: 80 })
  @IsNotEmpty({ message: () => say`enter a name for the person` })
  @Line('the name', 80)
  name: string;

  @ApiProperty({ maxLength: 80 })
  @Line('the role', 80)
  role: string;

  @ApiProperty({ maxLength: 40 })
  @Line('the phone number', 40)
  phone: string;
}

/** The fields of a site, limited as in core's `SiteFields`. All but name and time zone are optional. */
export class SiteBody implements GivenSite {
  @ApiProperty({ maxLength: 120 })
  @IsNotEmpty({ message: () => say`enter a name for the site` })
  @Line('the name', 120)
  name: string;

  @ApiProperty({ type: String, maxLength: 40, nullable: true, required: false })
  @Line('the house number', 40)
  @IsOptional()
  houseNumber?: string | null;

  @ApiProperty({ type: String, maxLength: 120, nullable: true, required: false })
  @Line('the street', 120)
  @IsOptional()
  street?: string | null;

  @ApiProperty({ type: String, maxLength: 80, nullable: true, required: false })
  @Line('the town', 80)
  @IsOptional()
  locality?: string | null;

  @ApiProperty({ example: 'Europe/Lisbon' })
  @IsTimeZone({ message: () => say`enter an IANA time zone, such as Europe/Lisbon` })
  timeZone: string;

  @ApiProperty({ type: Number, nullable: true, required: false })
  @IsNumber({}, { message: () => say`latitude must be a number of degrees, -90 to 90` })
  @IsLatitude({ message: () => say`latitude must be a number of degrees, -90 to 90` })
  @IsOptional()
  latitude?: number | null;

  @ApiProperty({ type: Number, nullable: true, required: false })
  @IsNumber({}, { message: () => say`longitude must be a number of degrees, -180 to 180` })
  @IsLongitude({ message: () => say`longitude must be a number of degrees, -180 to 180` })
  @IsOptional()
  longitude?: number | null;

  @ApiProperty({ enum: SUPPLIES, nullable: true, required: false })
  @IsIn(SUPPLIES, { message: `the supply must be one of ${SUPPLIES.join(', ')}, or null` })
  @IsOptional()
  supply?: Supply | null;

  @ApiProperty({ type: Number, nullable: true, required: false })
  @Max(MOST_FLOW, { message: `supplyFlow must be litres a minute, above 0 to ${MOST_FLOW}` })
  @IsPositive({ message: `supplyFlow must be litres a minute, above 0 to ${MOST_FLOW}` })
  @IsOptional()
  supplyFlow?: number | null;

  @ApiProperty({ enum: WEEKDAYS, isArray: true, nullable: true, required: false })
  @ArrayUnique({ message: 'each mowing day may be listed once' })
  @IsIn(WEEKDAYS, { each: true, message: `mowing days must be among ${WEEKDAYS.join(', ')}` })
  @IsArray({ message: 'the mowing days are a list of weekdays' })
  @IsOptional()
  mowing?: Weekday[] | null;

  @ApiProperty({ type: String, maxLength: 2000, nullable: true, required: false })
  @MaxLength(2000, { message: () => say`notes have at most 2000 characters` })
  @IsString({ message: 'the notes must be text' })
  @IsOptional()
  notes?: string | null;

  @ApiProperty({ type: [ContactFields], nullable: true, required: false })
  @Type(() => ContactFields)
  @ValidateNested({ each: true })
  @IsObject({ each: true, message: 'each of the people is an object with a name' })
  @ArrayMaxSize(MOST_PEOPLE, { message: `a site has at most ${MOST_PEOPLE} people` })
  @IsArray({ message: 'the people are a list' })
  @IsOptional()
  people?: ContactFields[] | null;

  @ApiProperty({ enum: UNIT_SYSTEMS, nullable: true, required: false })
  @IsIn(UNIT_SYSTEMS, { message: `units must be one of ${UNIT_SYSTEMS.join(', ')}, or null` })
  @IsOptional()
  units?: UnitSystem | null;

  @ApiProperty({ enum: CLOCK_STYLES, nullable: true, required: false })
  @IsIn(CLOCK_STYLES, { message: `the clock must be one of ${CLOCK_STYLES.join(', ')}, or null` })
  @IsOptional()
  clockStyle?: ClockStyle | null;

  @ApiProperty({ enum: LANGUAGES, nullable: true, required: false })
  @IsIn(LANGUAGES, { message: `language must be one of ${LANGUAGES.join(', ')}, or null` })
  @IsOptional()
  language?: Language | null;

  @ApiProperty({ type: String, maxLength: 80, nullable: true, required: false })
  @Line('the town', 80)
  @IsOptional()
  town?: string | null;

  @ApiProperty({ type: String, format: 'uuid', nullable: true, required: false })
  @IsUUID(undefined, { message: 'climateId must be the id of a climate, or null' })
  @IsOptional()
  climateId?: string | null;

  @ApiProperty({ type: String, format: 'uuid', nullable: true, required: false })
  @IsUUID(undefined, { message: 'rulesId must be the id of rules, or null' })
  @IsOptional()
  rulesId?: string | null;

  @ApiProperty({ type: String, format: 'uuid', nullable: true, required: false })
  @IsUUID(undefined, { message: 'minutesId must be the id of a table of minutes, or null' })
  @IsOptional()
  minutesId?: string | null;
}

/** A new site with its first timer. The client makes the ids; repeating the request is harmless. */
export class NewSiteBody {
  @ApiProperty({ format: 'uuid' })
  @IsUUID(undefined, { message: 'siteId must be a UUID made by the client' })
  siteId: string;

  @ApiProperty({ format: 'uuid' })
  @IsUUID(undefined, { message: 'timerId must be a UUID made by the client' })
  timerId: string;

  @Part(() => SiteBody, 'site must be an object with at least a name and a time zone')
  site: SiteBody;

  /** A plan document, read by core. */
  @ApiProperty({ type: Object })
  @IsDefined({ message: 'plan is missing: a plan document' })
  plan: unknown;
}

export class ChangeSiteBody extends WriteBody {
  @Part(() => SiteBody, 'site must be an object with at least a name and a time zone')
  site: SiteBody;
}

/** Listed or archived. */
const SITE_STATES = ['kept', 'archived'] as const;
export type SiteState = (typeof SITE_STATES)[number];

const MOST_LETTERS = 200;

/** How to search sites. */
export class SitesQuery {
  /** Words that must all match. */
  @ApiProperty({ required: false, maxLength: MOST_LETTERS })
  @MaxLength(MOST_LETTERS, { message: `find has at most ${MOST_LETTERS} characters` })
  @IsString({ message: 'find must be text' })
  @IsOptional()
  find?: string;

  @Choice('state', SITE_STATES)
  state?: SiteState;
}
