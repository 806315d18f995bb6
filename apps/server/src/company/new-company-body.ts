import { ApiProperty } from '@nestjs/swagger';
import { IsOptional, IsString, IsUUID, MaxLength } from 'class-validator';
import { EmailField, NameField, NewPasswordField } from '../identity/person-fields.ts';

/** A new company with its owner. The client makes the ids; repeating the request is harmless. */
export class NewCompanyBody {
  @ApiProperty({ format: 'uuid' })
  @IsUUID(undefined, { message: 'id must be a UUID made by the client' })
  id: string;

  @ApiProperty({ format: 'uuid' })
  @IsUUID(undefined, { message: 'personId must be a UUID made by the client' })
  personId: string;

  @NameField('the company name')
  company: string;

  @NameField('your name')
  name: string;

  @EmailField()
  email: string;

  @NewPasswordField()
  password: string;

  /** The one-time code, if one is required. */
  @ApiProperty({ type: String, required: false, nullable: true })
  @MaxLength(100, { message: 'the code has at most 100 characters' })
  @IsString({ message: 'the code must be text' })
  @IsOptional()
  code?: string | null;
}
