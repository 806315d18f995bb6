import { Body, Controller, HttpCode, Post } from '@nestjs/common';
import type { Actor } from '../identity/actor.ts';
import type { PreferencesView } from '../identity/preferences.ts';
import { May } from '../identity/rights.ts';
import { CurrentActor } from '../identity/access.ts';
import { Answers, JSON_BODY } from '../http/openapi.ts';
import { ChangePreferencesBody } from './preferences-body.ts';
import { PreferencesService } from './preferences.service.ts';

@May('own')
@Controller('preferences')
export class PreferencesController {
  constructor(private readonly preferences: PreferencesService) {}

  /** The signed-in person's preferences, also part of `GET /session`. */
  @Answers({ schema: 'Preferences', fails: [...JSON_BODY, 'stale-version', 'id-reused'] })
  @Post('changes')
  @HttpCode(200)
  change(
    @CurrentActor() actor: Actor,
    @Body() body: ChangePreferencesBody,
  ): Promise<PreferencesView> {
    return this.preferences.change(actor, body);
  }
}
