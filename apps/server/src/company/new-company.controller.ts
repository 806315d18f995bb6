import { Body, Controller, Get, HttpCode, Ip, Post } from '@nestjs/common';
import { Answers, JSON_BODY } from '../http/openapi.ts';
import { Public } from '../http/public.ts';
import { Tries } from '../auth/tries.ts';
import { NewCompanyBody } from './new-company-body.ts';
import { NewCompanyService, type Founding } from './new-company.service.ts';

@Public()
@Controller('companies')
export class NewCompanyController {
  constructor(
    private readonly founding: NewCompanyService,
    private readonly tries: Tries,
  ) {}

  /** Whether a company can be created here, and whether it takes a code. */
  @Answers({ schema: 'Founding', open: true })
  @Get()
  async state(): Promise<{ readonly founding: Founding }> {
    return { founding: await this.founding.state() };
  }

  /** A new company, whose owner then signs in. */
  @Answers({
    status: 201,
    schema: 'Account',
    fails: [...JSON_BODY, 'founding-closed', 'address-taken', 'id-reused', 'too-many-tries'],
    open: true,
  })
  @Post()
  @HttpCode(201)
  async found(
    @Ip() address: string,
    @Body() body: NewCompanyBody,
  ): Promise<{ readonly email: string }> {
    const succeeded = await this.tries.signIn(address, 'founding');
    const founded = await this.founding.found(body);
    await succeeded();
    return founded;
  }
}
