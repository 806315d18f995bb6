import { ApiProperty } from '@nestjs/swagger';
import { IsBoolean, IsIn, IsString, MaxLength } from 'class-validator';
import { WriteBody } from '../http/write-body.ts';

/** Where its author moves a suggestion. */
const MOVES = ['draft', 'sent', 'withdrawn'] as const;
const MOST_CHARACTERS = 2000;

export class MoveProposalBody extends WriteBody {
  @ApiProperty({ enum: MOVES })
  @IsIn(MOVES, { message: `state must be one of ${MOVES.join(', ')}` })
  state: (typeof MOVES)[number];

  @ApiProperty({ maxLength: MOST_CHARACTERS })
  @MaxLength(MOST_CHARACTERS, { message: `the note has at most ${MOST_CHARACTERS} characters` })
  @IsString({ message: 'the note must be text' })
  note: string;
}

/** The base version is the timer's. */
export class AnswerProposalBody extends WriteBody {
  @ApiProperty()
  @IsBoolean({ message: 'isAccepted must be true or false' })
  isAccepted: boolean;

  @ApiProperty({ maxLength: MOST_CHARACTERS })
  @MaxLength(MOST_CHARACTERS, { message: `the answer has at most ${MOST_CHARACTERS} characters` })
  @IsString({ message: 'the answer must be text' })
  answer: string;
}
