import { Body, Controller, Get, Headers, HttpCode, Ip, Post } from '@nestjs/common';
import { Answers, JSON_BODY } from '../http/openapi.ts';
import { Public } from '../http/public.ts';
import { bearer } from '../platform/token.ts';
import { Tries } from '../auth/tries.ts';
import { LinksService, type LinkView } from './links.service.ts';
import { ForgottenBody, JoinBody } from './people-body.ts';

/** For people who have a link or ask for one. */
@Public()
@Controller()
export class JoinController {
  constructor(
    private readonly links: LinksService,
    private readonly tries: Tries,
  ) {}

  @Answers({
    schema: 'PersonLink',
    fails: ['not-found', 'link-used', 'link-expired', 'too-many-tries'],
    open: true,
  })
  @Get('join')
  async look(@Ip() address: string, @Headers('authorization') header?: string): Promise<LinkView> {
    await this.tries.openPage(address);
    return this.links.opened(bearer(header));
  }

  @Answers({
    schema: 'Account',
    fails: [
      ...JSON_BODY,
      'not-found',
      'address-taken',
      'link-used',
      'link-expired',
      'too-many-tries',
    ],
    open: true,
  })
  @Post('join')
  @HttpCode(200)
  async use(
    @Ip() address: string,
    @Body() body: JoinBody,
    @Headers('authorization') header?: string,
  ): Promise<{ readonly email: string }> {
    await this.tries.openPage(address);
    return this.links.use(bearer(header), body);
  }

  /** Mails a link if the account exists. */
  @Answers({ status: 204, fails: [...JSON_BODY, 'too-many-tries'], open: true })
  @Post('session/forgotten')
  @HttpCode(204)
  async forgotten(@Ip() address: string, @Body() { email }: ForgottenBody): Promise<void> {
    await this.tries.askForLink(address, email);
    await this.links.forgotten(email);
  }
}
