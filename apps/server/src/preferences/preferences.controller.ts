import { Body, Controller, HttpCode, Post } from '@nestjs/common';
import type { Actor } from '../people/actor.ts';
import type { PreferencesView } from '../people/preferences.ts';
import { May } from '../people/rights.ts';
import { CurrentActor } from '../people/session.guard.ts';
import { Answers, JSON_BODY } from '../platform/openapi.ts';
import { ChangePreferencesBody } from './preferences-body.ts';
import { PreferencesService } from './preferences.service.ts';

@May('own')
@Controller('preferences')
export class PreferencesController {
  constructor(private readonly preferences: PreferencesService) {}

  /** What the signed-in person likes; `GET /session` has it with them. */
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
