import { applyDecorators } from '@nestjs/common';
import { ApiProperty } from '@nestjs/swagger';
import { IsInt, IsNotEmpty, IsUUID, Max, Min } from 'class-validator';
import { Line } from '../http/fields.ts';

const Whole = (what: string, most: number) => {
  const message = `${what} must be a whole number, 0 to ${most}`;
  return applyDecorators(
    ApiProperty({ type: 'integer', minimum: 0, maximum: most }),
    Max(most, { message }),
    Min(0, { message }),
    IsInt({ message }),
  );
};

/** Result of a task. The browser judges it with the same engine; only the person and the office see it. */
export class PracticeBody {
  @ApiProperty({ format: 'uuid' })
  @IsUUID(undefined, { message: 'id must be a UUID made by the client' })
  id: string;

  @ApiProperty({ minLength: 1, maxLength: 100 })
  @IsNotEmpty({ message: 'task must not be empty' })
  @Line('task', 100)
  task: string;

  @ApiProperty({ minLength: 1, maxLength: 200 })
  @IsNotEmpty({ message: 'title must not be empty' })
  @Line('title', 200)
  title: string;

  @Whole('points', 100)
  points: number;

  @Whole('presses', 100_000)
  presses: number;

  @Whole('seconds', 1_000_000)
  seconds: number;

  @Whole('hints', 3)
  hints: number;

  @Whole('tries', 10_000)
  tries: number;
}
