import { ApiProperty } from '@nestjs/swagger';
import { DATE_ORDERS, LANGUAGES } from '@water-clock/core';
import { ArrayUnique, IsArray, IsIn, IsOptional } from 'class-validator';
import {
  CLOCKS,
  CONTRASTS,
  SITE_COLUMNS,
  TEXT_SIZES,
  THEMES,
  UNITS,
  WEEK_STARTS,
  type Preferences,
} from '../identity/preferences.ts';
import { Part } from '../http/fields.ts';
import { WriteBody } from '../http/write-body.ts';

/** One of a closed list; null or absent: the device's own setting. */
function OneOf(values: readonly (string | number)[]): PropertyDecorator {
  return (target, name) => {
    ApiProperty({ enum: [...values], nullable: true, required: false })(target, name);
    IsIn(values, { message: `$property must be one of ${values.join(', ')}, or null` })(
      target,
      String(name),
    );
    IsOptional()(target, String(name));
  };
}

export class PreferencesFields implements Preferences {
  @OneOf(LANGUAGES)
  language?: Preferences['language'];

  @OneOf(CLOCKS)
  clock?: Preferences['clock'];

  @OneOf(DATE_ORDERS)
  dateOrder?: Preferences['dateOrder'];

  @OneOf(WEEK_STARTS)
  weekStart?: Preferences['weekStart'];

  @OneOf(UNITS)
  units?: Preferences['units'];

  @OneOf(THEMES)
  theme?: Preferences['theme'];

  @OneOf(CONTRASTS)
  contrast?: Preferences['contrast'];

  @OneOf(TEXT_SIZES)
  textSize?: Preferences['textSize'];

  @ApiProperty({ type: [String], enum: SITE_COLUMNS, nullable: true, required: false })
  @IsIn(SITE_COLUMNS, {
    each: true,
    message: `each of the siteColumns must be one of ${SITE_COLUMNS.join(', ')}`,
  })
  @ArrayUnique({ message: 'a column stands in siteColumns twice' })
  @IsArray({ message: 'siteColumns must be a list, or null' })
  @IsOptional()
  siteColumns?: string[] | null;
}

/** All preferences of a person, replacing the old ones. */
export class ChangePreferencesBody extends WriteBody {
  @Part(() => PreferencesFields, 'preferences must be an object')
  preferences: PreferencesFields;
}
