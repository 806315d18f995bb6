import { say } from '@water-clock/core';
import { ApiProperty } from '@nestjs/swagger';
import { Matches } from 'class-validator';
import { NewPasswordField, PasswordField } from '../identity/person-fields.ts';

export class ChangePasswordBody {
  @PasswordField()
  password: string;

  @NewPasswordField()
  newPassword: string;
}

export class PasswordBody {
  @PasswordField()
  password: string;
}

/** A code from the app proves that it has the secret. */
export class SecondFactorBody extends PasswordBody {
  @ApiProperty()
  @Matches(/^[A-Z2-7]{32}$/, { message: 'secret must be the one that the server made' })
  secret: string;

  @ApiProperty()
  @Matches(/^\d{3} ?\d{3}$/, { message: () => say`a code has six digits` })
  code: string;
}
