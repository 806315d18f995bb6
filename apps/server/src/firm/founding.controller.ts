import { Body, Controller, Get, HttpCode, Ip, Post } from '@nestjs/common';
import { Answers, JSON_BODY } from '../platform/openapi.ts';
import { Public } from '../platform/public.ts';
import { Tries } from '../platform/tries.ts';
import { FoundBody } from './found-body.ts';
import { FoundingService, type Founding } from './founding.service.ts';

@Public()
@Controller('firms')
export class FoundingController {
  constructor(
    private readonly founding: FoundingService,
    private readonly tries: Tries,
  ) {}

  /** Whether a firm can be founded here, and whether a code is asked for. */
  @Answers({ schema: 'Founding', open: true })
  @Get()
  async state(): Promise<{ readonly founding: Founding }> {
    return { founding: await this.founding.state() };
  }

  /** A new firm with its owner, who then signs in. */
  @Answers({
    status: 201,
    schema: 'Account',
    fails: [...JSON_BODY, 'founding-closed', 'address-taken', 'id-reused', 'too-many-tries'],
    open: true,
  })
  @Post()
  @HttpCode(201)
  async found(@Ip() address: string, @Body() body: FoundBody): Promise<{ readonly email: string }> {
    const succeeded = await this.tries.signIn(address, 'founding');
    const founded = await this.founding.found(body);
    await succeeded();
    return founded;
  }
}
