import { ApiProperty } from '@nestjs/swagger';
import { IsIn, IsUUID } from 'class-validator';
import { EmailField, NameField, NewPasswordField } from '../identity/person-fields.ts';
import { ROLES, type Role } from '../identity/person.entity.ts';
import { TokenField } from '../platform/token.ts';
import { WriteBody } from '../http/write-body.ts';

const ROLE_ALLOWED = { message: `role must be one of ${ROLES.join(', ')}` };

export class InviteBody {
  @ApiProperty({ format: 'uuid' })
  @IsUUID(undefined, { message: 'id must be a UUID made by the client' })
  id: string;

  @TokenField()
  token: string;

  @NameField('the name')
  name: string;

  @EmailField()
  email: string;

  @ApiProperty({ enum: ROLES })
  @IsIn(ROLES, ROLE_ALLOWED)
  role: Role;
}

/** A link for someone who cannot sign in. */
export class PasswordLinkBody {
  @ApiProperty({ format: 'uuid' })
  @IsUUID(undefined, { message: 'id must be a UUID made by the client' })
  id: string;

  @TokenField()
  token: string;
}

export class RoleBody extends WriteBody {
  @ApiProperty({ enum: ROLES })
  @IsIn(ROLES, ROLE_ALLOWED)
  role: Role;
}

export class ForgottenBody {
  @EmailField()
  email: string;
}

/** Form of someone who came by a link. */
export class JoinBody {
  /** Name of a new person, for an invitation. */
  @ApiProperty({ format: 'uuid' })
  @IsUUID(undefined, { message: 'personId must be a UUID made by the client' })
  personId: string;

  @NewPasswordField()
  password: string;
}
