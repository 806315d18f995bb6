import { Global, Module, type DynamicModule } from '@nestjs/common';
import { ConfigModule, ConfigService } from '@nestjs/config';
import { Settings } from './settings.ts';

/** The validated settings, injectable by class. */
@Global()
@Module({})
export class SettingsModule {
  static with(settings: Settings): DynamicModule {
    return {
      module: SettingsModule,
      imports: [
        ConfigModule.forRoot({
          ignoreEnvFile: true,
          ignoreEnvVars: true,
          load: [() => ({ settings })],
        }),
      ],
      providers: [
        {
          provide: Settings,
          inject: [ConfigService],
          useFactory: (config: ConfigService) => config.getOrThrow<Settings>('settings'),
        },
      ],
      exports: [Settings],
    };
  }
}
